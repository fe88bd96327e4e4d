# frozen_string_literal: true

require_relative "cycles/draft"
require_relative "cycles/signs"
require_relative "cycles/aftermath"

module Gorvant
  # Reads run cycles and defrosts from the hours of a record, row by row. It knows no board: only when the coil switch
  # would stand closed (closes, opens, °F).
  # Source: docs/sources.md, recorded-reading.
  class RecordedCycles
    include Signs
    include Aftermath

    MOST_RUNS = 20_000
    MOST_DEFROSTS = 5000
    WATCH_SECONDS = 900.0 # after a defrost's end
    SETTLES_SECONDS = 300.0
    UNSURE_SECONDS = 420.0 # from which a fan that stands is a unit at rest, where nothing else tells

    # hours: RecordHour in order, given again each time it is gone through. on_off: { id => OnOff }.
    def self.of(hours, ids:, on_off:, closes:, opens:, interval_seconds:)
      story = new(ids, on_off, closes, opens, interval_seconds)
      story.heating_by(hours) if ids.include?("ob")
      hours.each do |hour|
        Patience.check!
        story.hour(hour)
      end
      story.finish
    end

    def initialize(ids, on_off, closes, opens, interval_seconds)
      @ids, @on_off, @closes, @opens, @interval = ids, on_off, closes, opens, interval_seconds.to_f
      @numbers = Catalogue.recorded.fetch("cycles")
      @gap = [@interval * 3, 30.0].max
      @running_by =
        (%w[amps y] & ids).find { |id| @on_off[id]&.over || @on_off[id]&.always } || (%w[fan coil] & ids).first
      @seen_by = (%w[ob fan coil] & ids).find { |id| id == "coil" || @on_off[id]&.over }
      @assumed_humidity = @numbers.fetch("assumed_humidity_percent")
      nothing_seen
    end

    # Which way O/B stands in heating: as it mostly does while the compressor runs and it is cold.
    def heating_by(hours)
      on = off = 0
      hours.each do |hour|
        ob = hour.columns["ob"]
        run = hour.columns[@running_by]
        air = hour.columns["outdoor"]
        ob.each_with_index do |value, i|
          next if value.nan? || (air && air[i] > @numbers.fetch("cooling_outdoor_degrees_f"))
          next unless @running_by.nil? || @running_by == "coil" || on?(@running_by, run[i])

          on?("ob", value) ? on += 1 : off += 1
        end
      end
      @heating_ob = on > off
    end

    def hour(hour)
      columns = @ids.to_h { |id| [id, hour.columns.fetch(id)] }
      base = hour.starts_at
      outdoor, coil, fan, ob, w2, vapor, supply, humidity =
        columns.values_at("outdoor", "coil", "fan", "ob", "w2", "vapor", "supply", "humidity")
      running = columns[@running_by]
      hour.seconds.each_with_index do |second, i|
        @air = number(outdoor, i) || @air
        @coil = number(coil, i)
        @fan = fan && switched("fan", fan[i], @fan)
        @ob = ob && switched("ob", ob[i], @ob)
        @w2 = w2 && switched("w2", w2[i], @w2)
        @vapor = number(vapor, i)
        @supply = number(supply, i)
        @humidity = number(humidity, i)
        row(base + second, running && running[i])
      end
    end

    def finish
      watch_on(nil)
      close(@last, "record") if @defrost
      stop(@last) if @running
      stretch
      cold_over(@last)
      RecordedStory.new(
        from: @from,
        to: @last,
        columns: @ids,
        defrosts: @defrosts.map(&:value),
        runs: @runs,
        run_seconds: @run_seconds,
        stretches: @stretches.sort_by { |one| -one["seconds"] }.first(20),
        interval_seconds: @interval,
        running_by: @running_by,
        humidity: @ids.include?("humidity") ? "column" : "assumed",
        fan_stops: @fan_stops.first(200),
        cold: @cold_spans,
        over_air_seconds: @over_air.round,
        under_air_seconds: @under_air.round,
        w2_alone_seconds: @w2_alone_most.round,
        on_off: @on_off.transform_values(&:to_json_hash),
        heating_ob: @heating_ob
      )
    end

    private

    def nothing_seen
      @defrosts, @runs, @stretches, @fan_stops, @watching = [], [], [], [], []
      @recent = []
      @run_seconds = @since_run = @since_cold = @start_run = 0.0
      @frost_coil = nil
      @frost_owed = 0.0
      @whole = @known_since = false
      @cold = false
      @clean = @difference = nil
      @run_since = nil
      @pending_fan_off = nil
      @cold_spans = []
      @over_air = @under_air = @w2_alone = @w2_alone_most = 0.0
    end

    def on?(id, value)
      return false if value.nan?

      rule = @on_off[id]
      rule ? rule.on?(value) : value > 0.5
    end

    # A gap in a column that switches leaves it as it was.
    def switched(id, value, before) = value.nan? ? before || false : on?(id, value)

    def number(column, index)
      value = column && column[index]
      value && !value.nan? ? value : nil
    end

    def row(now, running_value)
      @from ||= now
      passed = @last ? now - @last : 0.0
      lost if passed > @gap
      passed = 0.0 if passed > @gap
      running = running?(running_value, now)
      count(passed) if @running
      frost(passed)
      start(now) if running && !@running
      @defrost ? defrosting(now, passed, running) : heating(now, running)
      stop(now) if @running && !running
      @running = running
      watch_on(now) if @watching.any?
      heat_alone(passed)
      difference if running && !@defrost
      remember(now)
      @last = now
    end

    def running?(value, now)
      case @running_by
      when "amps", "y"
        value.nan? ? @running : on?(@running_by, value)
      when "fan"
        return true if @fan || @defrost
        return false unless @running

        @pending_fan_off ||= fan_off(now)
        now - @pending_fan_off[:at] < UNSURE_SECONDS
      else
        by_cold_coil?
      end
    end

    # A coil well below the air is being run; one that has come up to it may be at rest, or in a defrost on its way
    # past.
    def by_cold_coil?
      return false if @coil.nil? || @air.nil?

      @below_at = @last if @coil < @air - 4.0
      !@defrost.nil? || (!@below_at.nil? && !@last.nil? && @last - @below_at < UNSURE_SECONDS / 2)
    end

    def sure_of_running? = %w[amps y].include?(@running_by)

    # Rows are missing: what was counted is not known any more, and a defrost has no end that was seen.
    def lost
      close(@last, "record") if @defrost
      stop(@last) if @running
      stretch
      cold_over(@last)
      @cold = false
      @coldest = nil
      @running = false
      @recent.clear
      @pending_fan_off = nil
      @since_run = @since_cold = @start_run = 0.0
      @since_wall = nil
      @known_since = false
      @frost_coil = nil
      @watching.each { |one| one.over = true }
      @watching.clear
      @broken = nil
    end

    def count(passed)
      @run_seconds += passed
      return if @defrost

      @since_run += passed
      @start_run += passed
      @coil && @air && (@coil > @air + 1 ? @over_air += passed : @under_air += passed)
      cold_switch
      if @cold
        @since_cold += passed
      else
        # Just after a defrost the coil has to fall first.
        @whole = false unless @since_wall && @last - @since_wall < SETTLES_SECONDS
      end
    end

    # Where the switch would stand; without a coil by the air, below which the coil always runs.
    def cold_switch
      degrees = @coil || @air or return
      was = @cold
      @cold = degrees <= @closes || (@cold && degrees < @opens)
      @coldest = [@coldest, degrees].compact.min
      return if @cold == was
      return @cold_from = @last if @cold

      @since_cold = 0.0
      cold_over(@last)
    end

    def cold_over(now)
      @cold_spans << [@cold_from.round(1), now.round(1)] if @cold_from && @cold_spans.size < MOST_RUNS
      @cold_from = nil
    end

    # The model goes along at steps of ten seconds or more.
    def frost(passed)
      return unless @air

      @frost_coil ||= FrostCoil.new(degrees_f: @air)
      @frost_owed += passed
      return if @frost_owed < 10.0

      weather = FrostCoil::Weather.new(degrees_f: @air, humidity_percent: @humidity || @assumed_humidity)
      left = @frost_owed
      while left > 0.01
        part = [left, 30.0].min
        @frost_coil.step(
          part,
          weather,
          stages: @running ? 1 : 0,
          cooling: !@defrost.nil?,
          fan: @running && @defrost.nil?
        )
        left -= part
      end
      @frost_owed = 0.0
    end

    def start(now)
      @run_since = now
      @whole = false if @since_run.positive? || !@known_since
      @recent.clear
    end

    def stop(now)
      # Where only fan or coil tell, it is known late that it stopped.
      now = @pending_fan_off ? @pending_fan_off[:at] : @below_at || now unless sure_of_running?
      broken_off(now) if @pending_fan_off&.fetch(:heated) && sure_of_running?
      @pending_fan_off = nil
      @runs << [@run_since.round(1), now.round(1)] if @run_since && @runs.size < MOST_RUNS
      @whole = false
      @run_since = nil
    end

    # The fan stood for a while before the compressor stopped: a defrost that the call broke off before the coil rose.
    def broken_off(now)
      from = @pending_fan_off[:at]
      if now - from < [@numbers.fetch("least_defrost_seconds"), @interval * 1.5].max || now - from > WATCH_SECONDS
        return
      end

      begin_defrost(from, "fan", coil: @pending_fan_off[:coil])
      close(now, "call")
    end

    def begin_defrost(start, seen_by, coil: nil)
      before = @recent.reverse_each.find { |at, _| at < start } || [nil, @coil, @w2, nil, nil]
      coil ||= before[1] || @coil
      @defrost =
        Draft.new(
          start: start,
          seen_by: seen_by,
          outdoor: @air,
          outdoor_most: @air,
          coil_start: coil,
          coldest: coil,
          coil_most: @coil,
          ran_after: 0.0,
          watched: 0.0,
          paused_seconds: 0.0,
          strips_before: before[2],
          supply_before: before[3],
          vapor_start: before[4],
          **counted(start)
        )
      @start_run = 0.0
      stretch
      @recent.each do |at, was, w2|
        next if at < start

        follow(@defrost, at, was)
        @defrost.strips_on_after ||= at - start if w2
      end
      @pending_fan_off = @fan_off_at = nil
    end

    # What was counted up to its start; times only where nothing of them is missing.
    def counted(start)
      times = {
        run_seconds: @since_run,
        cold_run_seconds: @since_cold,
        wall_seconds: @since_wall && (start - @since_wall),
        start_to_start_run_seconds: @start_run
      }
      {
        **times.transform_values { |value| @known_since ? value : nil },
        whole: @known_since && @whole,
        coldest_since: @coldest,
        clean_difference: @clean,
        last_difference: @difference,
        frost_kg: @frost_coil&.frost_kg
      }
    end

    # --- a defrost that is on

    def defrosting(now, passed, running)
      one = @defrost
      one.coil_most = [one.coil_most, @coil].compact.max
      one.outdoor_most = [one.outdoor_most, @air].compact.max
      one.fan_all += passed
      one.fan_on += passed if @fan
      one.strips_on_after ||= now - one.start if @w2
      follow(one, now, @coil) unless ended?(one) # the row of its end is the fan's again
      one.vapor_turns_after ||= now - one.start if @vapor && one.vapor_start && @vapor <= one.vapor_start - 10.0
      return close(now, "call") unless running

      climb(one, passed)
      return give_up if now - one.start - one.paused_seconds > @numbers.fetch("most_defrost_seconds")

      ended = over_at(one, now)
      close(ended, nil) if ended
    end

    # How fast it climbs, and how it stood a row before its end, where it may have begun to fall.
    def climb(one, passed)
      return unless @coil

      one.climb = (@coil - one.coil_end) * 60 / passed if one.coil_end && passed.positive? && @coil > one.coil_end
      one.coil_end = @coil unless ended?(one)
    end

    def ended?(one) = one.seen_by == "ob" ? @ob == @heating_ob : one.seen_by == "fan" && @fan

    def follow(one, now, coil)
      return unless coil

      after = now - one.start
      due = one.path.empty? || after - one.path.last[0] >= @numbers.fetch("overlay_every_seconds") - 0.5
      one.path << [after.round(1), coil.round(1)] if due && after <= @numbers.fetch("overlay_seconds")
      return if one.end # what comes after it is no turning

      one.coldest = [one.coldest, coil].compact.min
      one.turns_after ||= after - one.paused_seconds if coil >=
        one.coldest + Catalogue.recorded.dig("judging", "valve_turns_degrees_f")
    end

    # When it was over, by the signal it was seen by; a fan that does not come back is told by the coil that falls.
    def over_at(one, now)
      case one.seen_by
      when "ob"
        @ob == @heating_ob ? now : nil
      when "fan"
        @fan ? now : falls(one, now)
      else
        falls(one, now)
      end
    end

    def falls(one, now)
      return nil unless @coil && one.coil_most
      # Only what has risen can fall: a valve that turns late lets the coil get colder first.
      return nil if one.coil_start && one.coil_most < one.coil_start + @numbers.fetch("coil_rises_degrees_f")

      # A coil full of ice stands about freezing for long: it ends where it stood there last.
      one.end_coil_at = now if @coil >= one.coil_most - 2.0
      @coil <= one.coil_most - 6.0 ? one.end_coil_at || now : nil
    end

    # Longer than any defrost: cooling, or a fan that stands.
    def give_up
      @fan_stops << [@defrost.start, @last - @defrost.start] if @defrost.seen_by == "fan"
      cooling = @defrost.seen_by == "ob" && warm_cooling?
      if @defrost.seen_by == "ob" && !cooling
        close(@last, "record")
      else
        @defrost = nil
        @heated = false
      end
    end

    def warm_cooling? =
      @air.nil? || @air >= @numbers.fetch("cooling_outdoor_degrees_f") || (@coil && @air && @coil > @air && @fan)

    def close(now, ended_with)
      one = @defrost
      @defrost = nil
      one.end = now
      one.ended_with = ended_with
      one.fan_back_after = @fan && one.seen_by == "coil" ? 0.0 : nil
      one.strips_off_after = nil
      one.coil_end = one.seen_by == "coil" ? one.coil_most : [one.coil_end, @coil].compact.max
      short = now - one.start < @numbers.fetch("least_defrost_seconds")
      @heated = ended_with != "call"
      @broken = ended_with == "call" ? one : nil
      return if short && ended_with.nil?

      @defrosts << one if @defrosts.size < MOST_DEFROSTS
      @watching << one unless ended_with == "record"
      counted_anew(now, one.coil_end.to_f >= @opens - 12)
    end

    # Where the coil came near its point the switch has opened, whatever the last row before its fall was.
    def counted_anew(now, ended_warm)
      @since_run = @since_cold = 0.0
      @since_wall = now
      @known_since = @whole = true
      @coldest = @clean = @difference = nil
      return unless ended_warm

      cold_over(now)
      @cold = false
    end

    def remember(now)
      @recent << [now, @coil, @w2, @supply, @vapor, @fan]
      while @recent.size > 2 && now - @recent.first[0] > (@numbers.fetch("coil_rises_in_seconds") * 1.5) + 60
        @recent.shift
      end
    end
  end
end
