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
      @typed << "room" unless start["house"]
      @house = Catalogue.profile.fetch("house")
      @quantities = {
        "outdoor" => Quantity.still(start["outdoor_degrees_f"]),
        "room" => Quantity.still(start["room_degrees_f"]),
        "pressure" => Quantity.still(0.0),
        "coil" => Quantity.still(start["coil_degrees_f"] || start["outdoor_degrees_f"])
      }
    end

    # A temperature set by hand, at once or over some time.
    def set(name, value, over_seconds, now)
      @typed |= [name]
      was = @quantities.fetch(name)
      @quantities[name] = (
        if over_seconds.zero?
          Quantity.still(value, now)
        else
          was.towards(value.to_f, (value - was.at(now)).abs / over_seconds, now)
        end
      )
    end

    # A temperature that is left to itself again.
    def release(name) = @typed -= [name]

    # Turns the courses to how things stand. running: the compressor pumps; defrosting: its own, with the fan off and
    # the valve turned or not; warmth: what heats or cools the room, see Run.
    def follow(now, pumping:, fan:, valve:, defrosting:, warmth: {})
      turn(
        "pressure",
        now,
        *(
          if pumping
            [full, full / @numbers.fetch("pressure_build_seconds")]
          else
            [0.0, full / @numbers.fetch("pressure_decay_seconds")]
          end
        )
      )
      turn("coil", now, *coil(now, pumping, fan, valve, defrosting)) unless @typed.include?("coil")
      room(now, warmth) unless @typed.include?("room")
    end

    # When a course that follows how things stand bends by itself: the coil, down to the air and on more slowly.
    def bends_at(now)
      coil = @quantities.fetch("coil")
      cooled = coil.reaches(coil.target, now) unless @typed.include?("coil") || !@cooling_down
      [cooled, (now + @house.fetch("tick_seconds") unless @typed.include?("room"))].compact.min
    end

    private

    # A room that gains by what runs and loses by its difference to the outdoors, straight from tick to tick.
    # warmth: { stages:, valve:, backup: }.
    def room(now, warmth)
      room = @quantities.fetch("room").at(now)
      pumped =
        %w[stage_1 stage_2].first(warmth.fetch(:stages, 0)).sum { |stage| @house.fetch("#{stage}_degrees_f_per_hour") }
      gain =
        (warmth[:valve] == "cooling" ? -pumped : pumped) +
          (warmth[:backup] ? @house.fetch("backup_degrees_f_per_hour") : 0.0)
      rate = (gain - ((room - @quantities.fetch("outdoor").at(now)) / @house.fetch("loss_hours"))) / 3600
      turn("room", now, rate.positive? ? 200.0 : -60.0, rate.abs)
    end

    def full = @numbers.fetch("pressure_full_psi")
    def per_minute(name) = @numbers.fetch(name) / 60.0

    def turn(name, now, target, rate)
      @quantities[name] = @quantities.fetch(name).towards(target.to_f, rate.to_f, now)
    end

    def coil(now, pumping, fan, valve, defrosting)
      @cooling_down = false
      air = @quantities.fetch("outdoor").target
      return air, per_minute("coil_drifts_degrees_f_per_minute") unless pumping
      if valve == "cooling" && !fan
        return @numbers.fetch("defrost_top_degrees_f"), per_minute("coil_rises_degrees_f_per_minute")
      end
      if valve == "cooling"
        return [
          air + @numbers.fetch("coil_above_outdoor_degrees_f"),
          per_minute("coil_rises_slowly_degrees_f_per_minute")
        ]
      end
      return @quantities.fetch("coil").at(now), 0.0 if defrosting

      @cooling_down = @quantities.fetch("coil").at(now) > air + 0.01
      return air, per_minute("coil_falls_from_warm_degrees_f_per_minute") if @cooling_down

      [air - @numbers.fetch("coil_below_outdoor_degrees_f"), per_minute("coil_falls_degrees_f_per_minute")]
    end
  end
end
