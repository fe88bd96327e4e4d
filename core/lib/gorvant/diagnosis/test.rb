# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # One thing to measure, see, feel, look up or do. function, from_node, to_node, place, instrument: as an Observation
    # has them; state: the id of a Situation::State, nil where no call matters; scale: Scale; at: the place of the unit
    # where one stands for it; minutes: what it takes there; cautions: keys of Catalogue.cautions; open: what it says to
    # do first, a key of wording, or nil.
    Test =
      Value.define(
        :id,
        :state,
        :function,
        :from_node,
        :to_node,
        :place,
        :instrument,
        :isolated,
        :scale,
        :at,
        :minutes,
        :cautions,
        :first,
        defaults: {
          state: nil,
          from_node: nil,
          to_node: nil,
          place: nil,
          isolated: false,
          cautions: [].freeze,
          first: nil
        }
      )

    # Every test of a unit that one person with the usual instruments can make.
    class Tests
      EYES = "person"

      def initialize(situation, hypotheses)
        @situation = situation
        @rig = situation.rig
        @netlist = situation.netlist
        @hypotheses = hypotheses
        @costs = Diagnosis.numbers.fetch("minutes")
        @volts = Scale.volts
      end

      # [Test], each point pair once in each state.
      def all =
        @all ||= [
          *volts,
          *seen,
          *by_hand,
          *ice,
          *ohms,
          *capacitors,
          *lamp,
          *facts,
          *landings,
          *times,
          *ports,
          *coil_switch,
          *own_sensor
        ].uniq(&:id)

      private

      def test(function, place: nil, state: nil, from: nil, to: nil, instrument: EYES, **more)
        id = [function, state, place, from, to, instrument].compact.join("|")
        Test.new(
          id: id,
          function: function,
          state: state,
          place: place,
          from_node: from,
          to_node: to,
          instrument: instrument,
          **more
        )
      end

      # --- volts

      def volts
        lines = across_line
        @situation.states.flat_map do |state|
          next lifted(state) if state.lifted

          pairs = state.id == "heat_cold" ? coil_pairs : low_pairs
          pairs.map { |from, to| volt(state, from, to) } +
            (%w[heat_cold].include?(state.id) ? [] : lines.map { |from, to| line_volt(state, from, to) })
        end
      end

      def volt(state, from, to, instrument: "high_impedance", first: nil, minutes: @costs["volts"])
        test(
          "volts_ac",
          state: state.id,
          from: from,
          to: to,
          instrument: instrument,
          scale: @volts,
          at: place_of(to),
          minutes: minutes,
          first: first
        )
      end

      def line_volt(state, from, to)
        test(
          "volts_ac",
          state: state.id,
          from: from,
          to: to,
          instrument: "high_impedance",
          scale: @volts,
          at: place_of(to),
          minutes: @costs["line_volts"],
          cautions: %w[line_voltage starts_by_itself]
        )
      end

      def low_pairs = @low_pairs ||= to_common + across
      def coil_pairs = %w[DFT APS].filter_map { |code| ends(code) } + input_pairs
      def input_pairs = @netlist.node?("outdoor.board.DFT_2") ? [%w[outdoor.C outdoor.board.DFT_2]] : []

      # C to every terminal of its place, and to the board's own points outdoors.
      def to_common
        strips =
          @rig
            .layout
            .fetch("places")
            .keys
            .flat_map do |place|
              @rig
                .terminals(place)
                .reject { |terminal| terminal == "C" }
                .map { |terminal| ["#{place}.C", "#{place}.#{terminal}"] }
            end
        board = %w[T1 RVS Y_out M].map { |tap| ["outdoor.C", "outdoor.board.#{tap}"] }
        (strips + board).select { |pair| pair.all? { |node| @netlist.node?(node) } }
      end

      # Across every switch, fuse and coil of the low voltage.
      def across
        @netlist
          .branches
          .select { |branch| %i[switch fuse coil contact].include?(branch.kind) && @situation.low?(branch.from) }
          .reject { |branch| branch.id.start_with?("THERMOSTAT", "DFR") || branch.id == "BOARD.defrost" }
          .map { |branch| [branch.from, branch.to] } + secondary
      end

      def secondary = @netlist.secondary ? [[@netlist.secondary.from, @netlist.secondary.to]] : []
      def ends(code) = @netlist.branch?(code) ? [@netlist[code].from, @netlist[code].to] : nil

      def across_line
        legs = [%w[outdoor.L1 outdoor.L2], %w[air_handler.L1 air_handler.L2], %w[air_handler.L1 air_handler.N]]
        loads = %w[COMP OFM BLOWER HTR HTR2].filter_map { |code| ends(code) }
        (legs + loads).select { |pair| pair.all? { |node| @netlist.node?(node) } }
      end

      # A field wire off its terminal: wire and terminal each by itself, on low impedance.
      def lifted(state)
        joint = @netlist[state.lifted]
        place = place_of(joint.from)
        [joint.from, joint.to].map do |node|
          volt(
            state,
            "#{place}.C",
            node,
            instrument: "low_impedance",
            first: "find.first_lift",
            minutes: @costs["volts"] + (@costs["lift"] / 2)
          )
        end
      end

      def place_of(node) = node.split(".").first

      # --- eyes and ears

      SEEN_AT = {
        "outdoor_fan" => "outdoor",
        "compressor" => "outdoor",
        "contactor" => "outdoor",
        "blower" => "air_handler",
        "strips" => "air_handler",
        "display" => "wall"
      }.freeze
      private_constant :SEEN_AT

      def seen
        places = Observation.functions.fetch("seen").fetch("places")
        fitted =
          SEEN_AT.select do |place, _at|
            load = places.fetch(place)["load"]
            @netlist.branch?(load || "THERMOSTAT")
          end
        @situation
          .states
          .reject { |state| state.lifted || state.id == "heat_cold" }
          .flat_map do |state|
            fitted.map { |place, at| look(place, state, at, places.fetch(place).fetch("choices").keys) }
          end
      end

      def look(place, state, at, answers, minutes: @costs["seen"], **more)
        test("seen", place: place, state: state&.id, scale: Scale.choice(answers), at: at, minutes: minutes, **more)
      end

      # What a hand or a gauge tells of the refrigerant, in the calls that run the compressor.
      def by_hand
        @situation.states.flat_map do |state|
          Diagnosis
            .numbers
            .fetch("by_hand")
            .select { |_place, about| about["calls"].include?(state.id) }
            .map do |place, about|
              look(
                place,
                state,
                "outdoor",
                about["answers"],
                minutes: about["minutes"],
                cautions: about["minutes"] > 5 ? %w[maker_first] : %w[steam]
              )
            end
        end
      end

      def ice
        [
          look("ice", nil, "outdoor", Observation.functions.dig("seen", "places", "ice", "choices").keys),
          look(
            "forced_defrost",
            @situation.state("heat_cold") || @situation.state("heat"),
            "outdoor",
            Observation.functions.dig("seen", "places", "forced_defrost", "choices").keys -
              Diagnosis.numbers.fetch("says_less").keys,
            minutes: @costs["defrost"],
            cautions: %w[starts_by_itself steam]
          ),
          *watched
        ]
      end

      # A switch that opens for a moment clears the count of a clock that asks for cold; read once, it is closed.
      def watched
        return [] unless @situation.fits?(Diagnosis.numbers.dig("hidden", "flickers"))

        place = "coil_switch_watched"
        answers = Observation.functions.dig("seen", "places", place, "choices").keys
        state = @situation.state("heat_cold")
        [look(place, state, "outdoor", answers, minutes: @costs[place], cautions: %w[starts_by_itself steam])]
      end

      # Places that a gauge tells against a switch's rating.
      def ports
        Diagnosis
          .ports
          .select { |place| Diagnosis.guarded(place).any? { |code| @netlist.branch?(code) } }
          .map do |place|
            look(place, nil, "outdoor", %w[inside past], minutes: @costs["port"], cautions: %w[maker_first safeties])
          end
      end

      # --- a lamp in place of the fuse

      # In every call; with the outdoor unit's cable off; with every wire off R: the way to a short, and no fuse burnt.
      def lamp
        return [] unless @netlist.branch?("FU")

        Diagnosis
          .numbers
          .fetch("fuse_lamp")
          .reject { |place, about| about["lift"] && @situation.off_for_lamp(place).empty? }
          .flat_map do |place, about|
            states = @situation.states.select { |state| lit_in?(state, about["calls"]) }
            states.map do |state|
              look(
                place,
                state,
                "air_handler",
                %w[full not_full],
                minutes: about["minutes"],
                cautions: %w[dead_short two_supplies],
                first: about["first"]
              )
            end
          end
      end

      def lit_in?(state, calls) = state.id == state.condition.call && (calls.nil? || calls.include?(state.id))

      # --- power off

      def ohms
        parts = @netlist.branches.select { |branch| measurable?(branch) }
        of_conductors +
          parts.map do |branch|
            test(
              "ohms",
              from: branch.from,
              to: branch.to,
              instrument: "ohmmeter",
              isolated: true,
              place: branch.id,
              scale: Scale.ohms,
              at: place_of(branch.from) == "cable_b" ? "outdoor" : place_of(branch.from),
              minutes: @costs["ohms"],
              cautions: %w[line_voltage ohms_isolated]
            )
          end
      end

      # A run capacitor by itself: what hums is told from a winding by nothing else.
      def capacitors
        places = Observation.functions.fetch("microfarads").fetch("places").keys
        places
          .select { |place| @netlist.branch?(place) }
          .map do |place|
            test(
              "microfarads",
              place: place,
              instrument: "capacitance_meter",
              scale: Scale.microfarads,
              at: "outdoor",
              minutes: @costs["capacitor"],
              cautions: %w[line_voltage]
            )
          end
      end

      # Two conductors of a cable, and each and the chassis, off at both ends: open, unless they touch. The common one
      # comes first.
      def of_conductors
        @rig.cables.flat_map do |cable|
          wires = cable.conductors.reject(&:spare).partition { |conductor| conductor.to == "C" }.flatten
          pairs = wires.combination(2).map { |pair| pair.map { |one| "#{cable.to}.#{cable.id}.#{one.id}" } }
          pairs.map { |from, to| apart(cable.to, from, to) } +
            wires.map { |wire| apart(CHASSIS_AT, Assembly::CHASSIS, "#{CHASSIS_AT}.#{cable.id}.#{wire.id}") }
        end
      end
      CHASSIS_AT = Assembly::CHASSIS.split(".").first # where an end of either cable and bare metal are at hand
      private_constant :CHASSIS_AT

      def apart(place, from, to)
        test(
          "ohms",
          from: from,
          to: to,
          instrument: "ohmmeter",
          isolated: true,
          place: "between",
          scale: Scale.ohms,
          at: place,
          minutes: @costs["ohms"] / 2,
          cautions: %w[ohms_isolated],
          first: "find.first_both_off"
        )
      end

      def measurable?(branch)
        return true if %i[coil fuse].include?(branch.kind)
        if branch.kind == :switch && branch[:closed] && Assembly::Positions.movable(@rig).include?(branch.id)
          return true
        end
        return false if branch.id.include?("@")

        branch.kind == :wire && branch.component.to_s.start_with?("cable")
      end

      # --- looked up

      # Facts that some hypothesis has otherwise.
      def facts
        values = Hash.new { |all, key| all[key] = [@rig[key.to_sym]] }
        @hypotheses.each { |one| facts_of(one).each { |key, value| values[key] |= [value] } }
        values.map do |key, known|
          at = FACTS_AT.fetch(Catalogue.facts.fetch(key)["group"], "outdoor")
          test(
            "looked_up",
            place: key,
            scale: Scale.fact(known),
            at: at,
            minutes: @costs["fact"],
            cautions: Diagnosis.numbers.fetch("behind_covers").include?(key) ? %w[line_voltage] : []
          )
        end
      end
      FACTS_AT = { "settings" => "wall", "indoor" => "air_handler" }.freeze
      private_constant :FACTS_AT

      def facts_of(hypothesis) = Diagnosis.facts_of(hypothesis)

      def landings
        @rig
          .layout
          .fetch("places")
          .keys
          .map { |place| look("wires_#{place}", nil, place, %w[as_drawn otherwise], minutes: @costs["landings"]) }
      end

      # What the Defrost page has read of the coil switch at a measured temperature: told by that page, never asked
      # here.
      def coil_switch
        return [] unless @netlist.branch?("DFT")

        %w[cold warm].map do |coil|
          test("coil_switch", place: coil, scale: Scale.choice(%w[closed open]), at: "outdoor", minutes: 0.0)
        end
      end

      # What the thermostat itself takes for the weather, by which its balance points go.
      def own_sensor
        return [] unless Balance.in_use?(@rig)

        scale = Scale.choice(%w[below between above])
        [
          test(
            "degrees_f",
            place: "thermostat_outdoor",
            scale: scale,
            instrument: "probe",
            at: "wall",
            minutes: @costs["seen"]
          )
        ]
      end

      # --- time

      def times = board_hold + sequencer_time

      # W has been live for as long as a sequencer may take.
      def sequencer_time
        return [] unless @situation.fits?(Diagnosis.numbers.dig("as_designed", "sequencer_waits"))

        states = %w[heat_aux emergency defrost].filter_map { |id| @situation.state(id) }
        states.map { |state| look("after_a_minute", state, "air_handler", %w[on off], minutes: @costs["sequencer"]) }
      end

      def board_hold
        return [] unless @rig[:y_path] == "delay"

        [
          test("minutes", place: "since_stop", scale: Scale.minutes, at: nil, minutes: @costs["minutes"]),
          look(
            "after_the_wait",
            @situation.state("heat"),
            "outdoor",
            %w[in out],
            minutes: @rig[:board_hold_seconds] / 60.0
          )
        ]
      end
    end

    # Whether a look at the wires of a place shows a fault: a wire on another terminal or on none, a jumper, a strand
    # across two screws.
    def self.at_wires?(fault, place)
      ends = Array(fault["at"])
      case fault["kind"]
      when "landed", "lifted", "swapped", "jumper", "extra"
        ends.any? { |at| at.end_with?("@#{place}") || at.start_with?("#{place}.") }
      when "short"
        ends.all? { |at| at.start_with?("#{place}.") && !at.include?(".cable_") }
      else
        false
      end
    end

    # Whether a test between two conductors of a cable, or one and the chassis, off at both ends, shows a fault: the one
    # touches the other. The library has what touches the common one touch C, where that lands.
    def self.touch?(fault, test, rig)
      return false unless %w[short to_ground].include?(fault["kind"]) && test.place == "between"

      bare = test.from_node == Assembly::CHASSIS
      return false unless bare == (fault["kind"] == "to_ground")
      return conductor_of(fault["at"], rig) == conductor_of(test.to_node, rig) if bare

      touching = fault["at"].map { |node| conductor_of(node, rig) }
      tested = [test.from_node, test.to_node].map { |node| conductor_of(node, rig) }
      tested.all? { |one| touching.include?(one) || (touching.include?("C") && common?(one, rig)) }
    end

    # "cable_b.yellow" of "outdoor.cable_b.yellow"; "C" of a terminal C; nil of any other.
    def self.conductor_of(node, rig)
      _place, *rest = node.split(".")
      return rest.join(".") if rig.cables.any? { |cable| cable.id == rest.first }

      rest == ["C"] ? "C" : nil
    end

    def self.common?(conductor, rig)
      cable, id = conductor.split(".")
      rig.cables.find { |one| one.id == cable }.conductors.any? { |wire| wire.id == id && wire.to == "C" }
    end
    private_class_method :conductor_of, :common?

    # Facts that a hypothesis has otherwise than noted: its own, and those of a wrong set-up.
    def self.facts_of(hypothesis)
      set_up = hypothesis.faults.select { |fault| fault["kind"] == "set_up" }
      hypothesis.facts.merge(set_up.to_h { |fault| [fault["at"], fault["value"]] })
    end
  end
end
