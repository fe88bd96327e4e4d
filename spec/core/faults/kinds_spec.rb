# frozen_string_literal: true

require_relative "../../support/core"

# Every kind of fault: what it does to the circuit, what it refuses, and that nothing else changes.
RSpec.describe Gorvant::Fault do
  facts = { **Bench::APART, valve_volts: "low" }.transform_keys(&:to_s)
  let(:strips) { Gorvant::Composer.compose(name: "Faults", facts: facts) }
  let(:sensors) do
    Gorvant::Composer.compose(
      name: "Faults",
      facts: facts.merge("board_family" => "larch", "defrost_clock" => "demand")
    )
  end

  def on?(rig, call, code, *faults) = trace(call, on: rig, faults: faults).load_state(code).on
  def klass(rig, call, first, second, *faults) = trace(call, on: rig, faults: faults).reading(first, second).first.klass

  # kind => [fault, [call, load that was on and is off, or the other way round]] ; a nil load: told in words alone.
  table = {
    "open" => [{ "at" => "cable_b.yellow" }, ["heat", "COMP", true, false]],
    "lifted" => [{ "at" => "cable_b.yellow@outdoor" }, ["heat", "COMP", true, false]],
    "high_resistance" => [{ "at" => "cable_b.yellow@outdoor", "ohms" => 400 }, ["heat", "COMP", true, false]],
    "short" => [{ "at" => %w[outdoor.R outdoor.Y] }, ["off", "COMP", false, true]],
    "to_ground" => [{ "at" => "outdoor.Y" }, ["heat", "COMP", true, true]], # where nobody bonded C, the unit runs on
    "swapped" => [{ "at" => %w[cable_b.yellow@outdoor cable_b.orange@outdoor] }, ["heat", "RVS", false, true]],
    "landed" => [{ "at" => "cable_a.yellow@wall", "to" => "wall.G" }, ["fan", "COMP", false, true]],
    "stuck_open" => [{ "at" => "HPS" }, ["heat", "COMP", true, false]],
    "stuck_closed" => [{ "at" => "DFR.valve" }, ["heat", "RVS", false, true]],
    "coil_shorted" => [{ "at" => "CC" }, ["heat", "BLOWER", true, false]],
    "transformer_weak" => [{ "at" => "TRAN" }, ["defrost", "COMP", true, true]], # it sags, see below
    "set_up" => [{ "at" => "system_setup", "value" => "conventional" }, ["heat", "HTR", false, true]],
    "jumper" => [{ "at" => %w[air_handler.R air_handler.G] }, ["off", "BLOWER", false, true]],
    "extra" => [{ "at" => %w[air_handler.R air_handler.W] }, ["off", "HTR", false, true]],
    "valve_stuck" => [{ "at" => "RVS" }, nil],
    "valve_leaking" => [{ "at" => "RVS" }, nil],
    "not_pumping" => [{ "at" => "COMP" }, nil],
    "motor_dead" => [{ "at" => "OFM" }, nil],
    "sensor_open" => [{ "at" => "COIL_T" }, nil],
    "sensor_shorted" => [{ "at" => "AMB_T" }, nil],
    "sensor_drifted" => [{ "at" => "COIL_T", "by_degrees_f" => 8 }, nil],
    "sensor_in_sun" => [{ "at" => "AMB_T" }, nil],
    "sensors_swapped" => [{ "at" => "COIL_T" }, nil]
  }

  table.each do |kind, (given, shows)|
    it "#{kind} #{shows ? "turns #{shows[1]} #{shows[3] ? "on" : "off"} in #{shows[0]}" : "shows in no voltage, and is told with its proof"}" do
      rig = kind.start_with?("sensor") ? sensors : strips
      fault = given.merge("kind" => kind)
      if shows
        call, load, before, after = shows
        expect([on?(rig, call, load), on?(rig, call, load, fault)]).to eq([before, after])
      else
        healthy, sick = [[], [fault]].map { |faults| trace("heat", on: rig, faults: faults) }
        nodes = healthy.netlist.sections.flat_map(&:nodes)
        expect(
          nodes.reject do |node|
            healthy.solution.floating?(node) || (healthy.solution.volts[node] - sick.solution.volts[node]).abs < 1e-9
          end
        ).to eq([])
        told = sick.findings.find { |finding| finding.code == "mechanical" }
        expect([told.says, told.next_step].join).to include(Gorvant::Catalogue.faults.fetch(kind)["proof"][0, 20])
      end
    end
  end

  it "has all kinds above, each with how it shows and how it is proved" do
    expect(table.keys).to match_array(described_class.registry.keys)
    expect(Gorvant::Catalogue.faults.values).to all(include("is", "shows", "proof", "prior"))
  end

  # [what is wrong, fault, field]
  [
    ["an unknown kind", { "kind" => "tired", "at" => "CC" }, "kind"],
    ["an unknown place", { "kind" => "open", "at" => "CCC" }, "at"],
    ["a wire that is stuck", { "kind" => "stuck_open", "at" => "cable_a.yellow" }, "at"],
    ["a bad joint in a coil", { "kind" => "high_resistance", "at" => "CC" }, "at"],
    ["a short of one point", { "kind" => "short", "at" => %w[outdoor.R outdoor.R] }, "at"],
    ["low to line voltage", { "kind" => "short", "at" => %w[outdoor.CC.L1 outdoor.Y] }, "at"],
    ["a swap of what is no joint", { "kind" => "swapped", "at" => %w[cable_b.yellow cable_b.orange] }, "at"],
    ["a swap with itself", { "kind" => "swapped", "at" => %w[cable_b.yellow@outdoor cable_b.yellow@outdoor] }, "at"],
    ["a landing where it lands already", { "kind" => "landed", "at" => "cable_a.yellow@wall", "to" => "wall.Y" }, "to"],
    ["a setting that is none", { "kind" => "set_up", "at" => "changeover", "value" => "B" }, "at"],
    ["a value that is none", { "kind" => "set_up", "at" => "system_setup", "value" => "steam" }, "value"],
    ["thermistors that are not there", { "kind" => "sensor_open", "at" => "COIL_T" }, "at"],
    ["ohms out of all reason", { "kind" => "high_resistance", "at" => "cable_b.yellow@outdoor", "ohms" => -1 }, "ohms"]
  ].each do |what, given, field|
    it "refuses #{what} by its field" do
      expect { trace("heat", on: strips, faults: [given]) }.to raise_error(Gorvant::BadCondition) { |error|
        expect(error.field).to end_with("/#{field}")
      }
    end
  end

  it "blows the fuse by a conductor on the chassis where C is bonded, and only there" do
    touching = { "kind" => "to_ground", "at" => "outdoor.Y" }
    blown =
      %w[yes no unknown].map do |bonded|
        trace("heat", on: strips.set("c_bonded" => bonded), faults: [touching]).findings.any? do |finding|
          finding.code == "fuse_blown"
        end
      end
    expect(blown).to eq([true, false, false])
  end

  it "sags R to C under load by a weak transformer, and hardly at all without" do
    weak = { "kind" => "transformer_weak", "at" => "TRAN" }
    lost =
      %w[off defrost].map do |call|
        [[], [weak]].map { |faults| volts(trace(call, on: strips, faults: faults), "air_handler.R", "air_handler.C") }
          .reduce(:-)
      end
    expect(lost[0]).to be < 1.0
    expect(lost[1]).to be > 2.0
  end

  describe Gorvant::Faults::Library do
    it "holds everything that could read the same: each parses, none twice, and shorts of any two that share a cable or a box" do
      all = described_class.everything(strips)
      expect(all.uniq.size).to eq(all.size)
      all.each do |given|
        Gorvant::Fault.parse(given).then { |fault| fault.inject(Gorvant::Assembly.netlist(fault.refit(strips)), {}) }
      end
      shorts = all.select { |given| given["kind"] == "short" }.map { |given| given["at"].sort }
      expect(shorts).to include(%w[outdoor.O outdoor.R].sort, %w[wall.G wall.W2].sort)
      expect(all.map { |given| given["kind"] }.uniq).to include(
        "landed",
        "lifted",
        "swapped",
        "set_up",
        "to_ground",
        "transformer_weak"
      )
    end

    it "knows the faults of sensors only where sensors are" do
      kinds = ->(rig) { described_class.of(rig).map { |given| given["kind"] }.grep(/sensor/).uniq }
      expect(kinds.call(strips)).to eq([])
      expect(kinds.call(sensors)).to match_array(
        %w[sensor_open sensor_shorted sensor_drifted sensor_in_sun sensors_swapped]
      )
    end
  end
end
