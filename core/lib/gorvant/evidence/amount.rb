# frozen_string_literal: true

module Gorvant
  # A value as a person has it: exact (low == high), a range ("25 to 30"), about, or open (an ohmmeter's OL).
  Amount = Value.define(:low, :high, :about, :open, defaults: { about: false, open: false })

  class Amount
    # given: { "value", "value_high", "about", "open" } from JSON; bounds: what can be read at all; may_open: whether
    # the instrument knows OL. Raises BadObservation.
    def self.parse(given, bounds, may_open: false)
      return no_way_through(given, may_open) if given["open"]

      low = number(given, "value", bounds)
      high = given["value_high"].nil? ? low : number(given, "value_high", bounds)
      if high < low
        raise BadObservation.new(field: "/value_high", problem: "is under value; a range goes from less to more")
      end

      new(low: low, high: high, about: given["about"] == true)
    end

    # The least and the most that it may be.
    def bounds
      return Float::INFINITY, Float::INFINITY if open

      slack = about ? Catalogue.evidence.fetch("about_fraction") : 0.0
      [low - (low.abs * slack), high + (high.abs * slack)]
    end

    # In words, without its unit. decimals: as many as the instrument shows; nil for as many as matter.
    def says(decimals = nil)
      return "OL" if open

      range = [low, high].uniq.map { |number| words(number, decimals) }.join(" to ")
      about ? "about #{range}" : range
    end

    class << self
      private

      def no_way_through(given, may_open)
        unless may_open
          raise BadObservation.new(field: "/open", problem: "is for ohms alone; leave it out and give a value")
        end
        unless given["value"].nil? && given["value_high"].nil?
          raise BadObservation.new(field: "/value", problem: "stands beside open; OL has no value")
        end

        new(low: nil, high: nil, open: true)
      end

      def number(given, key, bounds)
        value = given[key]
        return value.to_f if value.is_a?(Numeric) && value.to_f.finite? && value.between?(*bounds)

        range = bounds.map { |bound| format("%g", bound) }.join(" to ")
        raise BadObservation.new(field: "/#{key}", problem: "has to be a number from #{range}")
      end
    end

    private

    # 24.3, 26600, 0.05: as a meter shows it.
    def words(number, decimals)
      return format("%.*f", decimals, number) if decimals

      number == number.round ? number.round.to_s : format("%.4g", number)
    end
  end
end
