# frozen_string_literal: true

require_relative "../../../support/core"

# Two delays of one start: which counts from what, whether they add or overlap, and what nobody read.
RSpec.describe Gorvant::SettingsCheck do
  def rig_with(**facts)
    read = facts.slice(:board_hold_seconds, :thermostat_minimum_off_seconds).transform_keys(&:to_s)
    usual =
      Gorvant::Composer.compose(
        name: "Holds",
        facts: { **Bench::APART, y_path: "delay", hold_on_power: false }.merge(facts).transform_keys(&:to_s)
      )
    read.key?("board_hold_seconds") ? usual.set(read, "measured") : usual
  end

  def holds(rig) =
    described_class
      .new(rig, Gorvant::AsFound.parse({}, rig), set_point_degrees_f: 70.0)
      .findings
      .find { |finding| finding.code == "two_holds" }
      &.says

  # Seconds from a stop, with the call back after five seconds, until the contactor is in again.
  def again(rig)
    moves =
      [[5, "heat"], [600, "off"], [605, "heat"]].map do |at, call|
        { "at_seconds" => at, "what" => "call", "value" => call }
      end
    timeline =
      Gorvant::Run.of(
        rig,
        Gorvant::Script.parse({ "start" => { "outdoor_degrees_f" => 40.0 }, "moves" => moves }, 2400.0)
      )
    timeline.signal("CC").steps.find { |at, on| on && at > 600 }[0] - 600
  end

  # [thermostat's, board's, counted from, seconds, words]
  [
    [240, 180, "on_break", 240, %w[4:00 3:00 overlap]],
    [120, 300, "on_break", 300, %w[2:00 5:00 overlap]],
    [240, 180, "on_make", 420, %w[4:00 3:00 7:00]],
    [240, 300, "on_make", 540, %w[4:00 5:00 9:00]],
    [300, 300, "on_break", 300, %w[5:00 overlap]]
  ].each do |wall, board, kind, seconds, words|
    it "waits #{seconds} s with #{wall} s at the wall and #{board} s at the board, #{kind.tr("_", " ")}, and shows both" do
      rig = rig_with(thermostat_minimum_off_seconds: wall, board_hold_seconds: board, board_hold_kind: kind)
      expect(again(rig)).to be_within(2).of(seconds)
      expect(holds(rig)).to include(*words)
      expect(holds(rig)).not_to include("between")
    end
  end

  it "says between what it lies where nobody read the board's hold, and what the profile's ends come to" do
    low, high = Gorvant::Catalogue.profile.dig("sequence", "hold_unread_seconds")
    expect([low, high]).to eq([180, 300])
    expect(holds(rig_with(thermostat_minimum_off_seconds: 240))).to match(/3:00 to 5:00.*between 4:00 and 5:00/)
    expect(holds(rig_with(thermostat_minimum_off_seconds: 240, board_hold_kind: "on_make"))).to include(
      "between 7:00 and 9:00"
    )
    expect(holds(rig_with(thermostat_minimum_off_seconds: 300))).not_to include("between")
  end

  it "speaks of two holds only where there are two" do
    expect(holds(rig_with(thermostat_minimum_off_seconds: 0, board_hold_seconds: 180))).to be_nil
    plain = Gorvant::Composer.compose(name: "Plain", facts: Bench::APART.transform_keys(&:to_s))
    expect(holds(plain)).to be_nil
    expect(again(plain)).to be_within(2).of(plain[:thermostat_minimum_off_seconds])
  end

  it "counts a hold on make from the arrival of Y and not from any stop, also at the first start" do
    rig = rig_with(thermostat_minimum_off_seconds: 0, board_hold_seconds: 180, board_hold_kind: "on_make")
    moves = [{ "at_seconds" => 50, "what" => "call", "value" => "heat" }]
    timeline =
      Gorvant::Run.of(
        rig,
        Gorvant::Script.parse({ "start" => { "outdoor_degrees_f" => 40.0 }, "moves" => moves }, 600.0)
      )
    expect(timeline.signal("CC").steps.find { |_at, on| on }[0]).to be_within(1).of(230)
    chain = Gorvant::Chain.new(timeline, "CC", 100)
    expect([chain.as_designed?, chain.links.map(&:rule_says).compact.join]).to match([true, include("arrival of Y")])
  end
end
