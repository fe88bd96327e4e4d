# frozen_string_literal: true

require_relative "../../support/finding"

# Two faults at once, a reading that went wrong, and neither.
RSpec.describe Gorvant::Diagnosis::Pairs do
  let(:find) { Finding.new(Finding.library("boathouse", rig("boathouse_north"), 34.0)) }
  let(:fan) do
    [
      %w[heat seen outdoor_fan stands],
      ["heat", "volts_ac", %w[outdoor.OFM.R outdoor.OFM.C], 241],
      %w[heat seen compressor runs]
    ]
  end
  let(:strips) do
    [
      ["heat_aux", "volts_ac", %w[air_handler.C air_handler.W], 24.1],
      %w[heat_aux seen strips off],
      [
        "off",
        "ohms",
        %w[air_handler.SEQ.1 air_handler.SEQ.2],
        0,
        { "open" => true, "value" => nil, "isolated" => true }
      ]
    ]
  end

  it "puts two together where neither explains all that was read, and solves them" do
    finder = find.finder(%w[no_heat], *fan, *strips)
    expect(finder).to be_unexplained
    pair = finder.pairs.all.first
    expect(pair.members.map(&:id)).to contain_exactly(match(/OFM|CAP.fan/), "open:SEQ")
    expect(pair.explains.size).to eq(finder.evidence.size)
    said = Gorvant::Desks::Find::Words.new(finder).to_h
    expect(said[:beside][:pairs].first[:says]).to include("SEQ open", "6 of 6 readings")
    expect(said[:outcome][:key]).not_to eq("proved")
  end

  it "is not asked where one explains it" do
    expect(find.finder(%w[no_heat], *fan)).not_to be_unexplained
    expect(Gorvant::Desks::Find::Words.new(find.finder(%w[no_heat], *fan)).to_h[:beside]).to be_nil
  end

  it "names the one reading without which one thing explains the rest, to be made once more, and once only" do
    whole = [
      ["heat", "volts_ac", %w[air_handler.C air_handler.R], 24.6],
      ["heat", "volts_ac", %w[outdoor.C outdoor.R], 0.1],
      ["heat", "volts_ac", %w[outdoor.CC.1 outdoor.CC.2], 24.1],
      %w[heat seen contactor out],
      %w[heat seen outdoor_fan turns]
    ]
    odd = ["heat", "volts_ac", %w[outdoor.LPS.1 outdoor.LPS.2], 24.2]
    finder = find.finder(%w[no_heat], *whole, odd)
    expect([finder.unexplained?, finder.doubtful.test.from_node, finder.doubtful.why]).to eq(
      [true, "outdoor.LPS.1", "alone"]
    )
    page, elsewhere =
      [{}, { mode: "here", stands: "wall" }].map do |how|
        Gorvant::Desks::Find::Words.new(find.finder(%w[no_heat], *whole, odd, **how)).to_h
      end
    expect([page, elsewhere].map { |one| one.dig(:beside, :repeat) }).to match(
      [nil, /\ARepeat first: .* Without it one thing alone explains the rest\.\z/]
    )
    expect(page[:next].values_at(:from_node, :again)).to eq(
      ["outdoor.LPS.1", "Told already: 24.2 V. Without it one thing alone explains the rest: once more."]
    )
    twice = find.finder(%w[no_heat], *whole, odd, odd)
    asked = twice.evidence.map { |clue| clue.test.id }
    expect([twice.once_more, asked.include?(twice.next_test.test.id)]).to eq([nil, false])
  end
end
