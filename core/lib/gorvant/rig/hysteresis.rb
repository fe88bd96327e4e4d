# frozen_string_literal: true

module Gorvant
  # A switch that closes on fall and opens on rise: coil switch, outdoor thermostat. Between its two points it keeps the
  # state that it had, so a lone temperature tells nothing there. inclusive: whether the points themselves count as
  # reached.
  # Source: docs/sources.md, sensor-practice.
  Hysteresis = Value.define(:closes_degrees_f, :opens_degrees_f, :inclusive, defaults: { inclusive: true })

  class Hysteresis
    class << self
      # The coil switch of a rig.
      def coil_switch(rig) =
        new(
          closes_degrees_f: rig[:coil_switch_closes_degrees_f],
          opens_degrees_f: rig[:coil_switch_opens_degrees_f],
          inclusive: rig[:thresholds_inclusive]
        )

      # The outdoor thermostat of a rig: its marking says where it closes, its differential is the profile's.
      def outdoor_thermostat(rig)
        closes = rig[:outdoor_thermostat_closes_degrees_f]
        new(
          closes_degrees_f: closes,
          opens_degrees_f: closes + Catalogue.profile.dig("plant", "outdoor_thermostat_differential_degrees_f")
        )
      end
    end

    # By a lone temperature: "closed", "open" or "undetermined".
    def at(degrees_f)
      return "closed" if closes?(degrees_f)

      opens?(degrees_f) ? "open" : "undetermined"
    end

    def closes?(degrees_f) = inclusive ? degrees_f <= closes_degrees_f : degrees_f < closes_degrees_f
    def opens?(degrees_f) = inclusive ? degrees_f >= opens_degrees_f : degrees_f > opens_degrees_f
  end
end
