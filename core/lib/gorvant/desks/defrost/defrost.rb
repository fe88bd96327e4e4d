# frozen_string_literal: true

module Gorvant
  module Desks
    # State now, sensors, schools and the forced test. A clear test proves the outputs; the coil's sensing is looked at
    # by itself.
    module Defrost
      KEPT = %w[moment history seen coil_switch thermistor test earlier].freeze
      MOST_TESTS = 12
      MOST_BYTES = 60_000

      class << self
        # given: what KEPT names, as the page has it. A forced test is closed only with every jumper accounted for.
        def keep(given, rig)
          stray = given.keys - KEPT
          refuse("/#{stray.first[0, 40]}", "unknown; known are #{KEPT.join(", ")}") if stray.any?
          earlier = given.fetch("earlier", [])
          unless earlier.is_a?(Array) && earlier.size <= MOST_TESTS
            refuse("/earlier", "has earlier forced tests as a list of at most #{MOST_TESTS}")
          end
          refuse("/", "is over #{MOST_BYTES} bytes") if JSON.generate(given).bytesize > MOST_BYTES

          earlier.each { |one| ForcedTest.parse(one) }
          ForcedTest.new(rig, ForcedTest.parse(given["test"])).refuse_close! if given["test"]
          given
        end

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

        # The coil switch at temperatures outside its two points, and what a forced test showed of fan, valve and
        # strips.
        def evidence(record) = coil_switch(record) + forced(record)

        private

        def coil_switch(record)
          return [] unless record.rig[:sensing] == "coil_switch"

          switch = CoilSwitch.of(record.rig)
          record
            .defrost
            .dig("coil_switch", "points")
            .to_a
            .filter_map do |point|
              coil = { "closed" => "cold", "open" => "warm" }[switch.at(point["degrees_f"])] or next
              words =
                Catalogue.words("sensor.seen_switch", state: point["state"], degrees: format("%g", point["degrees_f"]))
              ["coil_switch|#{coil}|person", point["state"], words]
            end
        end

        def forced(record)
          verdicts = forced_test(record)&.verdicts || []
          told = Catalogue.diagnosis.fetch("forced_test")
          verdicts.flat_map { |verdict| told.fetch(verdict.code, []).map { |id, answer| [id, answer, verdict.title] } }
        end

        def refuse(field, problem) = raise(BadRecord.new([{ "field" => field, "problem" => problem }]))

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
