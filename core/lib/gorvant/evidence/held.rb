# frozen_string_literal: true

module Gorvant
  # An observation held against what the circuit should do under the condition that it was made in. One file a function
  # in held/; what no circuit expects is kept and proves nothing by itself.
  module Held
    # verdict: "agrees", "disagrees" or "undetermined". says: a sentence. expected: [Expected, Reasons::Reason] of
    # volts, else nil.
    Judged = Value.define(:verdict, :says, :expected, defaults: { expected: nil })

    class << self
      # trace: the circuit it was read of. Returns Judged.
      def against(trace, observation)
        return untold if observation.choice == Observation::UNTOLD

        by = observation.about["held"]
        if by
          const_get(by).judge(trace, observation)
        else
          judged("undetermined", observation.about.fetch("kept", "kept"), reads: observation.says)
        end
      end

      def judged(verdict, key, expected: nil, **fields)
        Judged.new(verdict: verdict, says: Catalogue.words("held.#{key}", **fields), expected: expected)
      end

      private

      def untold = judged("undetermined", "untold")
    end
  end
end
