# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # Which tests look at a hypothesis itself, and not only at what follows from it: nothing is condemned before one
    # did.
    class Direct
      MOST = 3 # of a class: the likeliest

      def initialize(library)
        @hypotheses = library.hypotheses
        @netlist = library.situation.netlist
        @rig = library.situation.rig
      end

      # indexes: of a class, the likeliest first.
      def to?(test, indexes) = indexes.first(MOST).any? { |i| looks_at?(test, @hypotheses[i]) }

      private

      def looks_at?(test, hypothesis)
        return design?(test, hypothesis) unless hypothesis.turns.empty?

        looked_up?(test, hypothesis) || wires?(test, hypothesis) || sensed?(test, hypothesis) ||
          hypothesis.faults.any? { |fault| Diagnosis.touch?(fault, test, @rig) } || measured?(test, parts(hypothesis))
      end

      # What something as designed hangs on.
      def design?(test, hypothesis)
        turns = hypothesis.turns
        return %w[since_stop after_the_wait].include?(test.place) if turns["board"] == "hold"
        return test.place == "after_a_minute" if turns.key?("contacts")
        return test.place == "thermostat_outdoor" if turns.key?("above") || turns.key?("below")

        measured?(test, turns.fetch("switches", {}).keys)
      end

      def looked_up?(test, hypothesis) = test.function == "looked_up" && Diagnosis.facts_of(hypothesis).key?(test.place)

      def wires?(test, hypothesis)
        place = test.place.to_s[/\Awires_(.+)/, 1]
        !place.nil? && hypothesis.faults.any? { |fault| Diagnosis.at_wires?(fault, place) }
      end

      # A gauge or a hand that tells of it alone.
      def sensed?(test, hypothesis)
        senses = hypothesis.senses
        return true if senses["port"] && senses["port"] == test.place

        return true if senses["watched"] && test.place == "coil_switch_watched"

        senses["pumping"] == "leaking" && test.place == "tubes"
      end

      def parts(hypothesis) = [hypothesis.at, *hypothesis.faults.flat_map { |fault| Array(fault["at"]) }].compact

      def measured?(test, parts)
        return parts.include?(test.place) if %w[ohms microfarads].include?(test.function)

        test.function == "volts_ac" && parts.any? { |id| across?(test, id) }
      end

      # Volts across the very switch or fuse; across a coil they only say that it is fed.
      def across?(test, id)
        return false unless @netlist.branch?(id)

        branch = @netlist[id]
        (branch.switching? || branch.kind == :fuse) &&
          [branch.from, branch.to].sort == [test.from_node, test.to_node].sort
      end
    end
  end
end
