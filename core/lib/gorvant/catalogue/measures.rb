# frozen_string_literal: true

module Gorvant
  # Temperatures, pressures and lengths in the unit that a person asked for. The core stays in °F, psi and feet; what
  # it says is turned here, and nowhere else. A difference of temperatures is written with a word joiner before its
  # unit (DELTA), since it turns without the offset.
  module Measures
    MARK = "\u2060"
    DELTA = "#{MARK}°F".freeze
    NUMBER = /[-+−]?\d+(?:\.\d+)?/
    # One or several numbers before a unit: "30 °F", "28 to 32 °F", "30/60 °F".
    SEVERAL = %r{(#{NUMBER}(?:(?: to | and | or |, |/|–)#{NUMBER})*) ?(#{MARK}?)}

    class << self
      # Quantities with another unit: { quantity => { "stays", "other", "chosen_by", "per_other", "zero", … } }.
      def scales = Catalogue.measures

      # Of a list such as "C kPa", those quantities that are asked for otherwise than the core has them, as the names
      # they are chosen by; what is no unit is nothing.
      def chosen(list)
        asked = list.to_s.split(/[\s,]+/)
        scales.values.map { |scale| scale["chosen_by"] }.select { |name| asked.include?(name) }
      end

      # A number of the core (°F, psi, feet) in the unit that is chosen by this name. difference: of two such.
      def to(name, value, difference: false)
        scale = scale(name)
        (difference ? value : value - scale["zero"]) / scale["per_other"].to_f
      end

      # A number in the unit of this name as the core has it.
      def from(name, value)
        scale = scale(name)
        (value * scale["per_other"].to_f) + scale["zero"]
      end

      # A sentence of the core with its numbers in the units that are chosen.
      def sentence(text, chosen)
        turned = chosen.inject(text) { |said, name| turn(said, scale(name)) }
        turned.include?(MARK) ? turned.delete(MARK) : turned
      end

      # The same for all words in an answer: Hashes, Arrays, Strings. Keys and numbers stay, and what the block says of
      # (a key, the Hash that it is of): a person's own words are nobody's to turn.
      def all(value, chosen, &own)
        case value
        when Hash
          value.to_h { |key, inner| [key, own&.call(key, value) ? inner : all(inner, chosen, &own)] }
        when Array
          value.map { |inner| all(inner, chosen, &own) }
        when String
          sentence(value, chosen)
        else
          value
        end
      end

      private

      def scale(name) = scales.each_value.find { |scale| scale["chosen_by"] == name }

      # A unit alone names what the numbers beside it are in, and those stay.
      def turn(text, scale)
        stays = scale["stays"]
        return text if text == stays || !text.include?(stays)

        unit = /#{stays}(?![[:alnum:]_])/
        turned =
          text.gsub(/#{SEVERAL}#{unit}/) do
            numbers, delta = Regexp.last_match.captures
            "#{numbers.gsub(NUMBER) { |number| one(number, scale, !delta.empty?) }} #{scale["other"]}"
          end
        turned.gsub(/(?<![[:alnum:]_])#{unit}/, scale["other"])
      end

      def one(number, scale, difference)
        value = to(scale["chosen_by"], number.tr("−", "-").to_f, difference: difference).round(scale["said_decimals"])
        "#{"+" if number.start_with?("+") && value.positive?}#{format("%g", value)}"
      end
    end
  end
end
