# frozen_string_literal: true

require_relative "../../support/core"

# What happens from outside, as it is typed: moves of the same second in their order, and each wrong one refused at its
# field.
RSpec.describe Gorvant::Script do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Script", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def move(at, what, value, **more) =
    { "at_seconds" => at, "what" => what, "value" => value }.merge(more.transform_keys(&:to_s))
  def run(moves, seconds = 300.0, **start) =
    Gorvant::Run.of(
      rig_with,
      described_class.parse({ "start" => start.transform_keys(&:to_s), "moves" => moves }, seconds)
    )

  it "takes moves of the same second in the order in which they stand" do
    ends =
      [%w[heat cool], %w[cool heat], %w[heat off]].map do |first, second|
        timeline = run([move(10, "call", first), move(10, "call", second)])
        timeline.value_at("call", 11)
      end
    expect(ends).to eq(%w[cool heat off])
  end

  it "tells a switch that a hand opens and closes within one second as both, and drops nothing by it" do
    timeline =
      run([move(0, "call", "heat"), move(50, "switch", "open", of: "HPS"), move(50, "switch", "closed", of: "HPS")])
    expect(timeline.events.select { |event| event.signal == "script.switch" }.map(&:value)).to eq(%w[open closed])
    expect(timeline.value_at("CC", 100)).to be(true)
  end

  it "lets a switch go again: a safety closes, and the coil switch follows its coil, not a hand" do
    moves = [move(0, "call", "heat"), move(50, "switch", "open", of: "HPS"), move(60, "switch", "free", of: "HPS")]
    expect(run(moves).value_at("CC", 100)).to be(true)
    warm = [move(0, "coil", 90), move(10, "switch", "closed", of: "DFT"), move(20, "switch", "free", of: "DFT")]
    timeline = run(warm, outdoor_degrees_f: 60)
    expect([15, 30].map { |at| timeline.value_at("DFT", at) }).to eq([true, false])
  end

  it "lets a temperature go in a straight line over its seconds, and begins the next where the last had got" do
    timeline =
      run(
        [move(0, "outdoor", 20, over_seconds: 100), move(50, "outdoor", 60, over_seconds: 100)],
        300.0,
        outdoor_degrees_f: 40
      )
    outdoor = timeline.curves.find { |curve| curve.id == "outdoor" }.points
    at = ->(second) do
      outdoor
        .each_cons(2)
        .find { |(a, _), (b, _)| second.between?(a, b) && b > a }
        .then { |(a, x), (b, y)| x + ((y - x) * (second - a) / (b - a)) }
    end
    expect([at.call(25), at.call(50), at.call(100), at.call(200)].map { |value| value.round(1) }).to eq(
      [35.0, 30.0, 45.0, 60.0]
    )
  end

  it "begins faults and ends them, joins jumpers and takes them off" do
    timeline =
      run(
        [
          move(0, "call", "heat"),
          move(50, "fault", "begins", of: { "kind" => "open", "at" => "cable_b.yellow" }),
          move(100, "fault", "ends", of: { "kind" => "open", "at" => "cable_b.yellow" }),
          move(150, "call", "off"),
          move(160, "jumper", "on", of: %w[outdoor.R outdoor.Y]),
          move(200, "jumper", "off", of: %w[outdoor.R outdoor.Y])
        ]
      )
    expect([40, 60, 120, 155, 170, 210].map { |at| timeline.value_at("CC", at) }).to eq(
      [true, false, true, false, true, false]
    )
  end

  it "stands still where nothing is asked, and is the same run twice" do
    expect(run([]).events.map(&:signal) - %w[BOARD THERMOSTAT DFT]).to eq([])
    one, two = Array.new(2) { run([move(5, "call", "heat"), move(100, "outdoor", 10)]) }
    expect(one.events).to eq(two.events)
  end

  # [what is wrong, moves or script, field]
  [
    [
      "time that goes back",
      {
        "moves" => [
          { "at_seconds" => 9, "what" => "call", "value" => "heat" },
          { "at_seconds" => 3, "what" => "call", "value" => "off" }
        ]
      },
      "/script/moves/1/at_seconds"
    ],
    [
      "time before the beginning",
      { "moves" => [{ "at_seconds" => -1, "what" => "call", "value" => "heat" }] },
      "/script/moves/0/at_seconds"
    ],
    [
      "a kind that is none",
      { "moves" => [{ "at_seconds" => 0, "what" => "kick", "value" => "hard" }] },
      "/script/moves/0/what"
    ],
    [
      "a call that is none",
      { "moves" => [{ "at_seconds" => 0, "what" => "call", "value" => "warm" }] },
      "/script/moves/0/value"
    ],
    [
      "a bridge in between",
      { "moves" => [{ "at_seconds" => 0, "what" => "bridge", "value" => "half" }] },
      "/script/moves/0/value"
    ],
    [
      "a supply that is none",
      { "moves" => [{ "at_seconds" => 0, "what" => "supply", "of" => "roof", "value" => "on" }] },
      "/script/moves/0/of"
    ],
    [
      "a jumper with one end",
      { "moves" => [{ "at_seconds" => 0, "what" => "jumper", "of" => ["outdoor.R"], "value" => "on" }] },
      "/script/moves/0/of"
    ],
    [
      "a fault that is no object",
      { "moves" => [{ "at_seconds" => 0, "what" => "fault", "of" => "open", "value" => "begins" }] },
      "/script/moves/0/of"
    ],
    [
      "a temperature of the sun",
      { "moves" => [{ "at_seconds" => 0, "what" => "coil", "value" => 9000 }] },
      "/script/moves/0/value"
    ],
    [
      "a length of less than nothing",
      { "moves" => [{ "at_seconds" => 0, "what" => "coil", "value" => 20, "over_seconds" => -4 }] },
      "/script/moves/0/over_seconds"
    ],
    ["moves that are no list", { "moves" => {} }, "/script/moves"],
    ["a beginning that nobody knows", { "start" => { "mood" => 1 } }, "/script/start/mood"],
    ["a mode that is none", { "start" => { "mode" => "party" } }, "/script/start/mode"],
    ["a count of weeks", { "start" => { "defrost_counted_minutes" => 9000 } }, "/script/start/defrost_counted_minutes"],
    ["another word", { "weather" => [] }, "/script/weather"]
  ].each do |what, given, field|
    it "refuses #{what} at #{field}" do
      expect { described_class.parse(given, 100.0) }.to raise_error(Gorvant::BadScript) { |error|
        expect(error.field).to eq(field)
      }
    end
  end

  [0, -5, 48 * 3601, nil, "long", Float::NAN].each do |seconds|
    it "refuses a run of #{seconds.inspect} seconds" do
      expect { described_class.parse({}, seconds) }.to raise_error(Gorvant::BadScript) { |error|
        expect(error.field).to eq("/duration_seconds")
      }
    end
  end
end
