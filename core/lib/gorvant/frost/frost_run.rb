# frozen_string_literal: true

module Gorvant
  # A unit in its house over hours or days of weather: the board's own clock (DefrostClock), the frost model and a
  # simple thermostat, step by step. It knows no circuit; a part that fails does so by what it does.
  # Source: docs/sources.md, frost-coil, frost-house.
  class FrostRun
    # What can be wrong, in the order in which it is told.
    FAULTS = %w[
      switch_stuck_closed
      switch_stuck_open
      switch_opens_late
      switch_off_pipe
      fan_runs_in_defrost
      fan_stays_off
      strips_dead
      strips_stay_on
      valve_stuck
      valve_slow
      never_starts
      low_charge
      short_cycling
    ].freeze
    LATE_DEGREES_F = 30.0 # by which a switch that opens late does
    SLOW_SECONDS = 100.0 # until a slow valve has turned
    FEW_OF_CHARGE = { "evaporator_kw" => 0.75, "surface_kw_per_k" => 0.55, "heat_kw" => 0.4 }.freeze

    # How things stand at the end of a step. relay: the board's; y, w2, fan, running, cooling (where the valve stands):
    # true or false; sensed: the coil as a logger's own sensor on its pipe has it; temperatures in °F.
    Row =
      Struct.new(
        :seconds,
        :outdoor,
        :humidity,
        :coil,
        :sensed,
        :vapor,
        :supply,
        :room,
        :y,
        :relay,
        :fan,
        :w2,
        :running,
        :cooling,
        :amps,
        :fan_amps
      )
    # What a defrost came to. by: "temperature", "time" or "aborted"; frost_kg, coil_degrees_f: as it began and ended;
    # cool_air_seconds: its supply air was under the room; strips_kwh: of electric heat in it.
    Defrost =
      Struct.new(
        :start_seconds,
        :end_seconds,
        :by,
        :frost_kg,
        :left_kg,
        :starts_degrees_f,
        :ends_degrees_f,
        :strips_kwh,
        :cool_air_seconds,
        :heat_taken_kwh,
        :run_seconds_since
      )

    attr_reader :defrosts, :worst_frost_kg, :heat_kwh, :backup_kwh, :run_seconds, :coil, :now

    # profile: ClockProfile. weather: answers call(seconds) with a FrostCoil::Weather. scale: of FrostCoil.numbers.
    # house: of frost.yml's "house", changed. faults: of FAULTS. counted_seconds: what the clock had counted before.
    def initialize(profile:, weather:, scale: {}, house: {}, faults: [], step_seconds: 10.0, counted_seconds: 0.0)
      unknown = faults - FAULTS
      raise ArgumentError.new("no fault #{unknown.join(", ")}") if unknown.any?

      @profile = profile
      @weather = weather
      @house = Catalogue.frost.fetch("house").merge(house)
      @faults = faults.to_h { |fault| [fault, true] }
      @step = step_seconds.to_f
      lacking = @faults["low_charge"] ? FEW_OF_CHARGE : {}
      @numbers = FrostCoil.numbers(scale.merge(lacking) { |_name, one, other| one * other })
      @clock = DefrostClock.new(profile)
      @memory = @clock.memory(counted_seconds)
      at_rest(weather.call(0.0))
    end

    # Goes on for seconds; gives each Row to the block.
    def go(seconds)
      last = @now + seconds
      while @now < last - 1e-6
        step
        yield row if block_given?
      end
      self
    end

    private

    def at_rest(weather)
      @now = 0.0
      @coil = FrostCoil.new(degrees_f: weather.degrees_f, numbers: @numbers)
      @sensed = @logged = @coil.degrees_f
      @room = @house.fetch("room_degrees_f")
      @vapor = weather.degrees_f
      @closed = @sensed <= @profile.starts_degrees_f
      @y = @relay = @turned = @fan = @w2 = @backup = false
      @off_since = -@house.fetch("least_off_seconds")
      @turning_since = nil
      @wakes_at = 0.0
      @defrosts = []
      @since_defrost = @worst_frost_kg = 0.0
      @heat_kwh = @backup_kwh = @run_seconds = 0.0
      @ever_defrosted = false
    end

    def step
      weather = @weather.call(@now)
      thermostat
      board(weather)
      parts
      @coil.step(@step, weather, stages: @running ? 1 : 0, cooling: @turned, fan: @fan)
      sense(weather)
      reckon(weather)
      @now += @step
    end

    def thermostat
      set, band = @house.values_at("room_degrees_f", "band_degrees_f")
      if @y
        over = @faults["short_cycling"] ? @now - @on_since >= 150.0 : @room >= set + (band / 2)
        @off_since, @y = @now, false if over
      elsif @room <= set - (band / 2) && @now - @off_since >= least_off
        @on_since, @y = @now, true
      end
      @backup = @room < set - @house.fetch("backup_below_degrees_f") || (@backup && @room < set - (band / 2))
    end

    def least_off = @faults["short_cycling"] ? 60.0 : @house.fetch("least_off_seconds")

    def board(weather)
      inputs = [@y, @closed, warm?]
      return unless inputs != @seen || @now >= @wakes_at

      @seen = inputs
      before = @memory
      @memory = @clock.step(@memory, @now, clock_inputs(weather))
      relay = @clock.on?(@memory, clock_inputs(weather)) && !@faults["never_starts"]
      @memory = before.with(at: @now, counted: 0.0) if @faults["never_starts"] && @memory.defrosting
      follow(before, relay)
      @wakes_at =
        [@clock.wake(@memory, @now), (@now + 60.0 if @profile.school == "demand")].compact.min || Float::INFINITY
    end

    def clock_inputs(weather)
      DefrostClock::Inputs.new(y: @y, t1: @y, cold: @closed, warm: warm?, coil: @sensed, air: weather.degrees_f)
    end

    def warm? = @sensed >= @profile.ends_degrees_f && !@closed

    def follow(before, relay)
      began if @memory.defrosting && !before.defrosting && relay
      ended if @defrosts.last && @defrosts.last.end_seconds.nil? && before.defrosting && !@memory.defrosting
      @turning_since = @now if relay != @relay
      @relay = relay
    end

    def began
      @ever_defrosted = true
      @defrosts << Defrost.new(@now, nil, nil, @coil.frost_kg, nil, @sensed, nil, 0.0, 0.0, 0.0, @since_defrost)
      @since_defrost = 0.0
    end

    def ended
      one = @defrosts.last
      one.end_seconds, one.by, one.left_kg, one.ends_degrees_f = @now, @memory.ended, @coil.frost_kg, @sensed
    end

    # What the board's relay, the valve, the fan and the strips make of it.
    def parts
      @running = @y
      @turned = turned
      @fan = @running && (!@relay || @faults.key?("fan_runs_in_defrost")) && !fan_gone?
      in_defrost = @relay && @running && !@faults["strips_dead"]
      @w2 = in_defrost || (@backup && @y) || (@faults.key?("strips_stay_on") && @ever_defrosted)
    end

    # Where the valve stands.
    def turned
      return false if @faults["valve_stuck"]

      late = @faults["valve_slow"] && @turning_since && @now - @turning_since < SLOW_SECONDS
      late ? @turned : @relay
    end

    def fan_gone? = @faults["fan_stays_off"] && @defrosts.size > 1

    def sense(weather)
      numbers = Catalogue.frost.fetch("sensor")
      off = @faults["switch_off_pipe"]
      seen =
        (
          if off
            weather.degrees_f + ((@coil.degrees_f - weather.degrees_f) * numbers.fetch("off_pipe_share"))
          else
            @coil.degrees_f
          end
        )
      @sensed +=
        (seen - @sensed) * (1.0 - Math.exp(-@step / numbers.fetch(off ? "off_pipe_lag_seconds" : "lag_seconds")))
      @logged += (@coil.degrees_f - @logged) * (1.0 - Math.exp(-@step / numbers.fetch("lag_seconds")))
      @closed = closed?
    end

    def closed?
      return true if @faults["switch_stuck_closed"]
      return false if @faults["switch_stuck_open"]

      opens = @profile.ends_degrees_f + (@faults["switch_opens_late"] ? LATE_DEGREES_F : 0.0)
      return true if @sensed <= @profile.starts_degrees_f

      @sensed < opens && @closed
    end

    # Room, supply air and sums.
    def reckon(weather)
      pumped = pumped_kw
      strips = @w2 ? @house.fetch("strips_kw") : 0.0
      loss = @house.fetch("loss_kw_per_k") * (@room - weather.degrees_f) / 1.8
      @room += (pumped + strips - loss) * @step / (@house.fetch("holds_mj_per_k") * 1000) * 1.8
      warms = (pumped + strips) * 3412.0 / (1.08 * @house.fetch("indoor_cfm"))
      supply = @room + warms
      @supply = supply
      line = vapor_line(weather)
      @vapor += (line - @vapor) * (1.0 - Math.exp(-@step / 40.0))
      sums(pumped, strips, supply)
    end

    def pumped_kw
      return 0.0 unless @running
      return -@numbers.fetch("heat_kw") * 0.65 if @turned

      [@coil.heat_kw, 0.3].max + @numbers.fetch("compressor_kw")
    end

    def vapor_line(weather)
      return weather.degrees_f unless @running

      @turned ? 28.0 : 118.0 + (0.4 * (weather.degrees_f - 32.0))
    end

    def sums(pumped, strips, supply)
      hours = @step / 3600
      @worst_frost_kg = [@worst_frost_kg, @coil.frost_kg].max
      @backup_kwh += strips * hours
      return unless @running

      @run_seconds += @step
      @since_defrost += @step unless @relay
      @heat_kwh += [pumped, 0.0].max * hours
      return unless @relay && @defrosts.any?

      one = @defrosts.last
      one.strips_kwh += strips * hours
      one.heat_taken_kwh += [-pumped, 0.0].max * hours
      one.cool_air_seconds += @step if supply < @room
    end

    def row
      weather = @weather.call(@now)
      Row.new(
        @now,
        weather.degrees_f,
        weather.humidity_percent,
        @coil.degrees_f,
        @logged,
        @vapor,
        @supply,
        @room,
        @y,
        @relay,
        @fan,
        @w2,
        @running,
        @turned,
        amps(weather),
        @fan ? 1.1 : 0.0
      )
    end

    def amps(weather)
      return 0.0 unless @running

      @turned ? 6.5 : 9.0 + (0.04 * (weather.degrees_f - 32.0))
    end
  end
end
