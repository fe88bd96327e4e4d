# frozen_string_literal: true

require_relative "../../support/fed_by_hand"

# The thermostat alone, fed by hand: what it joins to R, when it will do otherwise, and why.
RSpec.describe Gorvant::ThermostatController do
  def wall(**facts)
    usual = { **Bench::APART, thermostat_minimum_off_seconds: 240, compressor_stages: 2, stage_2: "solenoid" }
    FedByHand.new(
      described_class.new(Gorvant::Composer.compose(name: "Wall", facts: usual.merge(facts).transform_keys(&:to_s)))
    )
  end

  def by_hand(one, at, call, mode: nil) = one.at(at, inputs: { call: call, mode: mode }, room: 68, outdoor: 40)
  def by_room(one, at, room, mode: "heat", set: 70, outdoor: 40) =
    one.at(at, inputs: { call: nil, mode: mode, set_point: set }, room: room, outdoor: outdoor)
  def live(one) = one.out("outputs")

  # call => terminals of an O type with O and B apart, two stages, strips
  {
    "off" => [],
    "fan" => %w[G],
    "cool" => %w[G O Y],
    "cool_2" => %w[G O Y Y2],
    "heat" => %w[B G Y],
    "heat_2" => %w[B G Y Y2],
    "heat_aux" => %w[B G W2 Y],
    "emergency" => %w[E G]
  }.each do |call, terminals|
    it "joins #{terminals.join(", ").then { |list| list.empty? ? "nothing" : list }} in #{call}, once the valve has been told" do
      one = wall(thermostat_minimum_off_seconds: 0)
      by_hand(one, 0, "off")
      by_hand(one, 10, call)
      by_hand(one, 20, call)
      expect(live(one)).to match_array(terminals)
    end
  end

  it "keeps the compressor out for its minimum-off from its own stop, wakes then, and keeps G" do
    one = wall
    by_hand(one, 0, "heat")
    by_hand(one, 100, "off")
    by_hand(one, 150, "heat")
    expect([live(one), one.why("THERMOSTAT.Y"), one.until_seconds("THERMOSTAT.Y"), one.answer.wake_at]).to eq(
      [%w[B G], "minimum_off", 340.0, 340.0]
    )
    by_hand(one, 340, "heat")
    expect(live(one)).to include("Y")
  end

  # [stages of emergency, minutes it is kept at, how far the room is under its set point, terminals then]
  [
    [2, 4.9, 6, %w[E G]],
    [2, 5.1, 6, %w[E G W2]],
    [2, 60, 0.2, %w[E G]],
    [1, 60, 6, %w[E G]]
  ].each do |stages, minutes, short, terminals|
    it "joins #{terminals.join(", ")} #{minutes} min into an emergency of #{stages} stage(s), #{short} °F short" do
      one = wall(emergency_stages: stages, emergency_stage_minutes: 5)
      by_room(one, 0, 70 - short, mode: "emergency")
      by_room(one, 1, 70 - short, mode: "emergency")
      by_room(one, minutes * 60, 70 - short, mode: "emergency")
      expect(live(one)).to match_array(short < 1 ? [] : terminals)
    end
  end

  it "has no minimum-off for the strips, and none that outlasts a long stop" do
    one = wall
    by_hand(one, 0, "heat")
    by_hand(one, 100, "off")
    by_hand(one, 110, "emergency")
    expect(live(one)).to match_array(%w[E G])
    by_hand(one, 800, "heat")
    by_hand(one, 802, "heat")
    expect(live(one)).to include("Y")
  end

  it "calls by the room against its set point, and stops when it is reached" do
    one = wall(stage_1_error_degrees_f: 1)
    by_room(one, 0, 70)
    expect(one.out("call")).to eq("off")
    by_room(one, 10, 69)
    expect(one.out("call")).to eq("heat")
    by_room(one, 20, 69.5)
    expect(one.out("call")).to eq("heat")
    by_room(one, 30, 70)
    expect(one.out("call")).to eq("off")
  end

  it "cools the other way round, and does nothing with its mode off" do
    one = wall
    by_room(one, 0, 75, mode: "cool")
    expect(one.out("call")).to eq("cool")
    by_room(one, 10, 60, mode: "cool")
    expect(one.out("call")).to eq("off")
    by_room(one, 20, 40, mode: "off")
    expect(one.out("call")).to eq("off")
  end

  it "believes its own sensor, offset and all, and keeps to its set-point limits" do
    one = wall(sensor_offset_degrees_f: 3)
    by_room(one, 0, 68) # reads 71
    expect(one.out("call")).to eq("off")
    limited = wall(heat_limit_degrees_f: 65)
    by_room(limited, 0, 66, set: 80)
    expect(limited.out("call")).to eq("off")
    by_room(limited, 10, 63, set: 80)
    expect(limited.out("call")).to eq("heat")
  end

  it "keeps the changeover by call, by mode, or latched from one mode to the other" do
    after_cooling =
      %w[by_call by_mode latched].to_h do |school|
        one = wall(changeover_school: school)
        one.at(0, inputs: { call: "cool", mode: "cool" }, room: 75, outdoor: 80)
        one.at(10, inputs: { call: "off", mode: "cool" }, room: 75, outdoor: 80)
        in_mode = live(one)
        one.at(20, inputs: { call: "off", mode: "off" }, room: 75, outdoor: 80)
        [school, [in_mode, live(one)]]
      end
    expect(after_cooling).to eq("by_call" => [[], []], "by_mode" => [%w[O], []], "latched" => [%w[O], %w[O]])
  end

  it "says in so many words why no second stage is there yet" do
    one = wall(stage_delay_minutes: 10, stage_error_degrees_f: 1.5)
    by_room(one, 0, 66)
    by_room(one, 60, 66)
    expect([one.why("THERMOSTAT.Y2"), one.until_seconds("THERMOSTAT.Y2")]).to eq(["stage_delay", 600.0])
    by_room(one, 601, 69)
    expect(one.why("THERMOSTAT.Y2")).to eq("stage_error_small")
  end

  it "leaves the compressor out below its balance point and the aux above its own, each with its reason" do
    facts = {
      outdoor_sensor: true,
      balance_points: true,
      compressor_balance_degrees_f: 30,
      auxiliary_balance_degrees_f: 45,
      stage_delay_minutes: 0
    }
    cold = wall(**facts)
    by_room(cold, 0, 60, outdoor: 20)
    by_room(cold, 5, 60, outdoor: 20)
    expect([live(cold) & %w[Y W2], cold.why("THERMOSTAT.Y")]).to eq([%w[W2], "below_compressor_balance"])
    mild = wall(**facts)
    3.times { |i| by_room(mild, i * 5, 60, outdoor: 55) }
    expect([live(mild) & %w[Y W2], mild.why("THERMOSTAT.W2")]).to eq([%w[Y], "above_auxiliary_balance"])
  end
end
