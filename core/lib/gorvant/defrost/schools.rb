# frozen_string_literal: true

module Gorvant
  # One run history under every school of defrost clock: when each would have started and ended, where they differ and why.
  class Schools
    # minute, kind ("start", "end", "wait", "miss", "reset" or "pause"), says.
    Step = Value.define(:minute, :kind, :says)
    # starts, ends: minutes. first: the first start or nil. fits: whether it agrees with what was seen, nil where nothing was.
    Course = Value.define(:school, :title, :starts, :ends, :steps, :fits)

    # profile: the board's; seen: minutes at which defrosts were seen to start.
    def initialize(history, profile, seen: [])
      @history = history
      @profile = profile
      @seen = seen
      @numbers = Catalogue.profile.fetch("defrost")
    end

    # [Course], the restarting variant of the run-time school beside the waiting one.
    def courses
      schools = ClockProfile::SCHOOLS.map { |school| [school, @profile.as(school).with(at_expiry: school == "free" ? "miss" : "wait")] }
      schools << ["run_time_restarts", @profile.as("run_time").with(at_expiry: "restart")]
      schools.map { |id, profile| course(id, profile) }
    end

    # Ids of the schools that fit what was seen.
    def fitting = courses.select(&:fits).map(&:school)

    # Where they part: one sentence for each pair of neighbours that start first at other times.
    def differences
      first = courses.to_h { |course| [course.title, course.starts.first] }
      first.group_by do |_title, at|
        at
      end.map { |at, titles| Catalogue.words("defrost.first_at", schools: titles.map(&:first).join(", "), at: at ? "#{format('%g', at.round(1))} min" : Catalogue.words("defrost.never")) }
    end

    private

    def course(id, profile)
      clock = DefrostClock.new(profile)
      memory = clock.memory
      steps = []
      minute = 0.0
      ends_at = nil
      while minute <= @history.minutes
        inputs = inputs(minute, ends_at)
        before = memory
        memory = clock.step(memory, minute * 60, inputs)
        steps.concat(told(before, memory, inputs, minute))
        ends_at = memory.defrosting ? (ends_at || (minute + @numbers.fetch("lasts_minutes"))) : nil
        minute = following(clock, memory, minute, ends_at) or break
      end
      found(id, steps)
    end

    # The history knows no thawing: a defrost lasts as long as the profile assumes.
    def inputs(minute, ends_at)
      DefrostClock::Inputs.new(powered: !@history.on?("unpowered", minute), y: @history.on?("y", minute), t1: @history.on?("fed", minute), cold: @history.on?("cold", minute),
                               warm: ends_at ? minute >= ends_at - 1e-9 : false, heating: !@history.on?("cooling", minute))
    end

    def following(clock, memory, minute, ends_at)
      wake = clock.wake(memory, minute * 60)
      [wake && (wake / 60), @history.changes.find { |at| at > minute + 1e-9 }, (ends_at if ends_at && ends_at > minute + 1e-9)].compact.min
    end

    def told(before, after, inputs, minute)
      kinds = [("end" if before.defrosting && !after.defrosting), ("start" if after.defrosting && !before.defrosting), ("wait" if after.waits && !before.waits),
               idle(before, after, inputs, minute)]
      kinds.compact.map { |kind| step(minute, kind, why: after.missed, counted: format("%g", (after.counted / 60).round(1))) }
    end

    # What happens to the count while there is no defrost.
    def idle(before, after, inputs, minute)
      return nil if before.defrosting || after.defrosting || after.waits
      return "miss" if after.missed && after.counted.zero? && full_before?(before, minute)
      return "reset" if before.counted.positive? && after.counted.zero? && !inputs.cold

      "pause" if before.rate.positive? && after.rate.zero? && after.counted.positive?
    end

    def full_before?(before, minute) = before.counted + (((minute * 60) - before.at) * before.rate) >= @profile.interval_seconds - 1

    def step(minute, kind, **fields) = Step.new(minute: minute.round(2), kind: kind, says: Catalogue.words("defrost.step_#{kind}", at: format("%g", minute.round(1)), **fields))

    def found(id, steps)
      starts = steps.select { |one| one.kind == "start" }.map(&:minute)
      Course.new(school: id, title: Catalogue.words("defrost.school_#{id}"), starts: starts, ends: steps.select { |one| one.kind == "end" }.map(&:minute), steps: steps, fits: fits(starts))
    end

    # Every start that was seen has its own, and none is missing before the last of them.
    def fits(starts)
      return nil if @seen.empty?

      within = @numbers.fetch("seen_within_minutes")
      expected = starts.select { |at| at <= @seen.max + within }
      expected.size == @seen.size && expected.zip(@seen.sort).all? { |one, other| (one - other).abs <= within }
    end
  end
end
