# frozen_string_literal: true

module Gorvant
  class Run
    # What is written down of a run: which signals a rig has, what a person calls them, and which branch of the circuit
    # each moves.
    class Signals
      # kind: call, output, flag, contact, switch, load, node, supply or valve.
      About = Value.define(:id, :title, :group, :kind)

      NODES = %w[
        outdoor.Y
        outdoor.board.T1
        outdoor.O
        outdoor.B
        wall.O
        wall.OB
        wall.B
        outdoor.Y2
        outdoor.W2_out
        air_handler.W
      ].freeze
      LOADS = %w[
        CC
        CC2
        Y2S
        RVS
        RVR
        HGS
        DFR
        DFR2
        IFR
        SEQ
        SEQ2
        HR
        HR2
        BIR
        GAS
        BOARD
        THERMOSTAT
        COMP
        COMP2
        OFM
        BLOWER
        HTR
        HTR2
        RVS_LINE
        DFT_IN
        APS_IN
      ].freeze
      INPUTS = { "DFT_IN" => "coil switch input", "APS_IN" => "air-pressure input" }.freeze
      FLAGS = {
        "hold" => "hold",
        "lockout" => "lockout",
        "defrost" => "defrost",
        "turn" => "turn of the defrost"
      }.freeze
      CONTACTS = {
        "IFR.line" => "blower contact",
        "SEQ.line" => "sequencer contact",
        "SEQ2.line" => "second sequencer contact"
      }.freeze
      # What moves a branch that has another name than its signal.
      MOVERS = {
        "BOARD.compressor" => %w[lockout hold],
        "BOARD.divert" => %w[lockout],
        "BOARD.defrost" => %w[defrost]
      }.freeze

      attr_reader :all

      def initialize(rig, netlist, cast)
        @rig = rig
        @netlist = netlist
        @all =
          (
            calls + outputs + flags(cast) + contacts(cast) + switches + supplies + fuses + nodes + loads + speeds
          ).to_h { |about| [about.id, about] }
      end

      def [](id) = @all[id]
      def title(id) = @all[id]&.title || id

      # Signals that decide whether a branch conducts.
      def movers(branch)
        return MOVERS[branch.id] if MOVERS.key?(branch.id)
        return [branch.id] if @all.key?(branch.id)
        return [branch[:relay]] if branch.kind == :contact
        return [branch.id.split(".leg_").first] if branch.id.include?(".leg_")

        []
      end

      # A sentence for a change.
      def says(id, value)
        about = @all.fetch(id)
        value = Catalogue.calls.fetch(value)["title"].downcase if about.kind == "call" && Catalogue.calls.key?(value)
        key = { true => "on", false => "off" }.fetch(value, "word")
        Catalogue.words(
          "event.#{about.kind}_#{key}",
          title: about.title[0].upcase + about.title[1..],
          lower: about.title,
          value: value
        )
      end

      private

      def about(id, title, group, kind) = About.new(id: id, title: title, group: group, kind: kind)
      def calls = [about("call", "call", "call", "call")]
      def outputs =
        (@rig.terminals("wall") - %w[R C]).map do |terminal|
          about("THERMOSTAT.#{terminal}", "thermostat #{Naming.letter(@rig, terminal)}", "call", "output")
        end

      def flags(cast)
        ids = cast.controllers.map(&:id).include?("guard") ? FLAGS.keys : %w[defrost]
        ids.map { |id| about(id, FLAGS.fetch(id), "board", "flag") } + [about("valve", "valve", "plant", "valve")]
      end

      def contacts(cast) = cast.delayed.map { |id| about(id, CONTACTS.fetch(id), "indoor", "contact") }
      def switches = Assembly::Positions.movable(@rig).map { |code| about(code, code, "switches", "switch") }
      def fuses = @netlist.fuses.map { |fuse| about(fuse.id, fuse.label, "supplies", "fuse") }
      def supplies =
        Condition::SUPPLIES.map do |id|
          about(id, id == "outdoor" ? "outdoor disconnect" : "air handler supply", "supplies", "supply")
        end
      def speeds =
        if @rig[:blower_speeds] == 2 && @rig[:backup] != "gas"
          [about("blower_speed", "blower speed", "indoor", "speed")]
        else
          []
        end
      def nodes =
        NODES
          .select { |node| @netlist.node?(node) }
          .map do |node|
            about(node, @netlist.label(node), node.start_with?("air_handler") ? "indoor" : "board", "node")
          end

      def loads
        (LOADS + (Options.across & Options.low))
          .select { |code| @netlist.branch?(code) }
          .map do |code|
            about(
              code,
              INPUTS.fetch(code) { Naming.component(code) },
              @netlist[code].from.split(".").first == "outdoor" ? "outdoor" : "indoor",
              "load"
            )
          end
      end
    end
  end
end
