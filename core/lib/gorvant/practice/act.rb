# frozen_string_literal: true

module Gorvant
  module Practice
    # One thing that a learner does, checked against the unit as drawn: { "act" => kind, and what that kind asks for }.
    # Raises BadAct with the field's pointer.
    class Act
      ASKS = {
        "call" => %w[value],
        "wait" => %w[minutes],
        "supply" => %w[of value],
        "prove_dead" => %w[],
        "volts" => %w[from to instrument],
        "ohms" => %w[from to isolated],
        "look" => %w[place],
        "settings" => %w[fact],
        "landings" => %w[place],
        "sensor" => %w[of],
        "degrees" => %w[place],
        "since_stop" => %w[],
        "lift" => %w[joint],
        "land" => %w[joint],
        "jumper" => %w[from to],
        "unjumper" => %w[from to],
        "force" => %w[],
        "unforce" => %w[],
        "swap" => %w[part]
      }.freeze
      MAY_BE_LEFT_OUT = %w[isolated instrument].freeze

      attr_reader :kind, :given

      def self.parse(given, drill) = new(given, drill).tap(&:check)

      def initialize(given, drill)
        @given = given
        @drill = drill
        @rig = drill.rig
        @netlist = Assembly.netlist(@rig)
      end

      def [](key) = given[key]

      # Nodes that it is about.
      def nodes = given.values_at("from", "to").compact

      def check
        wrong("", "has to be an object such as {\"act\": \"call\", \"value\": \"heat\"}") unless given.is_a?(Hash)
        @kind = known("act", ASKS.keys)
        stray = given.keys - ["act", *ASKS.fetch(kind)]
        wrong("/#{stray.first}", "is not for #{kind}; it takes #{list(ASKS.fetch(kind))}") if stray.any?
        (ASKS.fetch(kind) - MAY_BE_LEFT_OUT).each { |key| wrong("/#{key}", "is missing") if given[key].nil? }
        public_send(:"check_#{kind}") if respond_to?(:"check_#{kind}")
      end

      # --- what each kind asks for

      def check_call = known("value", Outputs.calls(@rig) - %w[defrost])

      def check_wait
        most = Practice.numbers.dig("most", "wait_minutes")
        return if given["minutes"].is_a?(Numeric) && given["minutes"].between?(0.1, most)

        wrong("/minutes", "has to be from 0.1 to #{most.round} minutes")
      end

      def check_supply
        known("of", Condition::SUPPLIES)
        known("value", %w[on off])
      end

      def check_volts
        points
        known("instrument", Meter.instruments.keys) if given["instrument"]
      end

      def check_ohms = points
      def check_jumper = points
      def check_unjumper = points
      def check_look = known("place", self.class.looks(@rig))
      def check_settings = known("fact", Observation.readable_facts(@rig))
      def check_landings = known("place", @rig.layout.fetch("places").keys)
      def check_degrees = known("place", self.class.degrees(@rig))
      def check_lift = known("joint", self.class.joints(@netlist))
      def check_land = known("joint", self.class.joints(@netlist))
      def check_swap = known("part", self.class.parts(@netlist))

      def check_sensor
        known("of", %w[COIL_T AMB_T].select { |code| @netlist.branch?(code) })
      end

      # --- what there is on a unit

      class << self
        def looks(rig)
          places = Observation.functions.dig("seen", "places")
          netlist = Assembly.netlist(rig)
          Practice
            .numbers
            .fetch("looks")
            .keys
            .select { |place| place?(rig, netlist, place, places.fetch(place)["load"]) }
        end

        def degrees(rig) =
          Practice
            .numbers
            .fetch("degrees")
            .keys
            .select do |place|
              {
                "coil_switch_pipe" => rig[:sensing] == "coil_switch",
                "thermostat_outdoor" => Balance.in_use?(rig)
              }.fetch(place, true)
            end

        # Field wires on their screws.
        def joints(netlist)
          wires = netlist.branches.select { |branch| branch.kind == :wire && !branch.id.include?("/") }
          wires.map(&:id).grep(Diagnosis::Hypotheses::JOINTS)
        end

        # Parts that can be changed.
        def parts(netlist) =
          netlist
            .branches
            .map { |branch| branch.component.to_s }
            .uniq
            .select { |code| Catalogue.components.key?(code) && !code.start_with?("cable") }

        private

        def place?(rig, netlist, place, load)
          return Diagnosis.guarded(place).any? { |code| netlist.branch?(code) } if Diagnosis.ports.include?(place)
          return Diagnosis.fitted?(rig, Diagnosis.numbers.dig("hidden", "flickers")) if place == "coil_switch_watched"
          return netlist.branch?("FU") if Diagnosis.numbers.fetch("fuse_lamp").key?(place)

          netlist.branch?(load || { "display" => "THERMOSTAT" }.fetch(place, "COMP"))
        end
      end

      private

      def points
        %w[from to].each { |key| wrong("/#{key}", "is no point of this unit") unless @netlist.node?(given[key].to_s) }
        wrong("/to", "is the same point as from; take two") if given["from"] == given["to"]
      end

      def known(key, list)
        return given[key] if list.include?(given[key])

        wrong("/#{key}", list.empty? ? "is not on this unit" : "has to be one of #{list(list)}")
      end

      def list(all) = all.empty? ? "nothing" : all.first(40).join(", ")
      def wrong(field, problem) = raise(BadAct.new(field: "/act#{field.sub(%r{\A/act\z}, "")}", problem: problem))
    end
  end
end
