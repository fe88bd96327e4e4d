# frozen_string_literal: true

module Gorvant
  # What is not electrical: coil temperature and pressure difference, by a simple course until the frost model comes. A
  # temperature that the script types keeps to the script from then on.
  class Plant
    attr_reader :quantities

    def initialize(rig, start)
      @rig = rig
      @numbers = Catalogue.profile.fetch("plant")
      @typed = start["coil_degrees_f"] ? ["coil"] : []
      @quantities = { "outdoor" => Quantity.still(start["outdoor_degrees_f"]), "room" => Quantity.still(start["room_degrees_f"]), "pressure" => Quantity.still(0.0),
                      "coil" => Quantity.still(start["coil_degrees_f"] || start["outdoor_degrees_f"]) }
    end

    # A temperature set by hand, at once or over some time.
    def set(name, value, over_seconds, now)
      @typed |= [name]
      was = @quantities.fetch(name)
      @quantities[name] = over_seconds.zero? ? Quantity.still(value, now) : was.towards(value.to_f, (value - was.at(now)).abs / over_seconds, now)
    end

    # Turns the courses to how things stand. running: the compressor pumps; defrosting: its own, with the fan off and the valve
    # turned or not.
    def follow(now, pumping:, fan:, valve:, defrosting:)
      turn("pressure", now, *(pumping ? [full, full / @numbers.fetch("pressure_build_seconds")] : [0.0, full / @numbers.fetch("pressure_decay_seconds")]))
      turn("coil", now, *coil(now, pumping, fan, valve, defrosting)) unless @typed.include?("coil")
    end

    # When a course that follows how things stand bends by itself: the coil, down to the air and on more slowly.
    def bends_at(now)
      coil = @quantities.fetch("coil")
      @typed.include?("coil") || !@cooling_down ? nil : coil.reaches(coil.target, now)
    end

    private

    def full = @numbers.fetch("pressure_full_psi")
    def per_minute(name) = @numbers.fetch(name) / 60.0

    def turn(name, now, target, rate)
      @quantities[name] = @quantities.fetch(name).towards(target.to_f, rate.to_f, now)
    end

    def coil(now, pumping, fan, valve, defrosting)
      @cooling_down = false
      air = @quantities.fetch("outdoor").target
      return [air, per_minute("coil_drifts_degrees_f_per_minute")] unless pumping
      return [@numbers.fetch("defrost_top_degrees_f"), per_minute("coil_rises_degrees_f_per_minute")] if valve == "cooling" && !fan
      return [air + @numbers.fetch("coil_above_outdoor_degrees_f"), per_minute("coil_rises_slowly_degrees_f_per_minute")] if valve == "cooling"
      return [@quantities.fetch("coil").at(now), 0.0] if defrosting

      @cooling_down = @quantities.fetch("coil").at(now) > air + 0.01
      return [air, per_minute("coil_falls_from_warm_degrees_f_per_minute")] if @cooling_down

      [air - @numbers.fetch("coil_below_outdoor_degrees_f"), per_minute("coil_falls_degrees_f_per_minute")]
    end
  end
end
