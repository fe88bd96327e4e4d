# frozen_string_literal: true

module Gorvant
  module Desks
    module Defrost
      # What a record is and is not, in sentences: gaps, repeated rows, sensors that stick, what counts as on. Never
      # silently mended.
      class RecordTold
        # told: a Hash as Formats::FieldLogReader::Told has it; on_off: { id => OnOff }; story: RecordedStory or nil.
        def initialize(told, on_off, story: nil)
          @told = told
          @on_off = on_off
          @story = story
        end

        # [{ "says", "kind" }]; kind: "doubt" for what may make the rest wrong, "note" for the rest.
        def lines =
          [
            *doubts.map { |says| { "kind" => "doubt", "says" => says } },
            *notes.compact.map { |says| { "kind" => "note", "says" => says } }
          ]

        private

        def words(key, **fields) = Catalogue.words("recorded.#{key}", **fields)
        def title(id) = Catalogue.recorded.dig("columns", id, "title")
        def number(value) = format("%g", value.to_f.round(1))

        def doubts = [repeated_hour, *mapping].compact

        # The logger's clock was put back and the mapping does not say so.
        def repeated_hour
          return nil unless @told["repeated"].to_i > 3 && @told["back_seconds"].to_f > 1800

          words("repeated_hour", count: @told["repeated"], hours: number(@told["back_seconds"] / 3600))
        end

        # Columns that behave like others.
        def mapping
          return [] unless @story

          [climbing_air, warm_coil, (words("no_defrost_signal") unless %w[ob fan coil].intersect?(@story.columns))]
        end

        def climbing_air
          known = @story.defrosts.select { |one| one.outdoor && one.outdoor_most }
          climbs = known.select { |one| one.outdoor_most - one.outdoor >= 12 }
          climbs.size >= 3 && climbs.size > known.size / 2 ? words("outdoor_climbs") : nil
        end

        def warm_coil
          over, under = @story.over_air_seconds, @story.under_air_seconds
          over > 3600 && over > under * 2 ? words("coil_over_air") : nil
        end

        def notes
          [
            gaps,
            repeated,
            *of_columns,
            *@told["changes"].to_a.map do |_at, hours|
              words(hours.positive? ? "clock_on" : "clock_back", hours: number(hours.abs))
            end,
            *@on_off.map { |id, rule| on_off(id, rule) },
            (words("running_by_#{@story.running_by}") if @story&.running_by),
            (modelled_frost if @story)
          ]
        end

        def modelled_frost
          short = @story.humidity == "assumed" ? "humidity_assumed_short" : "humidity_column"
          words("modelled_frost", humidity: words(short))
        end

        def of_columns
          [
            *@told["strange"].to_h.map { |id, count| words("strange", column: title(id), count: count) },
            *@told["empty"].to_h.map { |id, count| words("empty", column: title(id), count: count) },
            *@told["stuck"].to_a.map do |id, from, to|
              words("stuck", column: title(id), hours: number((to - from) / 3600))
            end
          ]
        end

        def gaps
          count = @told["gaps"].to_a.size
          count.zero? ? nil : words("gaps", count: count, hours: number(@told["gap_seconds"] / 3600))
        end

        def repeated
          @told["repeated"].to_i.zero? ? nil : words("repeated", count: @told["repeated"], line: @told["repeated_line"])
        end

        def on_off(id, rule)
          return words(rule.always ? "always_on" : "always_off", column: title(id)) unless rule.over

          unit = Catalogue.recorded.dig("columns", id, "unit")
          words(
            "on_off",
            column: title(id),
            over: number(rule.over),
            unit: unit,
            low: number(rule.low),
            high: number(rule.high)
          )
        end
      end
    end
  end
end
