# frozen_string_literal: true

RSpec.describe Gorvant::Way do
  it "names the shortest way for 24 V to a point, and where it is open" do
    way = described_class.new(trace("heat", switches: { "DTS" => "open" }), "outdoor.board.T1")
    expect(way.stops.map(&:id)).to include(
      "air_handler.TRAN.R",
      "FU",
      "THERMOSTAT.Y",
      "cable_b.yellow",
      "LPS",
      "DTS",
      "HPS",
      "outdoor.board.T1"
    )
    expect([way.says, way.open.map(&:id)]).to eq(["Open at DTS.", ["DTS"]])
    expect(described_class.new(trace("heat"), "outdoor.board.T1").says).to eq(
      "Whole: wire and closed contacts all the way."
    )
  end

  it "names all that lies between two points" do
    way = described_class.new(trace("heat"), "outdoor.CC.1", "outdoor.Y")
    expect(way.stops.map(&:id) & %w[LPS DTS HPS]).to eq(%w[LPS DTS HPS])
    expect(described_class.new(trace("heat"), "outdoor.C", "outdoor.CC.1").says).to include("leads through CC")
  end

  it "says so where nothing leads, and names a point that is not there" do
    loose = trace("heat", faults: [{ "kind" => "lifted", "at" => "cable_b.blue@outdoor" }])
    expect(described_class.new(loose, "outdoor.CC.1", "outdoor.cable_b.blue").found?).to be(true)
    expect { described_class.new(loose, "outdoor.Q") }.to raise_error(Gorvant::UnknownNode, /outdoor\./)
  end
end
