# frozen_string_literal: true

module Gorvant
  # Temperatures in the unit that a person asked for. The core stays in °F; what it says is turned here, and nowhere
  # else. A difference of temperatures is written with a word joiner before its unit (DELTA), since it turns without the
  # offset.
  module Degrees
    UNITS = %w[F C].freeze
    MARK = "\u2060"
    UNIT = "°F" # alone it names what the numbers beside it are in, and those stay
    DELTA = "#{MARK}°F".freeze
    NUMBER = /[-+−]?\d+(?:\.\d+)?/
    # One or several numbers before a unit: "30 °F", "28 to 32 °F", "30/60 °F".
    SAID = %r{(#{NUMBER}(?:(?: to | and | or |, |/)#{NUMBER})*) ?(\u2060?)°F}

    class << self
      # °F as a number in another unit.
      def to(unit, degrees_f) = unit == "C" ? (degrees_f - 32) / 1.8 : degrees_f

      # A sentence of the core in the unit: numbers before °F turned, to a tenth at most.
      def sentence(text, unit)
        return text.delete(MARK) if unit == "F" || !text.include?("°F") || text == UNIT

        turned =
          text.gsub(SAID) do
            numbers, delta = Regexp.last_match.captures
            "#{numbers.gsub(NUMBER) { |number| one(number, !delta.empty?) }} °C"
          end
        turned.gsub("°F", "°C")
      end

      # The same for all words in an answer: Hashes, Arrays, Strings. Keys and numbers stay, and what lies under a key
      # of `own`: a person's own words are nobody's to turn.
      def all(value, unit, own: [])
        case value
        when Hash
          value.to_h { |key, inner| [key, own.include?(key) ? inner : all(inner, unit, own: own)] }
        when Array
          value.map { |inner| all(inner, unit, own: own) }
        when String
          sentence(value, unit)
        else
          value
        end
      end

      private

      def one(number, delta)
        value = number.tr("−", "-").to_f
        turned = delta ? value / 1.8 : to("C", value)
        sign = number.start_with?("+") && turned.positive? ? "+" : ""
        "#{sign}#{format("%g", turned.round(1))}"
      end
    end
  end
end
