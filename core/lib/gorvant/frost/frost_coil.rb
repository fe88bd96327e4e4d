# frozen_string_literal: true

module Gorvant
  # The outdoor coil as one lump of metal with frost and water on it. Moisture comes down by the difference of humidity
  # ratio between the air and the surface; frost blocks the air, so that the surface gets colder and takes less; a
  # defrost warms the metal, melts, loses to wind and rain; water runs off or freezes again.
  # It is a model: no circuits side by side, no uneven frost, none that goes back into dry air.
  # Source: docs/sources.md, frost-coil.
  class FrostCoil
    # Of a coil and its unit: the numbers of frost.yml, "coil" and "defrost", by their names.
    # scale: { name => factor } for a unit that differs from the shipped one.
    def self.numbers(scale = {})
      shipped = Catalogue.frost.slice("coil", "defrost", "water").values.inject(:merge)
      unknown = scale.keys - shipped.keys
      raise ArgumentError.new("no parameter #{unknown.join(", ")}") if unknown.any?

      shipped.to_h { |name, value| [name, value * scale.fetch(name, 1.0)] }
    end

    # What a step is made under. stages: 0, 1 or 2 of the compressor; cooling: the valve sends hot gas outdoors.
    Weather = Value.define(:degrees_f, :humidity_percent, :wind_mph, :rain, defaults: { wind_mph: 3.0, rain: false })

    CP_AIR_KJ = 1.006
    MELTING_KJ = 333.6
    FROSTING_KJ = 2834.0
    DEW_KJ = 2501.0

    # celsius: of the surface. in_kg, drained_kg: since it was made; frost_kg, water_kg: on it. heat_kw: taken from the
    # air. air_share: airflow as a share of the clean coil's.
    attr_reader :celsius, :frost_kg, :water_kg, :in_kg, :drained_kg, :heat_kw, :melted_kg

    def initialize(degrees_f:, frost_kg: 0.0, numbers: FrostCoil.numbers)
      @celsius = (degrees_f - 32.0) / 1.8
      @frost_kg = frost_kg
      @water_kg = @in_kg = @drained_kg = @heat_kw = @melted_kg = 0.0
      take(numbers)
    end

    def degrees_f = (@celsius * 1.8) + 32.0
    def air_share = [(1.0 - (@frost_kg / @full_kg)).clamp(0.0, 1.0)**@power, @least_share].max

    # Goes on by seconds. Exact for the metal as long as all else stands still, so that no step is too long to be
    # stable; 10 s follow a defrost well.
    def step(seconds, weather, stages:, cooling:, fan:)
      air = (weather.degrees_f - 32.0) / 1.8
      @heat_kw = 0.0
      flow = fan ? @air_kg * air_share : 0.0
      to_air = to_air(flow, weather)
      gains = moisture(seconds, air, weather, flow)
      constant, slope = refrigerant(stages, cooling, air)
      melt = @frost_kg.positive? ? @melt_kw_per_k * [@frost_kg / @covered_kg, 1.0].min : 0.0
      melt = 0.0 unless melts?(air, stages, cooling)
      warm(seconds, (to_air * air) + constant + gains, to_air + slope + melt)
      melt(seconds, melt) if melt.positive?
      freeze_or_drain(seconds)
      @heat_kw = (to_air * (air - @celsius)) + gains if stages.positive? && !cooling
      self
    end

    # Sets the surface to a temperature that was measured or typed; frost and water on it stay.
    def hold(degrees_f)
      @celsius = (degrees_f - 32.0) / 1.8
      self
    end

    # kg of frost an hour that would come down now on a surface as cold as this.
    def frost_kg_per_hour(weather)
      flow = @air_kg * air_share
      air = (weather.degrees_f - 32.0) / 1.8
      @celsius < 0 ? deposit(air, weather, flow) * 3600 : 0.0
    end

    private

    def take(numbers)
      @air_kg, @surface_kw, @metal_kj, @full_kg, @power, @least_share, @evaporator_kw, @evaporator_slope, @second =
        numbers.values_at(
          *%w[
            air_kg_per_second
            surface_kw_per_k
            metal_kj_per_k
            frost_blocks_at_kg
            blocks_by_power
            least_air_share
            evaporator_kw
            evaporator_kw_per_k
            second_stage_share
          ]
        )
      @hot_kw, @hot_slope, @melt_kw_per_k, @covered_kg, @still, @wind, @rain, @steam =
        numbers.values_at(
          *%w[
            heat_kw
            heat_kw_per_k
            melt_kw_per_k
            covered_by_kg
            still_kw_per_k
            wind_kw_per_k_per_mph
            rain_kw_per_k
            steam_share
          ]
        )
      @stays_kg, @drains_seconds, @rain_kg = numbers.values_at("stays_kg", "drains_seconds", "rain_kg_per_hour")
    end

    # kW for each K between surface and air.
    def to_air(flow, weather)
      still = @still + (@wind * weather.wind_mph) + (weather.rain ? @rain : 0.0)
      return still if flow.zero?

      [flow * CP_AIR_KJ * reached(flow), still].max
    end

    # How far the air comes to the surface's state on its way through.
    def reached(flow) = 1.0 - Math.exp(-@surface_kw / (flow * CP_AIR_KJ))

    # kg/s that come down.
    def deposit(air, weather, flow)
      return 0.0 if flow.zero?

      air_ratio = Psychrometrics.humidity_ratio(air, weather.humidity_percent)
      more = air_ratio - Psychrometrics.saturated_ratio(@celsius)
      more.positive? ? flow * reached(flow) * more : 0.0
    end

    # Takes up frost, dew and rain; kW that it brings.
    def moisture(seconds, air, weather, flow)
      rate = deposit(air, weather, flow)
      rain = weather.rain ? @rain_kg / 3600 : 0.0
      @in_kg += (rate + rain) * seconds
      if @celsius < 0
        @frost_kg += rate * seconds
        @water_kg += rain * seconds
        rate * FROSTING_KJ
      else
        @water_kg += (rate + rain) * seconds
        rate * DEW_KJ
      end
    end

    # What the refrigerant does to the metal: kW at 0 °C, and kW less for each K that it is warmer.
    def refrigerant(stages, cooling, air)
      return 0.0, 0.0 if stages.zero?

      share = stages > 1 ? @second : 1.0
      return [@hot_kw + (@hot_slope * air), 0.5].max * share, 0.0 if cooling

      # Nothing is drawn from a coil so cold that the compressor takes in no more gas.
      [(-@evaporator_kw * share), @evaporator_slope * share]
    end

    def melts?(air, stages, cooling) = @frost_kg.positive? && (cooling ? stages.positive? : stages.zero? && air > 0)

    # To where gains and losses meet, by the metal's own time.
    def warm(seconds, constant, slope)
      @celsius =
        if slope.positive?
          rest = constant / slope
          rest + ((@celsius - rest) * Math.exp(-slope * seconds / @metal_kj))
        else
          @celsius + (constant * seconds / @metal_kj)
        end
    end

    def melt(seconds, melt)
      return if @celsius <= 0

      melted = [melt * @celsius * seconds / MELTING_KJ, @frost_kg].min
      @frost_kg -= melted
      @melted_kg += melted
      @water_kg += melted * (1.0 - @steam)
      @drained_kg += melted * @steam
    end

    def freeze_or_drain(seconds)
      return if @water_kg.zero?

      over = @water_kg - @stays_kg
      if over.positive?
        ran = over * (1.0 - Math.exp(-seconds / @drains_seconds))
        @water_kg -= ran
        @drained_kg += ran
      end
      return unless @celsius < -0.5

      # What heat the freezing gives off is small beside the rest.
      @frost_kg += @water_kg
      @water_kg = 0.0
    end
  end
end
