# frozen_string_literal: true

module Gorvant
  module Held
    # Ohms with the power off. Typical windings are no maker's table: only open, shorted, joined and about like are
    # told; what lies between is for the table of the part in hand.
    module Ohms
      class << self
        def judge(trace, seen)
          should = trace.ohms(seen.from_node, seen.to_node, isolated: seen.isolated)
          verdict, key = verdict(should.ohms, *seen.amount.bounds)
          Held.judged(
            verdict,
            "ohms_#{key}",
            reads: seen.says,
            should: should.says,
            most: format("%g", limits["joined_at_most"])
          )
        end

        private

        # [verdict, key of the words] of least..most ohms read.
        def verdict(should, least, most)
          return apart(least, most) if should.infinite?
          return %w[disagrees open] if least >= limits["open_from"]

          should <= limits["joined_at_most"] ? joined(least, most) : winding(should, least, most)
        end

        def apart(least, most)
          return %w[agrees open_right] if least >= limits["open_from"]

          most < limits["open_from"] ? %w[disagrees way_through] : %w[undetermined between]
        end

        def joined(least, most)
          return %w[agrees joined] if most <= limits["joined_at_most"]

          least > limits["joined_never_over"] ? %w[disagrees resists] : %w[undetermined between]
        end

        def winding(should, least, most)
          factor = limits["like_factor"]
          return %w[agrees like] if least >= should / factor && most <= should * factor

          most <= should * limits["short_fraction"] ? %w[disagrees shorted] : %w[undetermined between]
        end

        def limits = Catalogue.evidence.fetch("ohms")
      end
    end
  end
end
