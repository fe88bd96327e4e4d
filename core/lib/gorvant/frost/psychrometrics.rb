# frozen_string_literal: true

module Gorvant
  # Moist air. Saturation after Hyland and Wexler (1983), over ice below freezing and over water above; the published
  # tables hold from -100 to 200 °C. Pressures in Pa, humidity ratios in kg of water per kg of dry air.
  # Source: docs/sources.md, saturation-over-ice-and-water.
  module Psychrometrics
    ICE = [-5.6745359e3, 6.3925247, -9.677843e-3, 6.2215701e-7, 2.0747825e-9, -9.484024e-13, 4.1635019].freeze
    WATER = [-5.8002206e3, 1.3914993, -4.8640239e-2, 4.1764768e-5, -1.4452093e-8, 6.5459673].freeze
    ZERO_C_K = 273.15
    WATER_TO_AIR = 0.621945
    PRESSURE_PA = Catalogue.frost.dig("psychrometrics", "pressure_pa")

    class << self
      def saturation_pa(celsius) = celsius < 0 ? over_ice_pa(celsius) : over_water_pa(celsius)

      def over_ice_pa(celsius)
        t = celsius + ZERO_C_K
        c = ICE
        Math.exp((c[0] / t) + c[1] + (t * (c[2] + (t * (c[3] + (t * (c[4] + (t * c[5]))))))) + (c[6] * Math.log(t)))
      end

      def over_water_pa(celsius)
        t = celsius + ZERO_C_K
        c = WATER
        Math.exp((c[0] / t) + c[1] + (t * (c[2] + (t * (c[3] + (t * c[4]))))) + (c[5] * Math.log(t)))
      end

      # Of air saturated at a surface.
      def saturated_ratio(celsius) = ratio(saturation_pa(celsius))

      # Of air. Relative humidity counts over water, as weather services and loggers have it, below freezing too.
      def humidity_ratio(celsius, relative_humidity_percent) =
        ratio(over_water_pa(celsius) * relative_humidity_percent / 100.0)

      # °C at which the air's moisture comes down as frost or dew; by halving, to a hundredth.
      def dew_or_frost_point(celsius, relative_humidity_percent)
        ratio = humidity_ratio(celsius, relative_humidity_percent)
        low, high = -90.0, celsius.to_f
        while high - low > 0.01
          middle = (low + high) / 2
          saturated_ratio(middle) > ratio ? high = middle : low = middle
        end
        low
      end

      private

      def ratio(vapor_pa) = WATER_TO_AIR * vapor_pa / (PRESSURE_PA - vapor_pa)
    end
  end
end
