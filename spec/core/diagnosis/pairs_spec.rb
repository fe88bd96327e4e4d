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

  it "names the one reading that does not go with the rest, to be repeated" do
    whole = [
      ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.1],
      ["heat", "volts_ac", %w[outdoor.LPS.1 outdoor.LPS.2], 24.2],
      %w[heat seen contactor out],
      %w[heat seen compressor silent]
    ]
    odd = ["heat", "volts_ac", %w[outdoor.C outdoor.R], 0.1]
    finder = find.finder(%w[no_heat], *whole, odd, ["heat", "volts_ac", %w[air_handler.C air_handler.R], 24.6])
    expect(finder.pairs.doubtful&.test&.to_node).to eq("outdoor.R")
    expect(find.finder(%w[no_heat], *whole).pairs.doubtful).to be_nil
  end
end
