# frozen_string_literal: true

# The trade's clocks as a technician with pencil and watch would keep them: slow, step by step, and written without a
# look at the core's own, so that each can prove the other.
module ByHand
  # A defrost clock. school: as Schools has them, the restarting variant by its own name. answers: { fact => value }.
  # lanes: { "fed" / "cold" / "y" / "cooling" / "unpowered" => [[from, to]] } in minutes.
  class DefrostClock
    INTERVAL = 60.0
    FACTS = {
      "clock_counts_on" => %w[T1 Y],
      "clock_counts_in_cooling" => [true, false],
      "clock_counts_in_defrost" => [true, false],
      "clock_restarts_at" => %w[end start],
      "clock_survives_power" => [true, false],
      "y_lost_in_defrost" => %w[next_call abort finish],
      "defrost_in_cooling" => [true, false]
    }.freeze

    attr_reader :starts

    def initialize(school, answers, lanes, lasts_minutes)
      @school = school
      @answers = answers
      @lanes = lanes
      @lasts = lasts_minutes
      @count = 0.0
      @began = nil
      @starts = []
    end

    # Half a minute from here on.
    def half_minute(at)
      @at = at
      return power_lost if on?("unpowered")

      @began ? finish : begin_or_miss
      @thawed += 0.5 if @began && (running? || answer("y_lost_in_defrost") == "finish")
      @count = [@count + 0.5, INTERVAL].min if counts?
    end

    private

    def on?(lane) = @lanes.fetch(lane).any? { |from, to| @at >= from && @at < to }
    def answer(fact) = @answers.fetch(fact)
    def round? = %w[free clock_motor].include?(@school)
    def motor? = @school == "clock_motor"
    def running? = answer("clock_counts_on") == "Y" && !round? ? on?("y") : on?("fed")

    def power_lost
      @began = nil
      @count = 0.0 unless answer("clock_survives_power")
    end

    def finish
      given_up = answer("y_lost_in_defrost") == "abort" && !on?("y") && !running?
      return unless given_up || @thawed >= @lasts

      @began = nil
      @count = 0.0 if answer("clock_restarts_at") == "end" && !motor?
    end

    def begin_or_miss
      @count = 0.0 if @school == "run_time_cold" && !on?("cold")
      return if @count < INTERVAL
      return begin_here if may_begin?

      # It begins anew for an open switch alone.
      @count = 0.0 if round? || (@school == "run_time_restarts" && !on?("cold"))
    end

    def may_begin? =
      (@school == "time_only" || on?("cold")) && running? && (!on?("cooling") || answer("defrost_in_cooling"))

    def begin_here
      @starts << @at
      @began = @at
      @thawed = 0.0
      @count = 0.0 if motor? || answer("clock_restarts_at") == "start" || !answer("clock_counts_in_defrost")
    end

    def counts?
      return true if motor?
      return false if @began && !answer("clock_counts_in_defrost")
      return true if @school == "free"
      return false unless running?
      return on?("cold") && !on?("cooling") if @school == "run_time_cold"

      !on?("cooling") || (@school.start_with?("run_time") && answer("clock_counts_in_cooling"))
    end
  end

  # A thermostat's stages with electric backup, second by second. settings: { fact => value }; mode: "heat" or "cool".
  class Stages
    FACTS = {
      stage_1_error_degrees_f: [0.5, 1.0],
      stage_error_degrees_f: [0.5, 1.5, 2.0],
      stage_delay_minutes: [0, 3, 10],
      fast_error_degrees_f: [2.0, 3.0],
      stage_2_step_degrees_f: [0.5, 2.0],
      aux_step_degrees_f: [1.0, 3.0],
      compressor_balance_degrees_f: [10, 30],
      auxiliary_balance_degrees_f: [40, 60],
      staging_school: %w[time per_stage],
      stage_drop: %w[all reverse],
      fast_heating: %w[off error push either],
      fast_cooling: %w[off error push either]
    }.freeze

    def initialize(settings, mode, drop_differential)
      @settings = settings
      @mode = mode
      @drop = drop_differential
      @stages = 0
      @came = nil
      @set = nil
    end

    # Terminals that are live after this second, the changeover and the blower aside.
    def second(now, set, room, outdoor)
      error = heat? ? set - room : room - set
      pushed = @set && @stages.positive? && (heat? ? set > @set : set < @set)
      @set = set
      move(now, error, pushed)
      live(outdoor)
    end

    private

    def heat? = @mode == "heat"
    def most = heat? ? 3 : 2
    def the(fact) = @settings.fetch(fact)

    def steps
      [
        the(:stage_1_error_degrees_f),
        the(:stage_1_error_degrees_f) + the(:stage_2_step_degrees_f),
        the(:stage_1_error_degrees_f) + the(:stage_2_step_degrees_f) + the(:aux_step_degrees_f)
      ]
    end

    def by_time? = the(:staging_school) == "time"

    def move(now, error, pushed)
      return @stages = 0 if error <= 0

      go_back(now, error) if the(:stage_drop) == "reverse"
      return if @stages.zero? && error < the(:stage_1_error_degrees_f)

      wanted = fast?(error, pushed) ? most : usual(now, error)
      @came = now if wanted > @stages
      @stages = wanted
    end

    def go_back(now, error)
      while @stages > 1 && error <= [(by_time? ? the(:stage_error_degrees_f) : steps[@stages - 1]) - @drop, 0].max
        @stages -= 1
        @came = now
      end
    end

    def fast?(error, pushed)
      trigger = the(heat? ? :fast_heating : :fast_cooling)
      (%w[error either].include?(trigger) && error >= the(:fast_error_degrees_f)) ||
        (%w[push either].include?(trigger) && pushed)
    end

    def usual(now, error)
      return [@stages, steps.first(most).count { |step| error >= step }].max unless by_time?
      return 1 if @stages.zero?

      if @stages < most && error > the(:stage_error_degrees_f) && now - @came >= the(:stage_delay_minutes) * 60
        @stages + 1
      else
        @stages
      end
    end

    def live(outdoor)
      compressor = [@stages, 2].min
      return { 0 => [], 1 => %w[Y], 2 => %w[Y Y2] }.fetch(compressor) unless heat?

      allowed = outdoor >= the(:compressor_balance_degrees_f)
      aux = outdoor <= the(:auxiliary_balance_degrees_f) && (@stages == 3 || (!allowed && @stages.positive?))
      (aux ? %w[W2] : []) + (allowed ? %w[Y Y2].first(compressor) : [])
    end
  end
end
