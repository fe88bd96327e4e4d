# frozen_string_literal: true

module Gorvant
  module Held
    # Volts: by Agreement at either end of what may have been read. Where only one end agrees, the range is too wide to
    # say.
    module Volts
      class << self
        def judge(trace, seen)
          expected, reason = trace.reading(seen.from_node, seen.to_node, seen.instrument)
          ends = seen.amount.bounds.map { |volts| Agreement.judge(expected, [volts, 0.0].max) }
          if split?(expected, ends, seen.amount.bounds)
            return Judged.new(verdict: "undetermined", says: wide(seen, expected), expected: [expected, reason])
          end

          says = [ends.first.says, Advice.on(trace, seen.from_node, seen.to_node, ends.first)].compact.join(" ")
          Judged.new(verdict: ends.first.verdict, says: says, expected: [expected, reason])
        end

        private

        # Whether a value in between could come to another verdict than the ends: they differ, or what is expected lies
        # between them.
        def split?(expected, ends, bounds)
          return true if ends.map(&:verdict).uniq.size > 1

          likely = [expected, *expected.alternatives].map(&:volts_ac).compact
          ends.first.verdict == "disagrees" && likely.any? { |volts| volts.between?(*bounds) }
        end

        def wide(seen, expected)
          Catalogue.words("held.too_wide", reads: seen.says, expected: format("%.1f V", expected.volts_ac || 0.0))
        end
      end
    end
  end
end
