# frozen_string_literal: true

module Gorvant
  module Server
    # A row of readings and the Observation that it is: without a database, so that it is the same wherever it is asked.
    module ReadingRow
      class << self
        # What a row holds of an observation and of what came of it. expected: what should have been read, as JSON has
        # it.
        def columns(observation, judged, expected)
          {
            **observation.to_h.slice(:function, :from_node, :to_node, :place, :choice, :instrument, :isolated),
            **amount(observation.amount),
            expected: expected,
            verdict: judged.verdict,
            says: judged.says
          }
        end

        # The Observation of a row.
        def observation(row)
          low, high = row.values_at(:value, :value_high)
          amount = Amount.new(low: low, high: high || low, about: row[:about], open: row[:open]) if low || row[:open]
          fields = row.slice(:function, :from_node, :to_node, :place, :instrument, :isolated)
          Observation.new(**fields, choice: row[:choice], amount: amount)
        end

        private

        def amount(amount)
          return {} unless amount

          high = amount.high == amount.low ? nil : amount.high
          { value: amount.low, value_high: high, about: amount.about, open: amount.open }
        end
      end
    end
  end
end
