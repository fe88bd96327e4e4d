# frozen_string_literal: true

require_relative "../../support/core"

# The true reason, as a technician would give it: which link, whose fault, and when there is none.
RSpec.describe Gorvant::Trace do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Why", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def load(rig, call, code, **condition) = trace(call, on: rig, **condition).load_state(code)

  # [what, facts, call, load, condition, missing link or nil, as designed, words of the chain]
  [
    ["strips with no call for them", {}, "heat", "HTR", {}, nil, true, /W2|not called|aux/i],
    [
      "strips held off by a warm day",
      { outdoor_thermostat: true },
      "heat_aux",
      "HTR",
      { outdoor_degrees_f: 60 },
      "ODT",
      true,
      /ODT|outdoor thermostat/
    ],
    [
      "strips with their limit open",
      {},
      "heat_aux",
      "HTR",
      { switches: { "LIM" => "open" } },
      "LIM",
      false,
      /LIM|limit/
    ],
    ["the compressor with a safety open", {}, "heat", "COMP", { switches: { "HPS" => "open" } }, "HPS", false, /HPS/],
    [
      "the compressor in a hold",
      { y_path: "delay" },
      "heat",
      "COMP",
      { board: { "hold" => true } },
      nil,
      true,
      /hold|board/
    ],
    [
      "the compressor locked out",
      { y_path: "delay" },
      "heat",
      "COMP",
      { board: { "lockout" => true } },
      nil,
      false,
      /lock/
    ],
    ["the compressor beside gas", { backup: "gas" }, "heat_aux", "COMP", {}, nil, true, /Y|gas/],
    ["the compressor in emergency", {}, "emergency", "COMP", {}, nil, true, /this call leaves Y/],
    ["the outdoor fan in a defrost", {}, "defrost", "OFM", {}, nil, true, /DFR|defrost/],
    ["the valve of an O type in heating", {}, "heat", "RVS", {}, nil, true, /O/],
    [
      "the valve of an O type set up as B",
      { changeover_terminal: "single", changeover_setup: "B" },
      "cool",
      "RVS",
      {},
      nil,
      false,
      /O|set|B/
    ],
    [
      "the valve of a B type set up as O",
      { changeover: "B", changeover_terminal: "single", changeover_setup: "O" },
      "heat",
      "RVS",
      {},
      nil,
      false,
      /O|set|B/
    ],
    [
      "all of it with the air handler's supply off",
      {},
      "heat",
      "BLOWER",
      { supplies: { "air_handler" => false } },
      nil,
      false,
      /supply|off/
    ]
  ].each do |what, facts, call, code, condition, missing, designed, words|
    it "explains #{what}: #{designed ? "as designed" : "not as designed"}#{", #{missing}" if missing}" do
      found = load(rig_with(**facts), call, code, **condition)
      expect(found).to have_attributes(on: false, as_designed: designed)
      expect(found.missing).to eq(missing) if missing
      expect(found.chain.join(" ")).to match(words)
    end
  end

  it "names no open contact that no call opens, and leads a dead coil back to its own reason" do
    chain = load(rig_with, "heat", "OFM", switches: { "LPS" => "open" }).chain
    expect(chain.join(" ")).to match(/CC|contactor/).and include("LPS")
    expect(chain.join(" ")).not_to include("left open by this call")
  end

  it "stays silent of faults where everything that is called runs" do
    Gorvant::Outputs
      .calls(rig_with(contactor_poles: 2))
      .each do |call|
        one = trace(call, on: rig_with(contactor_poles: 2))
        expect([call, one.findings.map(&:code), one.loads.reject(&:on).reject(&:as_designed).map(&:code)]).to eq(
          [call, [], []]
        )
      end
  end

  describe Gorvant::Advice do
    # [changeover, call, points, volts, words or nil]
    [
      ["O", "heat", %w[outdoor.O outdoor.C], 24.4, /defrost is running.*fan.*W2/m],
      ["O", "heat", %w[outdoor.C outdoor.O], 24.4, /defrost is running/],
      ["O", "heat", %w[outdoor.O outdoor.C], 0.1, nil],
      ["O", "cool", %w[outdoor.O outdoor.C], 0.1, nil],
      ["O", "heat", %w[outdoor.Y outdoor.C], 0.1, nil],
      ["B", "heat", %w[outdoor.RVS.1 outdoor.RVS.2], 0.1, nil],
      ["O", "defrost", %w[outdoor.O outdoor.C], 0.1, nil]
    ].each do |changeover, call, (first, second), volts, words|
      it "says #{words ? words.source[0, 20] : "nothing"} of #{volts} V from #{first} to #{second} in #{call} on a type #{changeover}" do
        one = trace(call, on: rig_with(changeover: changeover))
        judgement = Gorvant::Agreement.judge(one.reading(first, second).first, volts)
        said = described_class.on(one, first, second, judgement)
        words ? expect(said).to(match(words)) : expect(said).to(be_nil)
      end
    end
  end

  describe "where two supplies meet" do
    it "reads nothing that can be told between points of two transformers that nothing ties, and a sum where ground does" do
      apart = trace("heat", on: rig_with(backup: "gas", c_bonded: "no"))
      ground = Gorvant::Assembly::GROUND
      expect(apart.reading("outdoor.CC.L1", "outdoor.Y").first.klass).to eq("undetermined")
      tied = trace("heat", on: rig_with(c_bonded: "yes"))
      expected = tied.reading("outdoor.CC.L1", "outdoor.Y").first
      expect(expected.klass).not_to eq("undetermined")
      expect(expected.low_volts_ac).to be < expected.volts_ac
      spread =
        %w[outdoor.CC.L1 outdoor.Y].sum do |node|
          tied
            .reading(node, node == "outdoor.Y" ? "outdoor.C" : ground)
            .first
            .then { |one| (one.high_volts_ac - one.low_volts_ac) / 2 }
        end
      expect((expected.high_volts_ac - expected.low_volts_ac) / 2).to be_within(2.0).of(spread)
    end
  end

  describe Gorvant::Agreement do
    it "takes a dead short of nothing for nothing, and asks for no second look at 0 V" do
      zero = trace("heat", on: rig_with).reading("outdoor.board.T1", "outdoor.CC.1").first
      judged = described_class.judge(zero, 0.0)
      expect([judged.verdict, judged.near_edge]).to eq(["agrees", false])
      edges =
        Gorvant::Catalogue
          .profile
          .fetch("reading_classes")
          .values
          .flat_map { |one| one.values_at("low", "high") }
          .select(&:positive?)
      expect(edges.map { |edge| described_class.judge(zero, edge).near_edge }).to all(be(true))
    end

    it "is symmetric in the probes, in every call and for every pair along a loop" do
      Gorvant::Outputs
        .calls(rig_with)
        .each do |call|
          one = trace(call, on: rig_with)
          %w[outdoor.R outdoor.Y outdoor.O outdoor.W2_out air_handler.W wall.Y outdoor.C].combination(
            2
          ) do |first, second|
            there, back = one.reading(first, second).first, one.reading(second, first).first
            expect([there.klass, there.volts_ac&.round(9)]).to eq([back.klass, back.volts_ac&.round(9)])
          end
        end
    end
  end
end
