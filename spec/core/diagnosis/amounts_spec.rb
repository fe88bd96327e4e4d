# frozen_string_literal: true

require_relative "../../support/finding_trial"
require_relative "../../../bench/rigs"

# A bad joint may have any ohms: from a few, which only make a coil hum, to many, behind which nothing moves.
RSpec.describe "a bad joint of any amount" do
  let(:library) { Finding.library("single stage", BenchRigs::SINGLE, 34.0) }
  let(:find) { Finding.new(library) }
  let(:maker) { Gorvant::Diagnosis::Maker.new(library.situation) }
  let(:joint) { library.hypotheses[library.index("high_resistance:cable_b.yellow@air_handler")] }

  def code(hypothesis, id) = maker.shows(hypothesis)["codes"][library.tests.index { |test| test.id == id }]

  it "shows what less of it, the usual and more of it show by themselves, and once where that is the same" do
    fed = "volts_ac|heat|outdoor.C|outdoor.Y|high_impedance"
    given = [12.0, 40.0, 130.0].map { |ohms| joint.with(faults: [{ **joint.faults.first, "ohms" => ohms }]) }
    single = given.map { |one| code(one, fed) }
    expect([single.uniq.size, code(joint, fed)]).to eq([3, single.join("|")])
    expect(code(joint, "volts_ac|heat|wall.C|wall.R|high_impedance")).not_to include("|")
    expect(maker.amounts(given.first)).to eq([given.first])
  end

  it "leaves each of its readings as probable as the three together make it" do
    scale = Gorvant::Diagnosis::Scale.volts
    rows = %w[b9 b12 b16].map { |code| scale.row(code) }
    expect(scale.row("b9|b12|b16")).to match(rows.transpose.map { |shares| be_within(1e-12).of(shares.sum / 3) })
    either = [scale.row("b9|b12|b16"), scale.row("b0")].transpose.map { |shares| be_within(1e-12).of(shares.sum / 2) }
    expect(scale.row("b9|b12|b16+b0")).to match(either)
  end

  # No weak transformer: it feeds the wall fully in the same call.
  [[8, 21.5], [20, 19.2], [60, 12.5], [200, 5.5]].each do |ohms, volts|
    it "is found at #{ohms} Ω: #{volts} V where the feed has 24" do
      told = [
        ["heat", "volts_ac", %w[wall.C wall.Y], 24.6],
        ["heat", "volts_ac", %w[outdoor.C outdoor.Y], volts],
        ["heat", "volts_ac", %w[air_handler.C air_handler.Y], 24.4],
        ["heat", "volts_ac", %w[outdoor.C outdoor.R], 24.5]
      ]
      finder = find.finder(%w[contactor_silent], *told)
      expect(library.remedies[finder.top.indexes.first]).to eq("cable_b.yellow")
      expect(finder.remedy_belief).to be > 0.4
      expect(finder.beliefs[library.index("transformer_weak:TRAN")]).to be < 0.05
    end
  end

  it "is not taken for what shows two readings of one call that take two amounts of it" do
    silent, hot = %w[compressor silent], %w[vapour_line_by_hand hot]
    codes = [silent, hot].map { |place, _choice| code(joint, "seen|heat|#{place}|person").split("|") }
    expect(codes.first.zip(codes.last)).to include(%w[runs hot], %w[silent lukewarm])
    kinds = ->(*told) { find.finder(%w[no_heat], *told.map { |one| ["heat", "seen", *one] }).impossible.map(&:kind) }
    expect([kinds.call(silent, hot), kinds.call(silent, %w[vapour_line_by_hand lukewarm])]).to eq([["impossible"], []])
  end
end
