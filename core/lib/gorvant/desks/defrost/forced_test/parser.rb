# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # Reads a record field by field.
    class Parser
      CLOCKS_APART = (0..60) # seconds; further apart nobody marks one test

      def initialize(given) = @given = given

      def record
        @problems = []
        wrong("", "has to be an object with marks, answers, readings and tally") && refuse unless @given.is_a?(Hash)
        stray = @given.keys - Record.members.map(&:to_s)
        stray.each { |key| wrong("/#{key.to_s[0, 40]}", "unknown; known are #{Record.members.join(", ")}") }
        made = {
          marks: numbers("marks", MARKS, 0..86_400),
          answers: flags("answers", ANSWERS),
          marked_by: choices("marked_by", MARKS, MARKED_BY),
          readings: numbers("readings", READINGS, -60..900),
          tally: tally,
          counted_minutes: number("counted_minutes", 0..600),
          coil_degrees_f: number("coil_degrees_f", -60..200),
          fresh: @given["fresh"] == true,
          closed: @given["closed"] == true,
          watch_started_at: number("watch_started_at", 0..100_000_000_000),
          watch_within_seconds: number("watch_within_seconds", CLOCKS_APART) || 0.0,
          clock_apart_seconds: number("clock_apart_seconds", CLOCKS_APART) || 0.0
        }
        refuse if @problems.any?
        Record.new(**made)
      end

      private

      def refuse = raise(BadHistory.new(@problems))
      def wrong(field, problem) = @problems << { "field" => "/test#{field}", "problem" => problem }

      def object(name)
        value = @given.fetch(name, {}) || {}
        return value if value.is_a?(Hash)

        wrong("/#{name}", "has to be an object")
        {}
      end

      def numbers(name, known, range)
        object(name).select do |key, value|
          unless known.include?(key)
            next wrong("/#{name}/#{key.to_s[0, 40]}", "unknown; known are #{known.join(", ")}") && false
          end

          (value.is_a?(Numeric) && range.cover?(value)) ||
            (
              wrong(
                "/#{name}/#{key}",
                "has to be a number from #{range.first} to #{range.last}, not #{value.inspect[0, 20]}"
              ) && false
            )
        end
      end

      def number(name, range)
        value = @given[name]
        unless value.nil? || (value.is_a?(Numeric) && range.cover?(value))
          wrong("/#{name}", "has to be a number from #{range.first} to #{range.last}, not #{value.inspect[0, 20]}")
        end
        value
      end

      def flags(name, known)
        object(name).each do |key, value|
          wrong("/#{name}/#{key.to_s[0, 40]}", "unknown; known are #{known.join(", ")}") unless known.include?(key)
          wrong("/#{name}/#{key.to_s[0, 40]}", "has to be true or false") unless [true, false].include?(value)
        end
      end

      def choices(name, keys, values)
        object(name).each do |key, value|
          wrong("/#{name}/#{key.to_s[0, 40]}", "unknown; known are #{keys.join(", ")}") unless keys.include?(key)
          wrong("/#{name}/#{key.to_s[0, 40]}", "has to be one of #{values.join(", ")}") unless values.include?(value)
        end
      end

      def tally
        object("tally").each do |key, value|
          unless Tally::AT_REST.key?(key)
            wrong("/tally/#{key.to_s[0, 40]}", "unknown; known are #{Tally::AT_REST.keys.join(", ")}")
          end
          wrong("/tally/#{key.to_s[0, 40]}", "has to be on or off") unless %w[on off].include?(value)
        end
      end
    end
  end
end
