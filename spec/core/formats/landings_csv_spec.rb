# frozen_string_literal: true

require_relative "../../support/core"

# Landings as a table of their own: what was written comes back, and what cannot be is refused row by row.
RSpec.describe Gorvant::Formats::LandingsCsv do
  let(:rig) do
    Gorvant::Composer.compose(
      name: "Bench",
      facts: {
        **Bench::APART.transform_keys(&:to_s),
        "outdoor_thermostat" => true
      }
    )
  end

  it "takes out and in what it wrote, and what a spreadsheet makes of it" do
    found =
      Gorvant::AsFound.parse(
        {
          "landings" => [
            { "cable" => "cable_a", "conductor" => "orange", "place" => "wall", "lands_on" => "B" },
            {
              "cable" => "cable_b",
              "conductor" => "violet",
              "place" => "outdoor",
              "lands_on" => nil,
              "lies" => "bare",
              "color" => "violet"
            }
          ],
          "jumpers" => [{ "place" => "wall", "from" => "W2", "to" => "E", "found" => true }]
        },
        rig
      )
    text = described_class.dump(rig, found)
    [text, "\uFEFF#{text.gsub(",", ";").gsub("\n", "\r\n")}"].each do |version|
      read = described_class.read(version, rig)
      expect([read.refused, read.as_found.faults_of(rig)]).to eq([[], found.faults_of(rig)])
    end
  end

  it "reads 5 000 rows or refuses them row by row, and nothing half" do
    rows = Array.new(5_000) { |i| "wall,cable_a,wire#{i},violet,#{i == 77 ? "ZZ" : "capped"}" }
    read = described_class.read("place,cable,conductor,color,lands_on\n#{rows.join("\n")}", rig)
    expect(read).to have_attributes(
      as_found: nil,
      rows: 5_000,
      refused: [include(line: 79, problem: include("unknown terminal \"ZZ\"", "it has R, C, Y"))]
    )
    good = rows.map { |row| row.sub("ZZ", "capped") }
    refused = [include(problem: include("5000 conductor ends; a visit keeps at most 400"))]
    expect(described_class.read("place,cable,conductor,color,lands_on\n#{good.join("\n")}", rig)).to have_attributes(
      as_found: nil,
      refused: refused
    )
    expect(
      described_class.read(
        "place,cable,conductor,color,lands_on\n#{(rows + [""]).join("\n").sub("ZZ", "R")}\nwall,cable_a,w,red,R",
        rig
      ).refused
    ).to match([include(problem: include("at most 5000"))])
  end

  [
    "",
    "a,b\n1,2",
    "place,cable,conductor,lands_on\n\"wall,x",
    "place,cable,conductor,lands_on\nwall,jumper,,R\nattic,cable_a,red,R\nwall,cable_a,red,R\nwall,cable_a,red,C",
    "\xFF\xFE".b
  ].each do |text|
    it "says what is wrong with #{text.inspect[0, 50]}" do
      read = described_class.read(text, rig)
      expect(read.as_found).to be_nil
      expect(read.refused).to all(include(line: be_positive, problem: match(/\w/)))
    end
  end
end
