# frozen_string_literal: true

require_relative "../../support/core"

# A drawing of a defrost shows a moment of a run, and every contact stands where the run has it.
RSpec.describe Gorvant::Moments do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Moments", facts: Bench::APART.merge(facts).transform_keys(&:to_s))

  [ # facts => the moments that this board has
    [{}, %w[natural forced_jumper]],
    [{ air_pressure_switch: true }, %w[natural forced_jumper]],
    [{ forced_entry: "held_pins" }, %w[natural forced_pins]],
    [{ forced_entry: "none" }, %w[natural]],
    [{ defrost_clock: "free" }, %w[natural forced_jumper]],
    [{ board_family: "larch", defrost_clock: "demand", forced_entry: "held_pins" }, %w[natural forced_pins]]
  ].each do |facts, moments|
    it "has #{moments.join(", ")} on #{facts}, each really in defrost" do
      rig = rig_with(**facts)
      found = described_class.of(rig)
      expect(found.keys).to eq(moments)
      found.each_value do |condition|
        trace = Gorvant::Trace.new(rig, condition)
        expect(
          [condition.call, trace.load_state("RVS").on, trace.load_state("OFM").on, trace.load_state("HTR").on]
        ).to eq(["defrost", true, false, true])
      end
    end
  end

  # calls.yml says where the switches stand while a natural defrost lasts; the run says it too, in its own way.
  it "has the switches of a natural defrost where the table of calls puts them" do
    rig = rig_with(air_pressure_switch: true)
    run = described_class.of(rig).fetch("natural")
    table = Gorvant::Catalogue.calls.fetch("defrost").fetch("switches")
    expect(run.switches.slice(*table.keys)).to eq(table)
  end

  it "shows the coil switch unplugged and its pins jumpered in the forced one" do
    forced = Gorvant::Trace.new(rig_with, described_class.of(rig_with).fetch("forced_jumper"))
    expect(forced.fault_titles.join).to include("DFT")
    expect(forced.reading("outdoor.board.DFT_1", "outdoor.board.DFT_2").first.klass).to eq("about_0")
  end
end
