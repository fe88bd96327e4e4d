# frozen_string_literal: true

module Gorvant
  # What stands on the display of a meter whose probes have been on two points for so long: it settles, it trembles,
  # it shows as many digits as its range has. For stand-ins of a meter that is not there.
  # value: as displayed, nil where nothing ties the two points together; stable: whether it has settled.
  MeterDisplay = Value.define(:value, :stable)

  class MeterDisplay
    class << self
      # expected: Expected; placed_seconds: since a probe was last moved; random: Random.
      def of(expected, placed_seconds, random)
        return new(value: nil, stable: false) if expected.volts_ac.nil?

        settled = placed_seconds >= numbers["settle_seconds"]
        share = settled ? 1.0 : 1.0 - Math.exp(-numbers["settle_rate"] * [placed_seconds, 0.0].max)
        volts = expected.volts_ac * share * (1 + (numbers["noise_fraction"] * ((random.rand * 2) - 1)))
        volts = random.rand(expected.low_volts_ac..expected.high_volts_ac) if expected.klass == "unsteady"
        new(value: volts.abs.round(decimals(volts.abs)), stable: settled && expected.klass != "unsteady")
      end

      # Digits after the point in the range that a value falls into.
      def decimals(volts)
        numbers.fetch("ranges").find { |range| volts < range["below_volts"] }&.fetch("decimals") || 0
      end

      private

      def numbers = Catalogue.profile.fetch("meter_display")
    end
  end
end
