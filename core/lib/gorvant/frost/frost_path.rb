# frozen_string_literal: true

module Gorvant
  # How a coil goes on while nothing about it is changed by others: the frost model's steps with straight lines between,
  # close together where it moves and far apart where it hardly does. So that whoever waits for a temperature can be
  # told when it comes, without anything being asked on the way.
  class FrostPath
    # What moves it. stages: 0, 1 or 2 of the compressor; cooling: the valve sends hot gas outdoors; air: Quantity of
    # the outdoor temperature, °F; held: Quantity of a coil temperature that somebody typed, nil for none.
    Under = Value.define(:stages, :cooling, :fan, :air, :held, defaults: { held: nil })
    COURSES = %w[coil frost air].freeze

    # start: FrostCoil as it stands then; it is not changed. weather: ->(degrees_f) FrostCoil::Weather. begins: { name
    # => value } of COURSES where each course begins, so that none jumps.
    def initialize(start, seconds, under, weather, begins)
      @numbers = Catalogue.frost.fetch("path")
      @under = under
      @weather = weather
      @steady = weather.call(under.air.target) if under.air.rate.zero?
      @knots = [[seconds, start.dup]]
      @points = COURSES.to_h { |name| [name, [[seconds, begins.fetch(name) { FrostPath.value(start, name) }]]] }
      walk
    end

    # °F, kg, and percent of the clean coil's air.
    def self.value(coil, name)
      case name
      when "coil"
        coil.degrees_f
      when "frost"
        coil.frost_kg
      else
        coil.air_share * 100
      end
    end

    def ends_at = @knots.last[0]
    # { name => Course }
    def courses = @courses ||= @points.transform_values { |points| Course.new(points) }

    # The coil as it stands at a time on the way; one's own.
    def coil_at(seconds)
      at, coil = @knots.reverse_each.find { |knot, _coil| knot <= seconds } || @knots.first
      coil = coil.dup
      seconds > at ? step(coil, at, seconds - at) : coil
    end

    # Whether it still leads from here on under these circumstances.
    def leads?(seconds, under) = seconds < ends_at && under == @under

    private

    def walk
      at, coil = @knots.first
      last = at + @numbers.fetch("horizon_seconds")
      span = @numbers.fetch("step_seconds")
      pace = nil
      while at < last
        Patience.check!
        before = coil
        coil = step(coil.dup, at, span)
        at += span
        @knots << [at, coil]
        COURSES.each { |name| @points[name] << [at, FrostPath.value(coil, name)] }
        was, pace = pace, (coil.degrees_f - before.degrees_f) / span
        span = following(span, was, pace)
      end
    end

    # Twice as long where the course hardly bent, short again where it bends much. Paces: °F a second.
    def following(span, was, pace)
      bent = was ? (pace - was).abs * span : Float::INFINITY
      calm = @numbers.fetch("calm_degrees_f")
      return [span * 2, @numbers.fetch("longest_step_seconds")].min if bent < calm

      bent > calm * 4 ? @numbers.fetch("step_seconds") : span
    end

    def step(coil, at, seconds)
      coil.hold(@under.held.at(at)) if @under.held
      coil.step(
        seconds,
        @steady || @weather.call(@under.air.at(at + (seconds / 2))),
        stages: @under.stages,
        cooling: @under.cooling,
        fan: @under.fan
      )
      coil.hold(@under.held.at(at + seconds)) if @under.held
      coil
    end
  end
end
