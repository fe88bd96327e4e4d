# frozen_string_literal: true

require_relative "../../../support/forced_tests"

# The forced test: its steps, its tape, and that it never claims too much.
RSpec.describe Gorvant::ForcedTest do
  include ForcedTests

  it "guides each board by its own steps and warns before the bridge" do
    switch, pins, thermistors =
      [
        rig_with,
        rig_with(forced_entry: "held_pins"),
        rig_with(sensing: "thermistors", forced_entry: "held_pins")
      ].map { |rig| test(rig, {}) }
    expect(switch.steps.map(&:id)).to include("unplug", "jumper", "bridge", "replug")
    expect(switch.warnings.join).to include("the limit of 10:00 is gone in 2.5 s")
    expect(pins.steps.map(&:id)).to include("hold").and(satisfy { |ids| !ids.intersect?(%w[jumper unplug bridge]) })
    expect(thermistors.steps.map(&:id)).to include("never_jumper")
    expect(thermistors.steps.filter_map(&:tally).flat_map(&:keys)).not_to include("coil_jumper")
  end

  it "puts the tape of the rig beside what was seen" do
    beside =
      test(
        rig_with(defrost_interval_minutes: 90),
        {
          jumper_on: 3,
          bridge_on: 10,
          fan_off: 32.3,
          valve_heard: 33.5,
          bridge_off: 33,
          strips_on: 58,
          jumper_off: 200,
          fan_back: 200.5
        },
        fresh: true
      ).beside
    found = beside.to_h { |line| [line.mark, line] }
    expect(found["fan_off"]).to have_attributes(expected_seconds: be_within(0.3).of(32.5), seen_seconds: 32.3)
    expect(found["fan_back"]).to have_attributes(expected_seconds: be_within(0.5).of(200), agrees: true)
    expect(found["strips_on"].agrees).to be(true)
  end

  # Nobody knows to seconds how long a coil takes to warm: where it is the coil that ends it, the tape says modelled.
  it "calls no end off that the coil's own warming makes" do
    pins = rig_with(forced_entry: "held_pins", forced_entry_hold_seconds: 5)
    marks = { bridge_on: 0, fan_off: 5, bridge_off: 7, fan_back: 400 }
    by_coil = test(pins, marks, coil_degrees_f: 24).beside.find { |line| line.mark == "fan_back" }
    expect(by_coil).to have_attributes(title: /modelled/, expected_seconds: be_between(40, 300), agrees: nil)
    by_time =
      rig_with(
        forced_entry: "held_pins",
        forced_entry_hold_seconds: 5,
        defrost_ends_by: "time",
        defrost_limit_minutes: 6
      )
    ends = test(by_time, marks.merge(fan_back: 365), coil_degrees_f: 24).beside.find { |line| line.mark == "fan_back" }
    expect(ends).to have_attributes(expected_seconds: be_within(3).of(365), agrees: true)
    expect(ends.title).not_to include("modelled")
  end

  # Every verdict that can be made: with evidence, what was assumed, and what is not proved.
  it "never overclaims" do
    verdicts = Gorvant::Catalogue.verdicts
    expect(verdicts.values).to all(
      include(
        "verdict" => match(/\A(right|wrong|as_designed|undetermined)\z/),
        "not_proved" => be_any,
        "next_step" => match(/\w/)
      )
    )
    made =
      (1..300).flat_map do |seed|
        random = Random.new(seed)
        marks =
          described_class::MARKS.select { random.rand < 0.6 }.to_h { |mark| [mark, random.rand(0.0..700.0).round(1)] }
        given = {
          "answers" => described_class::ANSWERS.select { random.rand < 0.3 }.to_h { |key| [key, random.rand < 0.5] },
          "coil_degrees_f" => [nil, 20, 90].sample(random: random),
          "readings" =>
            described_class::READINGS.select { random.rand < 0.4 }.to_h { |key| [key, random.rand(0..300)] },
          "fresh" => random.rand < 0.3
        }
        facts = {
          forced_entry: %w[speed_up held_pins].sample(random: random),
          sensing: %w[coil_switch thermistors].sample(random: random),
          backup: %w[strips gas none].sample(random: random)
        }
        described_class.new(rig_with(**facts), described_class.parse(given.merge("marks" => marks))).verdicts
      end
    expect(made.map(&:code).uniq.size).to be > 15
    expect(made).to all(
      satisfy do |one|
        one.evidence.any? && one.evidence.all?(/\w/) && one.assumed.any? && one.not_proved.any? && one.says.match?(/\w/)
      end
    )
    leaning = verdicts.flat_map { |_code, words| words.fetch("leans_on", []) }.uniq
    expect(leaning - Gorvant::Catalogue.facts.keys).to eq([])
    expect(made.flat_map { |one| [one.title, one.says, one.next_step, *one.not_proved] }.grep(/%</)).to eq([])
  end
end
