# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/random_rigs"

# A condition goes out and comes in as it was, stands for one circuit whatever its order, and what it supposes it
# supposes alone.
RSpec.describe Gorvant::Condition do
  (1..40).each do |seed|
    it "comes back from JSON as it went, and solves the same (seed #{seed})" do
      rig, condition = RandomRigs.case(seed)
      back = described_class.parse(JSON.parse(JSON.generate(condition.to_json_hash)))
      expect(back).to eq(condition)
      one, two = [condition, back].map { |given| Gorvant::Trace.new(rig, given) }
      expect(two.loads.map { |load| [load.code, load.on] }).to eq(one.loads.map { |load| [load.code, load.on] })
    end
  end

  it "has the same circuit whatever the order in which its faults were typed" do
    rig = rig("boathouse_north")
    faults = [
      { "kind" => "open", "at" => "cable_b.blue" },
      { "kind" => "stuck_closed", "at" => "DFR.fan" },
      { "kind" => "high_resistance", "at" => "cable_a.yellow@wall" }
    ]
    readings =
      faults.permutation.map do |order|
        one = trace("heat", on: rig, faults: order)
        %w[outdoor.Y outdoor.R outdoor.CC.1].map { |node| one.reading(node, "outdoor.C").first.volts_ac&.round(9) }
      end
    expect(readings.uniq.size).to eq(1)
  end

  # [what is wrong, given, field]
  [
    ["a call that is none", { "call" => "warm" }, "/condition/call"],
    ["a switch of another world", { "switches" => { "XYZ" => "open" } }, "/condition/switches/XYZ"],
    ["a half-open switch", { "switches" => { "HPS" => "ajar" } }, "/condition/switches/HPS"],
    ["a supply that is none", { "supplies" => { "roof" => true } }, "/condition/supplies/roof"],
    ["a supply that is neither on nor off", { "supplies" => { "outdoor" => "no" } }, "/condition/supplies/outdoor"],
    ["faults that are no list", { "faults" => {} }, "/condition/faults"],
    ["a fault that is no object", { "faults" => ["open"] }, "/condition/faults/0"],
    ["too many faults", { "faults" => [{}] * 81 }, "/condition/faults"],
    ["a board in no state", { "board" => { "mood" => true } }, "/condition/board/mood"],
    ["outputs that are no list", { "outputs" => "Y" }, "/condition/outputs"],
    ["a contact in between", { "contacts" => { "CC.1" => "half" } }, "/condition/contacts/CC.1"],
    ["a field that nobody knows", { "weather" => "mild" }, "/condition/weather"]
  ].each do |what, given, field|
    it "refuses #{what} at #{field}, and says what would be right" do
      expect { described_class.parse(given) }.to raise_error(Gorvant::BadCondition) { |error|
        expect([error.field, error.message]).to match([field, match(/has to|known|unknown|at most|no switch/)])
      }
    end
  end

  it "refuses outputs that this thermostat has not, and contacts that this rig has not" do
    expect { trace("off", outputs: ["Y9"]) }.to raise_error(Gorvant::BadCondition, /no Y9; it has/)
    expect { trace("off", contacts: { "ZZ.1" => "open" }) }.to raise_error(
      Gorvant::BadCondition,
      /no contact of this rig/
    )
    expect(trace("off", outputs: %w[Y G]).load_state("COMP").on).to be(true)
  end
end
