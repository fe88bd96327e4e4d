# frozen_string_literal: true

require_relative "../../support/core"

# A history as it is typed: stretches of minutes, temperatures at minutes, and what is wrong with either.
RSpec.describe Gorvant::RunHistory do
  def history(**lanes) =
    described_class.parse({ "minutes" => 240, "fed" => "0-40, 50-" }.merge(lanes.transform_keys(&:to_s)))

  # typed => stretches
  {
    "0-25, 40-62" => [[0.0, 25.0], [40.0, 62.0]],
    "75-" => [[75.0, Float::INFINITY]],
    "always" => [[0.0, Float::INFINITY]],
    " ALWAYS " => [[0.0, Float::INFINITY]],
    "never" => [],
    "" => []
  }.each do |typed, stretches|
    it "reads #{typed.inspect} as #{stretches}" do
      expect(history(cold: typed).spans["cold"]).to eq(stretches)
    end
  end

  # typed => [minute, °F]
  {
    "28" => [[0.0, 28.0]],
    "0:40, 30:22, 90:18" => [[0.0, 40.0], [30.0, 22.0], [90.0, 18.0]],
    "-4.5" => [[0.0, -4.5]]
  }.each do |typed, points|
    it "reads the temperatures #{typed.inspect} as #{points}" do
      expect(history(coil: typed).temperatures["coil"]).to eq(points)
    end
  end

  it "takes Y as live with the compressor, the rest as never, and says which lanes were written down" do
    one = history(cold: "10-20")
    expect(one.spans.slice("y", "cold", "cooling", "unpowered")).to eq(
      "y" => [[0.0, 40.0], [50.0, Float::INFINITY]],
      "cold" => [[10.0, 20.0]],
      "cooling" => [],
      "unpowered" => []
    )
    expect([one.given, one.temperatures]).to eq([%w[fed cold], {}])
    expect(history(y: "never").spans["y"]).to eq([])
  end

  # lanes, field to blame, words
  [
    [{ cold: "ten to twenty" }, "/history/cold", /'ten to twenty' is no stretch/],
    [{ cold: "20-10" }, "/history/cold", /is no stretch|comes before/],
    [{ cold: "0-30, 20-40" }, "/history/cold", /20 comes before the end/],
    [{ coil: "0:warm" }, "/history/coil", /'0:warm' is no minute and temperature/],
    [{ coil: "warm" }, "/history/coil", /'warm' is no minute and temperature/],
    [{ coil: "0:900" }, "/history/coil", /no minute and temperature/],
    [{ coil: "30:20, 0:40" }, "/history/coil", /./],
    [{ minutes: 0 }, "/history/minutes", /has to be 1 to 2880/],
    [{ minutes: "long" }, "/history/minutes", /has to be 1 to 2880/],
    [{ frost: "always" }, "/history/frost", /unknown; known are/],
    [{ cold: Array.new(301) { |i| "#{i / 2.0}-#{(i / 2.0) + 0.1}" }.join(",") }, "/history/cold", /at most 300/]
  ].each do |lanes, field, words|
    it "blames #{field} for #{lanes.to_s[0, 60]}" do
      expect { history(**lanes) }.to raise_error(Gorvant::BadHistory) { |error|
        expect(error.problems.map { |problem| problem["field"] }).to include(field)
        expect(error.problems.find { |problem| problem["field"] == field }["problem"]).to match(words)
      }
    end
  end

  it "is refused as a whole where it is no object" do
    expect { described_class.parse([]) }.to raise_error(Gorvant::BadHistory, /has to be an object/)
  end
end
