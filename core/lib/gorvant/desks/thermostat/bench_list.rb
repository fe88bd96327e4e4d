# frozen_string_literal: true

module Gorvant
  # What to do at the thermostat and which terminals to expect live, line by line: to be ticked off against lamps or a
  # meter. What is expected is run, not listed.
  class BenchList
    # id: keeps a tick with its line; does: what to do; after_seconds: how long then to wait; expect: terminals live.
    Line = Value.define(:id, :does, :after_seconds, :expect, :cautions)

    SET = 70.0
    MOST_STAGES = 4
    PUSH = 1.0 # °F
    SOON = 5.0 # seconds until all that comes at once has come

    # outdoor_degrees_f: as it is; decides what balance points allow, and what must not be run.
    def initialize(rig, outdoor_degrees_f: nil)
      @rig = rig
      @outdoor = outdoor_degrees_f || Catalogue.profile.dig("bench", "outdoor_degrees_f")
      @staging = Staging.new(rig)
    end

    # [Line]
    def lines = fan + side("heat") + fast("heat") + side("cool") + fast("cool") + emergency

    private

    def error = [@rig[:stage_1_error_degrees_f], @rig[:stage_error_degrees_f] + 0.5].max
    def degrees(value) = format("%g", value)

    def fan
      [
        Line.new(
          id: "fan",
          does: Catalogue.words("bench.fan"),
          after_seconds: 0,
          expect: lit(condition("fan")),
          cautions: []
        )
      ]
    end

    def lit(condition) = Trace.new(@rig, condition).live_at_wall

    # In the weather of the day: an outdoor thermostat stands where it puts it.
    def condition(call, **more) = Condition.new(call: call, outdoor_degrees_f: @outdoor, **more)

    # What fast recovery brings all at once, where it is on.
    def fast(mode)
      trigger = @rig[mode == "heat" ? :fast_heating : :fast_cooling]
      lines = []
      lines << fast_line(mode, "fast", [@rig[:fast_error_degrees_f]]) if %w[error either].include?(trigger)
      if %w[push either].include?(trigger)
        lines << fast_line(mode, "push", [@rig[:stage_1_error_degrees_f], @rig[:stage_1_error_degrees_f] + PUSH])
      end
      lines
    end

    def fast_line(mode, kind, steps)
      run = timeline(mode, steps)
      by = kind == "push" ? PUSH : steps.last
      Line.new(
        id: "#{mode}-#{kind}",
        does: Catalogue.words("bench.#{kind}_#{mode}", by: degrees(by)),
        after_seconds: SOON.round,
        expect: live(run, 2.0 + (step_seconds * (steps.size - 1)) + SOON),
        cautions: cautions(mode)
      )
    end

    # One line for each time that something comes, then one for being satisfied.
    def side(mode)
      steps = by_time? ? [error] : @staging.steps.first(@staging.stages(mode).size)
      run = timeline(mode, steps)
      lines = moments(run).first(MOST_STAGES + 1).each_with_index.map { |at, i| line(run, mode, at, i, steps) }
      lines +
        [
          Line.new(
            id: "#{mode}-off",
            does: Catalogue.words("bench.satisfied_#{mode}"),
            after_seconds: 0,
            expect: idle(mode),
            cautions: []
          )
        ]
    end

    def by_time? = @rig[:staging_school] == "time"
    def step_seconds = 120.0

    # Raised at once, or step by step where each stage has its own step.
    def timeline(mode, steps)
      sign = mode == "heat" ? -1 : 1
      start = {
        "set_point_degrees_f" => SET,
        "room_degrees_f" => SET - @rig[:sensor_offset_degrees_f],
        "outdoor_degrees_f" => @outdoor,
        "coil_degrees_f" => 60.0
      }
      moves = [{ "at_seconds" => 1.0, "what" => "mode", "value" => mode }]
      steps.each_with_index do |step, i|
        moves << { "at_seconds" => 2.0 + (i * step_seconds), "what" => "set_point", "value" => SET - (sign * step) }
      end
      seconds = by_time? ? (@rig[:stage_delay_minutes] * 60.0 * MOST_STAGES) + 600 : step_seconds * (steps.size + 1)
      Run.of(@rig, Script.parse({ "start" => start, "moves" => moves }, [seconds, 20_000.0].min))
    end

    # Seconds at which outputs change, those within a few seconds taken together at the last.
    def moments(run)
      ats = outputs(run).flat_map { |signal| signal.steps.drop(1).map(&:first) }.reject { |at| at < 2.0 }.uniq.sort
      ats.slice_when { |a, b| b - a > 5 }.map(&:last)
    end

    def outputs(run) = run.signals.select { |signal| signal.id.start_with?("THERMOSTAT.") }

    def live(run, at) = lit(run.condition_at(at))

    def line(run, mode, at, index, steps)
      Line.new(
        id: "#{mode}-#{index + 1}",
        does: does(mode, index, steps),
        after_seconds: after(at, index, steps),
        expect: live(run, at + 0.5),
        cautions: index.zero? ? cautions(mode) : []
      )
    end

    def does(mode, index, steps)
      return Catalogue.words("bench.wait") unless steps[index]

      Catalogue.words("bench.#{index.zero? ? "set" : "on"}_#{mode}", by: degrees(steps[index]))
    end

    # Since the set point was last moved.
    def after(at, index, steps) = (at - 2.0 - (step_seconds * [index, steps.size - 1].min)).floor.clamp(0, nil)

    # Cooling in frost and heating in summer only at low voltage.
    def cautions(mode) = Season.of(mode, @outdoor) == "out" ? %w[out_of_season maker_first] : []

    # By mode or latched, the changeover stays.
    def idle(mode)
      return [] if @rig[:changeover_school] == "by_call" || @rig[:system_setup] == "conventional"

      lit(condition("off", outputs: [@rig.changeover_terminal(mode == "cool" ? "O" : "B")].compact))
    end

    def emergency
      return [] if @rig[:backup] == "none"

      expect = lit(condition("emergency"))
      [
        Line.new(
          id: "emergency",
          does: Catalogue.words("bench.emergency", by: degrees(@rig[:stage_1_error_degrees_f])),
          after_seconds: 0,
          expect: expect,
          cautions: @rig[:backup] == "strips" ? ["strips"] : ["maker_first"]
        )
      ]
    end
  end
end
