# frozen_string_literal: true

module Gorvant
  module Practice
    # Acts that are stopped before they hurt somebody, or the unit: said why, and counted. What an ordinary test is
    # (R to Y or G at the strip, a wire lifted on low voltage) passes.
    class Unsafe
      Stop = Value.define(:code, :says, :caution)

      def initialize(drill, situation)
        @rig = drill.rig
        @situation = situation
        @netlist = situation.netlist
      end

      # Stop or nil. standing: before the act; unit: UnitAt, asked only where the answer hangs on it.
      def of(act, standing, &unit)
        case act.kind
        when "ohms", "swap", "sensor"
          hands_in(act, standing)
        when "call"
          out_of_limits(act["value"], standing)
        when "jumper"
          jumper(act, unit)
        end
      end

      private

      def hands_in(act, standing)
        # Dead is both supplies, wherever one measures: the outdoor disconnect leaves 24 V alive, the air handler's
        # breaker leaves line voltage outdoors.
        return stop("ohms_live") if act.kind == "ohms" && !standing.dead?
        stop("not_proved") unless standing.dead? && standing.proved
      end

      def out_of_limits(call, standing)
        return nil if @situation.allowed?(call) || standing.off.include?("outdoor")

        limits = Catalogue.profile.fetch("bench")
        if Catalogue.calls.fetch(call)["mode"] == "cooling"
          stop("cooling_in_frost", degrees: format("%g", limits["no_cooling_below_degrees_f"]))
        else
          stop("heating_in_summer", degrees: format("%g", limits["no_heating_above_degrees_f"]))
        end
      end

      def jumper(act, unit)
        return stop("line_jumper") unless act.nodes.all? { |node| @situation.low?(node) }

        codes = SafetyBridge.codes(@rig, *act.nodes)
        return stop("r_to_c") if codes.include?(@netlist.secondary&.component)
        return stop("safety_bridged", codes: codes.join(", ")) if codes.any?
        return stop("strips_without_air") if heats?(act) && !unit.yield.body.works?("BLOWER")

        stop("held_off") if starts?(act) && unit.yield.holding?
      end

      # R to where backup is called, R to where the compressor is.
      def heats?(act) = from_r?(act) && act.nodes.any? { |node| node.match?(/\.(W\d?|E|W2_out|AUX)\z/) }
      def starts?(act) = from_r?(act) && act.nodes.any? { |node| node.match?(/\.(Y\d?|T1|M|Y_in|Y_out)\z/) }
      def from_r?(act) = act.nodes.any? { |node| node.match?(/\.R[CH]?\z/) }

      def stop(code, **fields)
        about = Practice.numbers.fetch("unsafe").fetch(code)
        Stop.new(code: code, says: format(about.fetch("says"), fields), caution: about.fetch("caution"))
      end
    end
  end
end
