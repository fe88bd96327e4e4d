# frozen_string_literal: true

require_relative "../../support/core"

# Switches and balance points follow the weather that a visit knows, and a lone temperature tells nothing between two
# points.
RSpec.describe Gorvant::Assembly::Positions do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Weather", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def condition(call = "heat", **more) = Gorvant::Condition.parse(more.transform_keys(&:to_s).merge("call" => call))
  def stands(rig, call = "heat", **more) =
    described_class.stands(rig, condition(call, **more)).to_h { |stand| [stand.code, stand.state] }

  describe Gorvant::Hysteresis do
    let(:coil) { described_class.new(closes_degrees_f: 30, opens_degrees_f: 60) }

    {
      29.9 => "closed",
      30 => "closed",
      30.1 => "undetermined",
      59.9 => "undetermined",
      60 => "open",
      75 => "open"
    }.each { |degrees, state| it("is #{state} at #{degrees} °F") { expect(coil.at(degrees)).to eq(state) } }

    it "holds the points themselves for not yet reached where the profile says so" do
      strict = coil.with(inclusive: false)
      expect([30, 29.9, 60, 60.1].map { |degrees| strict.at(degrees) }).to eq(%w[undetermined closed undetermined open])
    end
  end

  describe "an outdoor thermostat marked 40" do
    let(:rig) { rig_with(outdoor_thermostat: true, outdoor_thermostat_closes_degrees_f: 40) }

    it "closes by its marking, opens above its differential, and is undetermined between" do
      opens = Gorvant::Hysteresis.outdoor_thermostat(rig).opens_degrees_f
      expect(opens).to be > 40
      found = [39, 40, (40 + opens) / 2.0, opens, 60].map { |degrees| stands(rig, outdoor_degrees_f: degrees)["ODT"] }
      expect(found).to eq(%w[closed closed undetermined open open])
    end

    it "says nothing without a temperature, or where somebody supposes otherwise" do
      expect(stands(rig)).to eq({})
      expect(stands(rig, outdoor_degrees_f: 60, switches: { "ODT" => "closed" })).to eq({})
      expect(stands(rig_with, outdoor_degrees_f: 60)).to eq({})
    end

    it "keeps the strips out on a warm day, names itself, and gives way to a supposition" do
      warm = trace("heat_aux", on: rig, outdoor_degrees_f: 60)
      strips = warm.load_state("HTR")
      expect(strips).to have_attributes(on: false, missing: "ODT", as_designed: true)
      expect(strips.chain.join).not_to match(/\bE is not called/)
      expect(warm.reading("air_handler.W", "air_handler.C").first.klass).to eq("about_0")
      expect(
        trace("heat_aux", on: rig, outdoor_degrees_f: 60, switches: { "ODT" => "closed" }).load_state("HTR").on
      ).to be(true)
      expect(trace("heat_aux", on: rig, outdoor_degrees_f: 20).load_state("HTR").on).to be(true)
    end

    it "lets either reading be right near its setting, and only there" do
      near = trace("heat_aux", on: rig, outdoor_degrees_f: 41)
      expected, reason = near.reading("air_handler.W", "air_handler.C")
      expect(expected.alternatives.map(&:klass)).to match_array(%w[about_0 about_24])
      expect(reason).to have_attributes(key: "either", says: include("ODT"))
      # Either reading fits, and so proves neither; one that fits none is wrong.
      expect([0.2, 25.0, 12.0].map { |volts| Gorvant::Agreement.judge(expected, volts).verdict }).to eq(
        %w[undetermined undetermined disagrees]
      )
      expect(near.reading("air_handler.Y", "air_handler.C").first.alternatives).to be_empty
      expect(
        trace("heat_aux", on: rig, outdoor_degrees_f: 60).reading("air_handler.W", "air_handler.C").first.alternatives
      ).to be_empty
    end
  end

  describe "the coil switch" do
    let(:rig) { rig_with(coil_switch_closes_degrees_f: 30, coil_switch_opens_degrees_f: 60, air_pressure_switch: true) }

    it "follows the coil and never the air" do
      expect(stands(rig, outdoor_degrees_f: 20)).to eq({})
      expect([25, 45, 70].map { |degrees| stands(rig, coil_degrees_f: degrees)["DFT"] }).to eq(
        %w[closed undetermined open]
      )
    end

    it "stands closed in a defrost that began by itself, whatever the coil was before; forced, as the hand has it" do
      expect(stands(rig, "defrost", coil_degrees_f: 70)).to include("DFT" => "closed", "APS" => "closed")
      expect(stands(rig, "defrost", moment: "forced_pins")).to eq({})
    end

    it "feeds the switch's pins, so that the healthy reading of a defrost is no fault" do
      natural = trace("defrost", on: rig)
      expect(natural.findings.map(&:code) - %w[contactor_unread]).to eq([])
      expect(natural.reading("outdoor.board.DFT_1", "outdoor.board.DFT_2").first.klass).to eq("about_0")
    end
  end

  it "refuses a temperature that is none, by its field" do
    ["warm", 1e9, [30], true].each do |bad|
      expect { condition(outdoor_degrees_f: bad) }.to raise_error(
        Gorvant::BadCondition,
        /outdoor_degrees_f.*-80 to 250/
      )
    end
    expect { condition("defrost", moment: "later") }.to raise_error(Gorvant::BadCondition, /moment.*natural/)
  end

  describe Gorvant::Balance do
    def rig_between(compressor, auxiliary, **more)
      rig_with(
        outdoor_sensor: true,
        balance_points: true,
        compressor_balance_degrees_f: compressor,
        auxiliary_balance_degrees_f: auxiliary,
        **more
      )
    end

    # [compressor's point, auxiliary's, outdoors] => [compressor, auxiliary, neither]
    {
      [35, 50, 34] => [false, true, false],
      [35, 50, 35] => [true, true, false],
      [35, 50, 50] => [true, true, false],
      [35, 50, 51] => [true, false, false],
      [52, 46, 46] => [false, true, false],
      [52, 46, 47] => [false, false, true],
      [52, 46, 51.9] => [false, false, true],
      [52, 46, 52] => [true, false, false]
    }.each do |(low, high, outdoor), expected|
      it "lets through #{expected.first(2)} at #{outdoor} °F with points #{low} and #{high}" do
        rig = rig_between(low, high)
        expect(
          [
            described_class.compressor?(rig, outdoor),
            described_class.auxiliary?(rig, outdoor),
            described_class.nothing?(rig, outdoor)
          ]
        ).to eq(expected)
      end
    end

    it "does nothing without the sensor it needs, and none for the compressor while switched off for a test" do
      expect(described_class.compressor?(rig_with(balance_points: true, compressor_balance_degrees_f: 60), 0)).to be(
        true
      )
      expect(described_class.compressor?(rig_between(60, 70, compressor_lockout: "off_for_test"), 0)).to be(true)
    end

    it "is never told as designed where neither source may heat, and is where one does" do
      crossed = trace("heat_aux", on: rig_between(52, 46), outdoor_degrees_f: 49)
      expect(%w[COMP HTR].map { |code| crossed.load_state(code) }).to all(
        have_attributes(on: false, as_designed: false)
      )
      sound = trace("heat_aux", on: rig_between(35, 50), outdoor_degrees_f: 30)
      expect(sound.load_state("COMP")).to have_attributes(on: false, as_designed: true)
      expect(sound.load_state("HTR").on).to be(true)
    end
  end
end
