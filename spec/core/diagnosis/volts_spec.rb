# frozen_string_literal: true

require_relative "../../support/finding"
require_relative "../../../bench/rigs"

# Volts are weighed by how much they are, not only by their class: two readings of one unit that differ by more than its
# meter and its specimen may are news, though both are "about 24 V".
RSpec.describe Gorvant::Diagnosis::Volts do
  let(:find) { Finding.new(Finding.library("single stage", BenchRigs::SINGLE, 34.0)) }
  let(:scale) { Gorvant::Diagnosis::Scale.volts }

  def joint(finder) =
    finder.library.hypotheses.each_index.sum do |i|
      finder.library.hypotheses[i].id.match?(/high_resistance:cable_b\.yellow@/) ? finder.beliefs[i] : 0.0
    end

  def at_contactor(volts, call: "heat") = [call, "volts_ac", %w[outdoor.C outdoor.Y], volts]
  def at_strip(volts) = ["heat", "volts_ac", %w[air_handler.C air_handler.Y], volts]

  it "leaves every row whole, class by class and cell by cell, and what was typed in the class that it is in, by an edge in both" do
    codes = [*(0..28).map { |bin| "b#{bin}" }, "ghost", "unsteady", "?", "b9|b12|b16", "b9+b17"]
    codes.each do |code|
      rows = [scale.row(code), *scale.stands(code)]
      expect(rows.map(&:sum)).to all(be_within(1e-9).of(1.0)), code
      expect(scale.by_answer(scale.row(code)).sum).to be_within(1e-9).of(1.0)
    end
    flag = Gorvant::Diagnosis::Scale.fact([false, true])
    expect([%w[false], %w[true]].map { |said| flag.told_of(flag.telling(said)) }).to eq([[false], [true]])
    [0.0, 1.9, 2.0, 17.6, 18.4, 20.1, 21.6, 22.4, 24.4, 28.4, 29.6, 120.0, 240.0, 999.0].each do |volts|
      told = scale.told(volts, volts)
      expect(scale.told_of(told)).to eq([scale.answer(volts)]), volts.to_s
      expect(told.max).to eq(1.0)
    end
    {
      17.9 => %w[some sagging],
      20.5 => %w[sagging low],
      22.0 => %w[low about_24],
      30.1 => %w[about_24 stray]
    }.each { |volts, both| expect(scale.told_of(scale.told(volts, volts)).map(&:to_s)).to eq(both), volts.to_s }
  end

  # A second, slow reckoning: what lies where, drawn by hand.
  it "spreads an amount as drawn amounts lie" do
    random = Random.new(5)
    reach, far, share = Gorvant::Diagnosis.numbers["volts_spread"].values_at("near_full", "far_factor", "far_share")
    factor = Gorvant::Diagnosis::Supply.factors[4]
    drawn =
      Array.new(60_000) do
        around = 23.8 * factor # the middle of its bin
        off = (random.rand + random.rand - 1.0) * around * reach * (random.rand < share ? far : 1.0)
        scale.told_of(scale.telling([scale.answer(around + off)])).first
      end
    row = scale.by_answer(scale.stands(scale.code(23.8))[4])
    slip = Gorvant::Diagnosis.numbers.dig("misread", "volts")
    scale.answers.each_with_index do |answer, a|
      expected = (drawn.count(answer) / drawn.size.to_f * (1 - slip)) + (slip / scale.answers.size)
      expect(row[a]).to be_within(0.012).of(expected), answer
    end
  end

  it "sees a drop between two readings that are both about 24 V" do
    even = find.finder(%w[contactor_silent], at_strip(24.3), at_contactor(24.2))
    dropped = find.finder(%w[contactor_silent], at_strip(24.3), at_contactor(22.4))
    low_alike = find.finder(%w[contactor_silent], at_strip(22.5), at_contactor(22.4))
    expect(joint(dropped)).to be > joint(even) * 3
    expect(joint(dropped)).to be > joint(low_alike) * 1.5 # one supply, not a joint
    expect(dropped).not_to be_sure
  end

  # A live terminal speaks for what lies behind it, whether its 24 V are 23.4 or 24.6; 22.4 for what drops some.
  it "names what carries a suspect by what a reading is, and by how much where that tells far more" do
    carries = ->(finder, id) do
      i = finder.library.index(id)
      finder.evidence.each_index.select { |e| finder.beliefs.tells(e, i) > 1.15 }.map { |e| finder.evidence[e].answer }
    end
    live = (232..246).step(2).map { |tenth| find.finder(%w[contactor_silent], at_contactor(tenth / 10.0)) }
    live.each { |finder| expect(carries.call(finder, "stuck_open:LPS")).to eq([finder.evidence.first.answer]) }
    dropped = find.finder(%w[contactor_silent], at_strip(24.3), at_contactor(22.4))
    expect(carries.call(dropped, "high_resistance:cable_b.yellow@outdoor")).to eq(["24.3 V", "22.4 V"])
    first, *others = dropped.suspects(6).map { |one| [find.first(one).id, one.against.map(&:answer)] }
    expect(first).to eq(["high_resistance:cable_b.yellow@air_handler", []])
    expect(others.map(&:first)).to include("opened_LPS") # nothing flows there, and so nothing drops
  end

  it "takes what differs by no more than a cell for the same, and changes nothing suddenly" do
    beliefs = (240..250).map { |tenth| joint(find.finder(%w[contactor_silent], at_contactor(tenth / 10.0))) }
    beliefs.each_cons(2) { |one, next_one| expect(next_one).to be_within(0.15 * one).of(one) }
    twice = [24.1, 24.5].map { |volts| at_contactor(volts) }
    expect(find.finder(%w[contactor_silent], *twice).contradictions).to eq([])
    expect(find.finder(%w[contactor_silent], at_contactor(24.1), at_contactor(0.0)).contradictions.size).to eq(1)
  end

  it "weighs a range as all that lies in it, and above 24.4 V any alike: some transformers give more than their label" do
    range = find.clue(*at_contactor(22.0), { value_high: 28.0 })
    expect(range.told).to eq(scale.telling(%w[about_24]))
    high = [24.8, 26.5, 28.4].map { |volts| find.finder(%w[contactor_silent], at_contactor(volts)).beliefs.all }
    expect(high.uniq.size).to eq(1)
  end
end
