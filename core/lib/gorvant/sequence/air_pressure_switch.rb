# frozen_string_literal: true

module Gorvant
  # A switch across the outdoor coil that closes when frost leaves the fan little air. A fan that stands draws none, so
  # it is open then, whatever the coil is like.
  class AirPressureSwitch < TemperatureSwitch
    def initialize
      points = Catalogue.frost.fetch("air_pressure_switch")
      super(
        "APS",
        quantity: "air",
        closes_at: points.fetch("closes_percent"),
        opens_at: points.fetch("opens_percent"),
        rules: {
          closed: "air_blocked",
          open: "air_free"
        }
      )
    end

    def step(_memory, seen)
      return super if seen.works?("OFM")

      answer({ closed: false }, { id => false }, reasons: { id => because("air_stands", from: "OFM") })
    end
  end
end
