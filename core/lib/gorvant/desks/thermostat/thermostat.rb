# frozen_string_literal: true

module Gorvant
  module Desks
    # The settings as read at the wall, against what is fitted; the bench list; the maker's own numbers for settings.
    module Thermostat
      KEPT = %w[settings bench labels].freeze
      MOST_LINES = 40
      MOST_LETTERS = 40
      LABELS =
        "has to be settings with the maker's own number or name in up to 40 characters, " \
          "such as {\"changeover_setup\": \"12\"}"
      BENCH =
        "has to be lines of the bench list with the terminals seen live, such as {\"heat-1\": [\"Y\", \"G\"]}, " \
          "or with why it was not run, such as {\"cool-1\": {\"not_run\": \"too cold\"}}"

      class << self
        # given: { "settings" => { fact => value }, "bench" => { line => terminals seen live or { "not_run" => why } },
        # "labels" => { fact => the maker's own number } }
        def keep(given, rig)
          problems = []
          stray = given.keys - KEPT
          problems << problem(stray.first, "unknown; known are #{KEPT.join(", ")}") if stray.any?
          problems << problem("bench", BENCH) unless bench?(given.fetch("bench", {}))
          problems << problem("labels", LABELS) unless labels?(given.fetch("labels", {}))
          raise BadRecord.new(problems) if problems.any?

          settings = AsFound.parse({ "settings" => given.fetch("settings", {}) }, rig).to_json_hash["settings"]
          { "settings" => settings, **given.slice("bench", "labels") }.reject { |_key, part| part.to_h.empty? }
        end

        def standing(record)
          return Standing::UNTOUCHED if record.as_found.read_settings.empty?

          SettingsCheck.new(record.rig, record.as_found, set_point_degrees_f: record.set_point_degrees_f).standing
        end

        # Settings as they were read at the wall.
        def evidence(record)
          record.as_found.read_settings.map do |key, value|
            ["looked_up|#{key}|person", value, Comparison.words(key, value)]
          end
        end

        # Settings that do not fit what is fitted, and those that are changed for a test and forgotten.
        def put_back(record)
          rig = record.rig
          read = record.as_found.settings
          fitting = Target.fitting(rig)
          wrong = fitting.select { |key, values| read.key?(key) && !values.include?(read[key]) }
          tested = Catalogue.put_back.select { |key, about| read.key?(key) && unusual?(about, read[key]) }
          wrong.map { |key, values| setting(key, "setting_right", Comparison.words(key, values.first)) } +
            tested.keys.map { |key| setting(key, "setting_back", Comparison.words(key, read[key])) }
        end

        # Settings as they were read, and the stages that follow from them.
        def report(record)
          found = record.as_found
          return [Blocks.text(Catalogue.words("report.no_settings"))] if found.read_settings.empty?

          check = SettingsCheck.new(record.rig, found, set_point_degrees_f: record.set_point_degrees_f)
          read = check.items.reject { |item| %w[assumed told_before].include?(item.source) }
          rows =
            read.map do |item|
              [item.title, Comparison.words(item.key, item.found), item.should || "", Blocks.sign(item.verdict)]
            end
          head = %w[setting stands should mark].map { |key| Catalogue.words("report.head_#{key}") }
          [Blocks.text(check.standing.says), Blocks.table(head, rows), *staged(check.rig, record.outdoor_degrees_f)]
        end

        def labels?(value)
          value.is_a?(Hash) &&
            value.all? do |key, label|
              Rig.settings.include?(key.to_s) && label.is_a?(String) && label.size <= MOST_LETTERS &&
                !label.match?(/[[:cntrl:]]/)
            end
        end

        private

        HELD_SECONDS = 7_200.0
        HELD_ERROR = 4.0 # °F below the set point, held
        private_constant :HELD_SECONDS, :HELD_ERROR

        # Two hours of a room held well below its set point.
        def staged(rig, outdoor)
          outdoor ||= Catalogue.profile.dig("bench", "outdoor_degrees_f")
          start = {
            "set_point_degrees_f" => 70.0,
            "room_degrees_f" => 70.0 - HELD_ERROR,
            "outdoor_degrees_f" => outdoor,
            "coil_degrees_f" => 60.0
          }
          moves = [{ "at_seconds" => 0.0, "what" => "mode", "value" => "heat" }]
          run = StagingRun.new(rig, Script.parse({ "start" => start, "moves" => moves }, HELD_SECONDS))
          rows =
            run.stages.map do |one|
              { "title" => one.title, "from" => one.on_at, "to" => one.off_at, "says" => one.waited || one.because }
            end
          says = Catalogue.words("report.staged", error: format("%g", HELD_ERROR), outdoor: format("%g", outdoor))
          [Blocks.text(says), Blocks.stages(rows, HELD_SECONDS)]
        end

        def unusual?(about, value) = about.key?("usual") ? about["usual"] != value : value <= about.fetch("usual_over")

        def setting(key, words, value)
          says = Catalogue.words("put_back.#{words}", title: Catalogue.facts.fetch(key)["title"], value: value)
          PutBack.new(id: "setting.#{key}", says: says)
        end

        def problem(key, says) = { "field" => "/#{key}", "problem" => says }

        def bench?(value)
          value.is_a?(Hash) && value.size <= MOST_LINES &&
            value.all? { |line, seen| line.to_s.size <= MOST_LETTERS && (lit?(seen) || not_run?(seen)) }
        end

        def lit?(seen) = seen.is_a?(Array) && seen.size <= 12 && seen.all? { |one| one.is_a?(String) && one.size <= 8 }

        def not_run?(seen) =
          seen.is_a?(Hash) && seen.keys == ["not_run"] && seen.values.first.is_a?(String) &&
            seen.values.first.strip.size.between?(1, 200)
      end
    end
  end
end
