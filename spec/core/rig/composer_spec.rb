# frozen_string_literal: true

require_relative "../../support/random_rigs"

RSpec.describe Gorvant::Composer do
  def compose(**facts) =
    described_class.compose(name: "Composed", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def fact(value) = Gorvant::Fact.new(value: value, provenance: Gorvant::Provenance.new(source: "told"))
  def ways(rig, cable) =
    rig.cables.find { |one| one.id == cable }.conductors.map { |conductor| "#{conductor.from}-#{conductor.to}" }

  # [answers, conductors wall–air handler, conductors air handler–outdoor, jumpers]
  {
    "an O type with strips" => [{}, %w[R-R C-C Y-Y G-G O-O W2-W], %w[R-R C-C Y-Y O-O W-W2_out], ["aux_e"]],
    "a B type without backup" => [
      { changeover: "B", backup: "none" },
      %w[R-R C-C Y-Y G-G B-B],
      %w[R-R C-C Y-Y B-B],
      []
    ],
    "two stages and one O/B terminal" => [
      { compressor_stages: 2, changeover_terminal: "single" },
      %w[R-R C-C Y-Y Y2-Y2 G-G OB-O W2-W],
      %w[R-R C-C Y-Y Y2-Y2 O-O W-W2_out],
      ["aux_e"]
    ],
    "an outdoor thermostat" => [
      { outdoor_thermostat: true },
      %w[R-R C-C Y-Y G-G O-O W2-W2 E-W],
      %w[R-R C-C Y-Y O-O W2-W2 W-W2_out],
      []
    ],
    "two conductors and a jumper left in" => [
      { emergency_path: "both" },
      %w[R-R C-C Y-Y G-G O-O W2-W E-W],
      %w[R-R C-C Y-Y O-O W-W2_out],
      ["aux_e"]
    ],
    "W2 out not run" => [{ w2_out_run: false }, %w[R-R C-C Y-Y G-G O-O W2-W], %w[R-R C-C Y-Y O-O], ["aux_e"]]
  }.each do |name, (facts, indoor, field, jumpers)|
    it "wires #{name}" do
      rig = compose(**facts)
      expect([ways(rig, "cable_a"), ways(rig, "cable_b"), rig.jumpers.map(&:id)]).to eq([indoor, field, jumpers])
    end
  end

  (1..40).each do |seed|
    it "makes random rig #{seed} a file that reads back equal, and a circuit that works in every call it offers" do
      rig = RandomRigs.rig(seed)
      expect(Gorvant::Formats::RigJson.read(JSON.parse(JSON.generate(Gorvant::Formats::RigJson.dump(rig))))).to eq(rig)
      Gorvant::Outputs
        .calls(rig)
        .each do |call|
          codes = trace(call, on: rig).findings.map(&:code)
          found = codes - %w[one_pole contactor_unread coil_near_pull_in no_heat_in_defrost lockout_defeated]
          # A transformer that is too small for what hangs on it may let a relay go.
          found -= %w[transformer_overloaded relay_chatter] if codes.include?("transformer_overloaded")
          expect(found).to eq([]), "#{call}: #{found}"
        end
    end
  end

  it "goes back to what it was when an answer is taken back" do
    rig = compose(compressor_stages: 2, outdoor_thermostat: true)
    there =
      described_class.recompose(
        rig,
        rig.facts.merge("compressor_stages" => fact(1), "outdoor_thermostat" => fact(false))
      )
    back = described_class.recompose(there, rig.facts)
    expect(ways(there, "cable_b")).to eq(%w[R-R C-C Y-Y O-O W-W2_out])
    expect(ways(back, "cable_a").sort).to eq(ways(rig, "cable_a").sort)
  end

  it "leaves alone what a person landed otherwise, spliced or named" do
    rig = rig("bakery_shop")
    changed = described_class.recompose(rig, rig.facts.merge("transformer_va" => fact(60)))
    expect(changed.cables).to eq(rig.cables)
    expect(Gorvant::Comparison.of(rig, changed).map(&:field)).to eq(["/facts/transformer_va"])
  end

  it "prints the maker's own name beside a terminal, and refuses one for a terminal that is not there" do
    content = rig_file.merge("terminal_names" => { "outdoor.Y" => "YL" })
    named = Gorvant::Formats::RigJson.read(content)
    expect(Gorvant::Assembly.netlist(named).label("outdoor.Y")).to eq("outdoor Y (marked YL)")
    expect(Gorvant::Formats::RigJson.dump(named)).to eq(content)
    expect {
      Gorvant::Formats::RigJson.read(rig_file.merge("terminal_names" => { "outdoor.Q" => "X" }))
    }.to raise_error(Gorvant::BadRigFile, %r{/terminal_names/outdoor.Q})
  end

  it "tells two rigs apart in words: answers, landings, jumpers" do
    differences = Gorvant::Comparison.of(compose, compose(changeover: "B", backup: "none"))
    expect(differences.map(&:title)).to include(
      "Reversing valve",
      "Backup heat",
      "cable a orange",
      "cable a dark blue",
      "Jumper aux e"
    )
    expect(differences.find { |one| one.title == "Backup heat" }).to have_attributes(
      before: "electric strips (assumed)",
      after: "none (assumed)"
    )
    expect(Gorvant::Comparison.of(compose, compose)).to eq([])
  end
end
