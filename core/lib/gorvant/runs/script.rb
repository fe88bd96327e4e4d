# frozen_string_literal: true

module Gorvant
  # What happens to a rig from outside over time: the thermostat's switches, temperatures, safeties, supplies, faults,
  # jumpers. start: { "mode", "call", "set_point_degrees_f", "outdoor_degrees_f", "coil_degrees_f", "room_degrees_f",
  # "house", "humidity_percent", "wind_mph", "rain", "frost_kg" }, all optional. house: whether the room follows what
  # runs and the weather; else it keeps to what is typed.
  # moves: [Move] by time.
  Script = Value.define(:start, :moves, :duration_seconds)

  class Script
    # what: a key of KINDS. of: what it is about (a switch, a supply, a fault, two points), nil for none.
    Move = Value.define(:at_seconds, :what, :of, :value, :over_seconds)

    KINDS = %w[mode call set_point outdoor coil room switch supply fault jumper bridge].freeze
    TEMPERATURES = %w[outdoor coil room].freeze
    FREE = "free" # value of a coil that the script no longer types
    MODES = %w[off heat cool emergency].freeze
    # What the air outdoors and the coil may be like at the beginning: [least, most, unit].
    AIR = {
      "humidity_percent" => [1, 100, "percent"],
      "wind_mph" => [0, 60, "mph"],
      "frost_kg" => [0, 20, "kg"]
    }.freeze
    SWITCHED = %w[house rain].freeze
    MOST_SECONDS = 48 * 3600
    MOST_MOVES = 500
    START = {
      "mode" => "off",
      "call" => nil,
      "set_point_degrees_f" => 70.0,
      "outdoor_degrees_f" => 35.0,
      "coil_degrees_f" => nil,
      "room_degrees_f" => 68.0,
      "house" => false,
      "humidity_percent" => nil,
      "wind_mph" => nil,
      "rain" => false,
      "frost_kg" => nil,
      "defrost_counted_minutes" => 0.0
    }.freeze

    # From parsed JSON. Raises BadScript with the field's pointer.
    def self.parse(given, duration_seconds) = Parser.new(given, duration_seconds).script

    # Reads a script field by field.
    class Parser
      def initialize(given, duration)
        unless given.is_a?(Hash)
          wrong(
            "/script",
            "has to be an object such as {\"moves\": [{\"at_seconds\": 0, \"what\": \"call\", \"value\": \"heat\"}]}"
          )
        end
        @given = given
        @duration = duration
      end

      def script
        unless @duration.is_a?(Numeric) && @duration.positive? && @duration <= MOST_SECONDS
          wrong(
            "/duration_seconds",
            "has to be more than 0 and at most #{MOST_SECONDS} seconds, not #{@duration.inspect}"
          )
        end
        stray = @given.keys - %w[start moves]
        wrong("/script/#{stray.first}", "unknown; known are start and moves") if stray.any?
        Script.new(start: start, moves: moves, duration_seconds: @duration.to_f)
      end

      private

      def wrong(field, problem) = raise(BadScript.new(field: field, problem: problem))

      def start
        given = @given.fetch("start", {})
        wrong("/script/start", "has to be an object") unless given.is_a?(Hash)
        stray = given.keys - START.keys
        wrong("/script/start/#{stray.first}", "unknown; known are #{START.keys.join(", ")}") if stray.any?
        given.each do |key, value|
          next switched(key, value) if SWITCHED.include?(key)
          next of_air(key, value) if AIR.key?(key)
          next counted(value) if key == "defrost_counted_minutes"

          if key.end_with?("degrees_f")
            (value.nil? && key == "coil_degrees_f") || degrees(value, "/script/start/#{key}")
          else
            choice(key, value, "/script/start/#{key}")
          end
        end
        START.merge(given)
      end

      def switched(key, value) =
        [true, false].include?(value) || wrong("/script/start/#{key}", "has to be true or false, not #{value.inspect}")

      # Nil: nobody said; see frost.yml, "air", and Plant.
      def of_air(key, value)
        least, most, unit = AIR.fetch(key)
        return if value.nil? || (value.is_a?(Numeric) && value.between?(least, most))

        wrong("/script/start/#{key}", "has to be #{least} to #{most} #{unit}, not #{value.inspect}")
      end

      # Under zero: what a lead-in will have counted.
      def counted(value)
        unless value.is_a?(Numeric) && value.between?(-10, 600)
          wrong("/script/start/defrost_counted_minutes", "has to be -10 to 600 minutes, not #{value.inspect}")
        end
      end

      def choice(key, value, field)
        known = key == "mode" ? MODES : Catalogue.calls.keys
        # At the beginning nobody need have called.
        return if known.include?(value) || (value.nil? && START.fetch(key).nil? && field.start_with?("/script/start/"))

        wrong(field, "unknown #{key} '#{value.to_s[0, 40]}'; known are #{known.join(", ")}")
      end

      def degrees(value, field)
        unless value.is_a?(Numeric) && value.between?(-60, 200)
          wrong(field, "has to be a temperature from -60 to 200 °F, not #{value.inspect}")
        end
      end

      def moves
        list = @given.fetch("moves", [])
        wrong("/script/moves", "has to be a list") unless list.is_a?(Array)
        wrong("/script/moves", "has #{list.size} entries; at most #{MOST_MOVES}") if list.size > MOST_MOVES
        list
          .each_with_index
          .inject([]) { |so_far, (move, i)| so_far << move(move, "/script/moves/#{i}", so_far.last&.at_seconds || 0.0) }
      end

      def move(given, field, before)
        unless given.is_a?(Hash)
          wrong(field, "has to be an object such as {\"at_seconds\": 0, \"what\": \"call\", \"value\": \"heat\"}")
        end
        at = at(given["at_seconds"], "#{field}/at_seconds", before)
        what = given["what"]
        unless KINDS.include?(what)
          wrong("#{field}/what", "unknown '#{what.to_s[0, 40]}'; known are #{KINDS.join(", ")}")
        end
        value(what, given, field)
        Move.new(at_seconds: at, what: what, of: given["of"], value: given["value"], over_seconds: over(given, field))
      end

      def at(value, field, before)
        unless value.is_a?(Numeric) && value >= 0
          wrong(field, "has to be a number of seconds, 0 or more, not #{value.inspect}")
        end
        wrong(field, "goes back: #{format("%g", value)} s comes after #{format("%g", before)} s") if value < before
        value.to_f
      end

      def over(given, field)
        over = given.fetch("over_seconds", 0) || 0
        unless over.is_a?(Numeric) && over >= 0
          wrong("#{field}/over_seconds", "has to be 0 or more seconds, not #{over.inspect}")
        end
        over.to_f
      end

      def value(what, given, field)
        value = given["value"]
        case what
        when "mode", "call"
          choice(what, value, "#{field}/value")
        when "set_point", *TEMPERATURES
          (what == "coil" && value == FREE) || degrees(value, "#{field}/value")
        when "switch"
          one_of(value, ["open", "closed", FREE], field)
        when "supply"
          supply(given, field)
        when "fault"
          fault(given, field)
        when "jumper"
          jumper(given, field)
        when "bridge"
          one_of(value, %w[on off], field)
        end
      end

      def one_of(value, known, field) =
        known.include?(value) || wrong("#{field}/value", "has to be #{known.join(" or ")}, not #{value.inspect}")

      def supply(given, field)
        unless Condition::SUPPLIES.include?(given["of"])
          wrong("#{field}/of", "unknown supply; known are #{Condition::SUPPLIES.join(", ")}")
        end
        one_of(given["value"], %w[on off], field)
      end

      def fault(given, field)
        unless given["of"].is_a?(Hash)
          wrong("#{field}/of", "has to be a fault such as {\"kind\": \"open\", \"at\": \"DTS\"}")
        end
        one_of(given["value"], %w[begins ends], field)
      end

      def jumper(given, field)
        unless given["of"].is_a?(Array) && given["of"].size == 2 && given["of"].all?(String)
          wrong("#{field}/of", "has to be two points")
        end
        one_of(given["value"], %w[on off], field)
      end
    end
  end
end
