# frozen_string_literal: true

require_relative "core"

# Forced tests and runs of a bench unit, in short words.
module ForcedTests
  def rig_with(**facts)
    usual = {
      **Bench::APART,
      defrost_interval_minutes: 60,
      speed_up_factor: 240,
      coil_switch_closes_degrees_f: 28,
      coil_switch_opens_degrees_f: 70,
      defrost_limit_minutes: 10
    }
    Gorvant::Composer.compose(name: "Bench", facts: usual.merge(facts).transform_keys(&:to_s))
  end

  # marks in seconds; the rest as the record has it.
  def test(rig, marks, **more) =
    Gorvant::ForcedTest.new(
      rig,
      Gorvant::ForcedTest.parse({ "marks" => marks.transform_keys(&:to_s) }.merge(more.transform_keys(&:to_s)))
    )
  def codes(rig, marks, **more) = test(rig, marks, **more).verdicts.map(&:code)
  def move(at, what, value, **more) =
    { "at_seconds" => at, "what" => what, "value" => value }.merge(more.transform_keys(&:to_s))

  def run(rig, moves, seconds, **start)
    Gorvant::Run.of(
      rig,
      Gorvant::Script.parse({ "start" => start.transform_keys(&:to_s), "moves" => moves }, seconds.to_f)
    )
  end

  # [seconds at which a defrost began, and ended], pair by pair.
  def defrosts(timeline)
    steps = timeline.signal("defrost").steps
    steps.each_with_index.filter_map { |(at, on), i| [at, steps[i + 1]&.first] if on }
  end
end
