# frozen_string_literal: true

module Gorvant
  module Desks
    # State now, sensors, schools and the forced test. A clear test proves the outputs; the coil's sensing is looked at
    # by itself.
    module Defrost
      KEPT = %w[moment history seen coil_switch thermistor test earlier recorded].freeze
      MOST_TESTS = 12
      MOST_BYTES = 60_000
      MOST_VERDICTS = 20 # of a logger's record
      MOST_WORDS = 2000 # of one of them

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
          check_recorded(given["recorded"]) if given["recorded"]
          ForcedTest.new(rig, ForcedTest.parse(given["test"])).refuse_close! if given["test"]
          given
        end

        def standing(record)
          test = forced_test(record)
          verdicts = test&.verdicts || []
          Standing.of(
            "defrost",
            wrong: verdicts.any?(&:wrong?) || wrong_record?(record),
            looked_at: looked_at(verdicts, record),
            taken: still_open(test, verdicts, record)
          )
        end

        # The coil switch at temperatures outside its two points, and what a forced test showed of fan, valve and
        # strips.
        def evidence(record) = coil_switch(record) + forced(record) + recorded(record)

        # Jumpers, bridges and plugs of every forced test, as the last one left them, and sensors that were unplugged to
        # be measured.
        def put_back(record)
          tests = [*record.defrost.fetch("earlier", []), record.defrost["test"]].compact
          tallies = tests.map { |given| ForcedTest.new(record.rig, ForcedTest.parse(given)).tally }
          last = tallies.inject({}) { |all, tally| all.merge(tally) { |_item, was, now| now || was } }
          last.map { |item, state| tallied(item, state) } + (measured?(record) ? [unplugged] : [])
        end

        # Verdicts of every forced test with its tape, and what the sensors showed.
        def report(record)
          tests = [*record.defrost.fetch("earlier", []), record.defrost["test"]].compact
          blocks = tests.flat_map.with_index { |given, i| tested(record.rig, given, i, tests.size) }
          blocks += sensed(record) + logged(record)
          blocks.empty? ? [Blocks.text(Catalogue.words("report.no_defrost"))] : blocks
        end

        private

        # What of a logger's record counts for the visit: { "log_id", "name", "verdicts" => [{ "code", "title",
        # "says" }] }.
        def check_recorded(given)
          verdicts = given.is_a?(Hash) ? given["verdicts"] : nil
          unless verdicts.is_a?(Array) && verdicts.size <= MOST_VERDICTS && given["name"].is_a?(String)
            refuse("/recorded", "has the record's name and at most #{MOST_VERDICTS} verdicts of it")
          end
          verdicts.each_with_index do |one, i|
            known = one.is_a?(Hash) && one["code"].to_s.start_with?("recorded_") && Catalogue.verdicts.key?(one["code"])
            whole = known && %w[title says].all? { |key| one[key].is_a?(String) && one[key].size <= MOST_WORDS }
            refuse("/recorded/verdicts/#{i}", "has to be a verdict of a record, with its words") unless whole
          end
        end

        def verdicts_of(record) = record.defrost.dig("recorded", "verdicts").to_a

        def recorded(record)
          told = Catalogue.diagnosis.fetch("recorded")
          verdicts_of(record).flat_map do |one|
            told.fetch(one["code"], []).map { |id, answer| [id, answer, one["title"]] }
          end
        end

        def logged(record)
          verdicts = verdicts_of(record)
          return [] if verdicts.empty?

          name = Catalogue.words("report.record", name: record.defrost.dig("recorded", "name"))
          [Blocks.text(name), *verdicts.map { |one| Blocks.list(["#{one["title"]}: #{one["says"]}"]) }]
        end

        def tested(rig, given, index, count)
          test = ForcedTest.new(rig, ForcedTest.parse(given))
          rows =
            test.beside.map do |one|
              { "title" => one.title, "expected" => one.expected_seconds, "seen" => one.seen_seconds }
            end
          last = rows.flat_map { |row| row.values_at("expected", "seen") }.compact.max || 0
          [
            (Blocks.text(Catalogue.words("report.test", number: index + 1)) if count > 1),
            *test.verdicts.map { |one| Blocks.list(["#{one.title}: #{one.says}", *one.not_proved]) },
            (Blocks.tape(rows, last) if rows.any?)
          ].compact
        end

        def sensed(record)
          switch = record.defrost.dig("coil_switch", "points").to_a
          words = { "open" => "open", "closed" => "closed" }
          lines =
            switch.map do |point|
              Catalogue.words(
                "sensor.seen_switch",
                state: words[point["state"]],
                degrees: format("%g", point["degrees_f"])
              )
            end
          lines +=
            record
              .defrost
              .dig("thermistor", "points")
              .to_a
              .map do |point|
                Catalogue.words(
                  "report.thermistor",
                  degrees: format("%g", point["degrees_f"]),
                  ohms: point["ohms"]&.round || "OL"
                )
              end
          lines.any? ? [Blocks.list(lines)] : []
        end

        def measured?(record) = record.defrost.dig("thermistor", "points").to_a.any?
        def unplugged = PutBack.new(id: "defrost.thermistor", says: Catalogue.words("put_back.thermistor"))

        # An item of a test's tally: back where it was said to be, or marked.
        def tallied(item, state)
          back = ForcedTest::AT_REST.fetch(item) == state
          PutBack.new(
            id: "defrost.#{item}",
            says: Catalogue.words("put_back.#{item}"),
            by_record: back ? Catalogue.words("put_back.by_test") : nil
          )
        end

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
        def wrong_record?(record) =
          verdicts_of(record).any? { |one| Catalogue.verdicts.dig(one["code"], "verdict") == "wrong" }

        def sensed?(record) = %w[coil_switch thermistor].any? { |name| record.defrost.dig(name, "points").to_a.any? }
        def words(key) = Catalogue.wording.fetch("standing.#{key}")

        def looked_at(verdicts, record)
          [
            (words("forced_test") if verdicts.any?),
            (words("coil_sensing") if sensed?(record)),
            (words("record") if verdicts_of(record).any?)
          ].compact
        end

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
