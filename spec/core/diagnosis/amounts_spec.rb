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

  describe "beside a weak transformer" do
    let(:rig) { "two-stage dual fuel" }
    let(:library) { Finding.library(rig, BenchRigs::ALL.fetch(rig), 34.0) }
    # The valve's terminal lacks five volts at both ends of the outdoor cable.
    let(:sagging) do
      [
        ["heat_2", "volts_ac", %w[air_handler.C air_handler.B], 19.4],
        ["heat", "volts_ac", %w[outdoor.C outdoor.B], 19.2],
        %w[heat seen vapour_line_by_hand cold],
        ["heat_aux", "volts_ac", %w[air_handler.C air_handler.B], 19.3]
      ]
    end

    def beliefs(*told)
      beliefs = find.finder(%w[no_heat], *told).beliefs
      wire = library.remedies.each_index.select { |i| library.remedies[i] == "cable_a.dark_blue" }
      [wire.sum { |i| beliefs[i] }, beliefs[library.index("transformer_weak:TRAN")]]
    end

    it "is in front where one conductor lacks a few volts, and not where the supply lacks them too" do
      expect(beliefs(*sagging)).to match([be > 0.5, be < 0.15])
      supply = ["heat_2", "volts_ac", %w[air_handler.C air_handler.R], 19.5]
      expect(beliefs(*sagging, supply)).to match([be < 0.1, be > 0.5])
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
