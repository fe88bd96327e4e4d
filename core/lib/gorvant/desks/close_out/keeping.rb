# frozen_string_literal: true

require "time"

module Gorvant
  module Desks
    module CloseOut
      # What the desk may hold, looked at field by field.
      module Keeping
        TEXTS = {
          "finding" => 2_000,
          "plain" => 1_500,
          "done" => 2_000,
          "parts" => 1_000,
          "follow_up" => 1_000,
          "not_repeated" => 400,
          "left_off" => 400,
          "repaired_at" => 40
        }.freeze
        CHOICES = {
          "cause" => %w[find written],
          "answered" => %w[yes partly no],
          "natural_defrost" => %w[seen not_seen]
        }.freeze
        MOST_LINES = 160
        MOST_LETTERS = 400
        MOST_PHOTOS = 24
        TIME = /\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d{1,6})?Z\z/
        NO_TIME = "has to be a time such as 2026-11-29T09:30:00Z"
        CALL =
          "has \"how\" (run, low_voltage or not_run), \"as\" (expected or otherwise) unless it was not run, and a " \
            "\"note\" of up to 400 characters"

        module_function

        # given: texts (TEXTS), choices (CHOICES), "calls" => { call => { "how", "as", "note" } }, "put_back" =>
        # { id of a line => "back" or { "left" => why } }, "photos" => [ids], "leave_out" => [sections of the report].
        def keep(given, rig)
          problems = texts(given) + choices(given) + calls(given, rig) + put_back_kept(given) + lists(given)
          known = TEXTS.keys + CHOICES.keys + %w[calls put_back photos leave_out]
          stray = given.keys - known
          problems << problem(stray.first[0, 40], "unknown; known are #{known.join(", ")}") if stray.any?
          raise BadRecord.new(problems) if problems.any?

          given.reject { |_key, value| value.respond_to?(:empty?) && value.empty? }
        end

        def calls(given, rig)
          all = given.fetch("calls", {})
          return [problem("calls", "has to be an object of calls")] unless all.is_a?(Hash)

          known = Outputs.calls(rig)
          all.flat_map do |id, said|
            unless known.include?(id)
              next [problem("calls/#{id.to_s[0, 40]}", "unknown call; known are #{known.join(", ")}")]
            end

            said?(said) ? [] : [problem("calls/#{id}", CALL)]
          end
        end

        def problem(field, says) = { "field" => "/#{field}", "problem" => says }
        def texts(given)
          TEXTS.filter_map do |key, most|
            value = given[key]
            if value.nil? ||
                 (
                   value.is_a?(String) && value.size <= most &&
                     !value.match?(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/)
                 )
              next
            end

            problem(key, "has to be plain text of up to #{most} characters")
          end + moment(given["repaired_at"])
        end

        def moment(value)
          return [] if !value.is_a?(String) || value.empty? || (value.match?(TIME) && Time.iso8601(value))

          [problem("repaired_at", NO_TIME)]
        rescue ArgumentError
          [problem("repaired_at", NO_TIME)]
        end

        def choices(given)
          CHOICES.filter_map do |key, known|
            value = given[key]
            problem(key, "has to be one of #{known.join(", ")}") unless value.nil? || known.include?(value)
          end
        end

        def said?(said)
          said.is_a?(Hash) && (said.keys - %w[how as note]).empty? && CallList::HOW.include?(said["how"]) &&
            (said["how"] == "not_run" ? said["as"].nil? : CallList::AS.include?(said["as"])) &&
            why?(said.fetch("note", ""))
        end

        def why?(value) = value.is_a?(String) && value.size <= MOST_LETTERS && !value.match?(/[[:cntrl:]]/)

        def put_back_kept(given)
          all = given.fetch("put_back", {})
          fits =
            all.is_a?(Hash) && all.size <= MOST_LINES &&
              all.all? do |id, said|
                id.to_s.size <= 120 &&
                  (said == "back" || (said.is_a?(Hash) && said.keys == ["left"] && why?(said["left"])))
              end
          if fits
            []
          else
            [problem("put_back", "has lines with \"back\", or { \"left\": why } of up to #{MOST_LETTERS} characters")]
          end
        end

        def lists(given)
          { "photos" => MOST_PHOTOS, "leave_out" => MOST_PHOTOS }.filter_map do |key, most|
            value = given.fetch(key, [])
            fits = value.is_a?(Array) && value.size <= most && value.all? { |one| one.is_a?(String) && one.size <= 40 }
            problem(key, "has to be a list of at most #{most} names") unless fits
          end
        end
      end
    end
  end
end
