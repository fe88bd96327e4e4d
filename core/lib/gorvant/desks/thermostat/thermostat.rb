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
          return Standing::UNTOUCHED if record.as_found.settings.empty?

          SettingsCheck.new(record.rig, record.as_found, set_point_degrees_f: record.set_point_degrees_f).standing
        end

        # Settings as they were read at the wall.
        def evidence(record)
          record.as_found.settings.map { |key, value| ["looked_up|#{key}|person", value, Comparison.words(key, value)] }
        end

        def labels?(value)
          value.is_a?(Hash) &&
            value.all? do |key, label|
              Rig.settings.include?(key.to_s) && label.is_a?(String) && label.size <= MOST_LETTERS &&
                !label.match?(/[[:cntrl:]]/)
            end
        end

        private

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
