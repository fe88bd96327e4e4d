# frozen_string_literal: true

module Gorvant
  # One run history under every school of defrost clock: when each would have started and ended, where they differ and
  # why.
  class Schools
    # minute; kind: "start", "end", "break" (Y lost in mid-defrost), "resume", "wait", "miss", "reset" or "pause"; says;
    # tie: whether it hangs on two things at the very same moment.
    Step = Value.define(:minute, :kind, :says, :tie, defaults: { tie: false })
    # counts_on: "Y" or "T1", nil where it counts on neither. starts, ends: minutes. first: the first start or nil.
    # fits: whether it agrees with what was seen, nil where nothing was. counts: what its count is called. facts: what a
    # board of that school is, as facts of a rig. own: whether it is the board's.
    Course = Value.define(:school, :title, :counts_on, :counts, :starts, :ends, :steps, :fits, :facts, :own)

    RESTARTS = "run_time_restarts"
    A_MOMENT = 1e-6 # minutes

    # profile: the board's; seen: minutes at which defrosts were seen to start; counts_on: { school => "Y" / "T1" }
    # where it is to be other than that school's own.
    def initialize(history, profile, seen: [], counts_on: {})
      @history = history
      @profile = profile
      @seen = seen
      @counts_on = counts_on
      @numbers = Catalogue.profile.fetch("defrost")
      @switch = Hysteresis.new(closes_degrees_f: profile.starts_degrees_f, opens_degrees_f: profile.ends_degrees_f)
    end

    # [Course], the restarting variant of the run-time school beside the waiting one; demand where temperatures were
    # written down.
    def courses =
      @courses ||=
        profiles.map do |id, profile|
          course(id, @counts_on.key?(id) ? profile.with(counts_on: @counts_on[id]) : profile)
        end

    # Id of the course that is this board's own.
    def own = @profile.school == "run_time" && @profile.at_expiry == "restart" ? RESTARTS : @profile.school

    # Ids of the schools that fit what was seen.
    def fitting = courses.select(&:fits).map(&:school)

    # Where they part: one sentence for each pair of neighbors that start first at other times.
    def differences
      courses
        .group_by { |course| course.starts.first }
        .map do |at, same|
          Catalogue.words(
            "defrost.first_at",
            schools: same.map(&:title).join(", "),
            at: at ? "#{format("%g", at.round(1))} min" : Catalogue.words("defrost.never")
          )
        end
    end

    private

    def profiles
      all = ClockProfile::SCHOOLS.to_h { |school| [school, usual(school)] }
      all[RESTARTS] = @profile.as("run_time").with(at_expiry: "restart")
      all["demand"] = @profile.as("demand") if @history.temperatures?
      all.key?(own) ? all.merge(own => @profile) : all
    end

    # Each school with its own way at expiry.
    def usual(school)
      profile = @profile.as(school)
      %w[free clock_motor].include?(school) ? profile : profile.with(at_expiry: "wait")
    end

    def course(id, profile)
      clock = DefrostClock.new(profile)
      memory = clock.memory
      @cold = false
      relay = false
      steps = []
      minute = 0.0
      while minute <= @history.minutes
        inputs = inputs(minute, memory)
        before, was = memory, relay
        memory = clock.step(memory, minute * 60, inputs)
        relay = clock.on?(memory, inputs)
        steps.concat(told(clock, before, memory, [was, relay], inputs, minute))
        minute = following(clock, memory, minute) or break
      end
      found(id, profile, steps)
    end

    # Where the coil was not written down a defrost takes as long as the profile assumes, as far as it runs.
    def inputs(minute, memory)
      coil, air = @history.degrees("coil", minute), @history.degrees("outdoor", minute)
      spent = memory.spent + (((minute * 60) - memory.at) * memory.spent_rate)
      DefrostClock::Inputs.new(
        powered: !@history.on?("unpowered", minute),
        y: @history.on?("y", minute),
        t1: @history.on?("fed", minute),
        cold: cold?(minute, coil),
        warm: memory.defrosting && (spent >= (@numbers.fetch("lasts_minutes") * 60) - DefrostClock::EPS),
        heating: !@history.on?("cooling", minute),
        coil: coil,
        air: air,
        aps: @history.frost(minute)
      )
    end

    # The switch as it was written down, else by the coil.
    def cold?(minute, coil)
      return @history.on?("cold", minute) if @history.given.include?("cold") || coil.nil?

      state = @switch.at(coil)
      @cold = state == "closed" unless state == "undetermined"
      @cold
    end

    def following(clock, memory, minute)
      wake = clock.wake(memory, minute * 60)
      warm =
        (
          if memory.defrosting && memory.spent_rate.positive?
            minute + (((@numbers.fetch("lasts_minutes") * 60) - memory.spent) / memory.spent_rate / 60)
          else
            nil
          end
        )
      [
        wake && (wake / 60),
        @history.changes.find { |at| at > minute + 1e-9 },
        (warm if warm && warm > minute + 1e-9)
      ].compact.min
    end

    def told(clock, before, after, relay, inputs, minute)
      kinds = kinds(before, after, relay, inputs, minute)
      return [] if kinds.empty?

      tie = tie(clock, before, kinds, minute)
      kinds.map do |kind|
        step(
          minute,
          kind,
          tie,
          what: Catalogue.words("defrost.awaits_#{after.waits_for || "coil"}"),
          why: Catalogue.words("defrost.missed_#{after.missed || "coil"}"),
          counted: format("%g", (after.counted / 60).round(1))
        )
      end
    end

    def kinds(before, after, relay, inputs, minute)
      was, now = relay
      [
        ("end" if before.defrosting && !after.defrosting),
        ("break" if was && !now && after.defrosting),
        ("resume" if !was && now && before.defrosting),
        ("start" if after.defrosting && !before.defrosting),
        ("wait" if after.waits && !before.waits),
        idle(before, after, inputs, minute)
      ].compact
    end

    # What happens to the count while there is no defrost.
    def idle(before, after, inputs, minute)
      return nil if before.defrosting || after.defrosting || after.waits
      return "miss" if after.missed && after.counted.zero? && full_before?(before, minute)
      return "reset" if before.counted.positive? && after.counted.zero? && !inputs.cold

      "pause" if before.rate.positive? && after.rate.zero? && after.counted.positive?
    end

    def full_before?(before, minute) =
      before.counted + (((minute * 60) - before.at) * before.rate) >= @profile.interval_seconds - 1

    # The lane that turns at this very moment, where the moment before would have brought something else; nil for none.
    def tie(clock, before, kinds, minute)
      lanes = @history.turning(minute)
      return nil if lanes.empty?

      earlier = inputs(minute - A_MOMENT, before)
      other = clock.step(before, minute * 60, earlier)
      if kinds(before, other, [before.defrosting, clock.on?(other, earlier)], earlier, minute) == kinds ||
           !full_before?(before, minute)
        nil
      else
        lanes.first
      end
    end

    def step(minute, kind, tie, **fields)
      key = kind == "wait" && fields[:what] != Catalogue.words("defrost.awaits_coil") ? "wait_for" : kind
      says = Catalogue.words("defrost.step_#{key}", at: format("%g", minute.round(1)), **fields)
      says = Catalogue.words("defrost.tie", says: says, lane: Catalogue.words("defrost.lane_#{tie}")) if tie
      Step.new(minute: minute.round(2), kind: kind, says: says, tie: !tie.nil?)
    end

    def found(id, profile, steps)
      starts = steps.select { |one| one.kind == "start" }.map(&:minute)
      Course.new(
        school: id,
        title: Catalogue.words("defrost.school_#{id}"),
        counts_on: %w[free clock_motor].include?(id) ? nil : profile.counts_on,
        counts: Catalogue.words("defrost.counts_#{profile.school}"),
        starts: starts,
        ends: steps.select { |one| one.kind == "end" }.map(&:minute),
        steps: steps,
        fits: fits(starts),
        facts: facts(profile),
        own: id == own
      )
    end

    def facts(profile)
      expires = Catalogue.facts.dig("at_expiry", "when", "defrost_clock").include?(profile.school)
      { "defrost_clock" => profile.school, **(expires ? { "at_expiry" => profile.at_expiry } : {}) }
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
