# frozen_string_literal: true

module Gorvant
  # What is not electrical: the outdoor coil with its frost by the frost model, the pressure difference and the room by
  # simple courses. A temperature that the script types keeps to the script from then on; frost goes on growing and
  # melting under a coil that is typed.
  class Plant
    # { "outdoor", "room", "coil": °F; "pressure": psi; "frost": kg on the coil; "air": percent of the clean coil's }
    attr_reader :quantities

    # start: of a Script.
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
      @weather = weather(start)
      @frost = FrostCoil.new(degrees_f: @quantities["coil"].at(0.0), frost_kg: start["frost_kg"] || grown(start))
      lead(0.0, under(0, false, false))
    end

    # A temperature set by hand, at once or over some time.
    def set(name, value, over_seconds, now)
      @typed |= [name]
      was = line(name, now)
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

    # Turns the courses to how things stand. stages: of the compressor that pump; fan: the outdoor one; hot: whether hot
    # gas goes to the outdoor coil, by the valve or by a solenoid of its own; warmth: what heats or cools the room, see
    # Run.
    def follow(now, stages:, fan:, hot:, warmth: {})
      pressure(now, stages.positive?)
      under = under(stages, hot, fan)
      lead(now, under) unless @path.leads?(now, under)
      room(now, warmth) unless @typed.include?("room")
    end

    # When a course has to be looked at again though nothing else happens.
    def bends_at(now) = [@path.ends_at, (now + @house.fetch("tick_seconds") unless @typed.include?("room"))].compact.min

    private

    def weather(start)
      shipped = Catalogue.frost.fetch("air")
      air = {
        humidity_percent: start["humidity_percent"] || shipped.fetch("humidity_percent"),
        wind_mph: start["wind_mph"] || shipped.fetch("wind_mph"),
        rain: start["rain"] || false
      }
      ->(degrees_f) { FrostCoil::Weather.new(degrees_f: degrees_f, **air) }
    end

    # What has grown while the clock counted: a run of heating as long as that, from a clean coil, in the same weather.
    def grown(start)
      seconds = start["defrost_counted_minutes"] * 60.0
      return 0.0 unless seconds.positive?

      air = @weather.call(start["outdoor_degrees_f"])
      coil = FrostCoil.new(degrees_f: air.degrees_f)
      step = Catalogue.frost.dig("planner", "step_seconds")
      (seconds / step).round.times { coil.step(step, air, stages: 1, cooling: false, fan: true) }
      coil.frost_kg
    end

    def under(stages, hot, fan) =
      FrostPath::Under.new(
        stages: stages,
        cooling: hot,
        fan: fan,
        air: @quantities.fetch("outdoor"),
        held: @typed.include?("coil") ? line("coil", 0.0) : nil
      )

    # A typed temperature is one line; a course that was left takes its value along.
    def line(name, now)
      quantity = @quantities.fetch(name)
      quantity.is_a?(Quantity) ? quantity : Quantity.still(quantity.at(now), now)
    end

    # Follows the frost model from here on. No course jumps: a step that is cut short may end a little beside the line.
    def lead(now, under)
      coil = @path ? @path.coil_at(now) : @frost
      begins = FrostPath::COURSES.to_h { |name| [name, @quantities[name]&.at(now)] }.compact
      coil.hold(begins.fetch("coil")) if under.held || @held
      @held = under.held
      @path = FrostPath.new(coil, now, under, @weather, begins)
      @quantities.merge!(under.held ? @path.courses.except("coil") : @path.courses)
    end

    def pressure(now, pumping)
      full = @numbers.fetch("pressure_full_psi")
      target, seconds =
        pumping ? [full, @numbers.fetch("pressure_build_seconds")] : [0.0, @numbers.fetch("pressure_decay_seconds")]
      turn("pressure", now, target, full / seconds)
    end

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

    def turn(name, now, target, rate)
      @quantities[name] = @quantities.fetch(name).towards(target.to_f, rate.to_f, now)
    end
  end
end
