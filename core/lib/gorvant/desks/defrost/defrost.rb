# frozen_string_literal: true

module Gorvant
  module Desks
    # State now, sensors, schools and the forced test. A clear test proves the outputs; the coil's sensing is looked at
    # by itself.
    module Defrost
      class << self
        def standing(record)
          test = forced_test(record)
          verdicts = test&.verdicts || []
          Standing.of(
            "defrost",
            wrong: verdicts.any?(&:wrong?),
            looked_at: looked_at(verdicts, record),
            taken: still_open(test, verdicts, record)
          )
        end

        private

        def forced_test(record) =
          record.defrost["test"]&.then { |test| ForcedTest.new(record.rig, ForcedTest.parse(test)) }
        def sensed?(record) = %w[coil_switch thermistor].any? { |name| record.defrost.dig(name, "points").to_a.any? }
        def words(key) = Catalogue.wording.fetch("standing.#{key}")

        def looked_at(verdicts, record) =
          [(words("forced_test") if verdicts.any?), (words("coil_sensing") if sensed?(record))].compact

        def still_open(test, verdicts, record)
          unclear = verdicts.select { |verdict| verdict.verdict == "undetermined" }.map(&:title)
          [
            *unclear,
            *(words("forced_test_open") unless test&.record&.closed),
            *(words("coil_sensing") unless sensed?(record))
          ]
        end
      end
    end
  end
end
