# frozen_string_literal: true

require_relative "../../support/core"
require "csv"

# What leaves as a table, and comes back from a spreadsheet.
RSpec.describe Gorvant::Formats::Spreadsheet do
  ["=1+1", "+1 day", "-cmd", "@SUM(A1)", "\tx", "\rx", "=HYPERLINK(\"x\")"].each do |cell|
    it("defuses #{cell.inspect}") { expect(described_class.plain(cell)).to eq("'#{cell}") }
  end

  ["-4", "-4.5", "12", "orange", "a=b", "", nil, 7.5].each do |cell|
    it("leaves #{cell.inspect} as it is") { expect(described_class.plain(cell)).to eq(cell.to_s) }
  end

  describe Gorvant::Formats::LandingsCsv do
    head = "place,cable,conductor,color,lands_on\n"
    let(:fitted) { Gorvant::Composer.compose(name: "Table", facts: Bench::APART.transform_keys(&:to_s)) }

    def read(rows) = described_class.read("place,cable,conductor,color,lands_on\n#{rows}", fitted)

    it "refuses an end that stands twice, and names the line on which it stood first" do
      twice = read("wall,cable_a,orange,,O\nwall,cable_a,red,,R\nWall,cable a,Orange,,B\n")
      expect(twice).to have_attributes(
        as_found: nil,
        refused: [{ line: 4, problem: "this end stands on line 2 already" }]
      )
    end

    it "refuses a jumper that stands twice, either way round" do
      twice = read("wall,jumper,,,W2-E\nwall,jumper,,,no E-W2\n")
      expect(twice.refused).to eq([{ line: 3, problem: "this jumper stands on line 2 already" }])
    end

    it "refuses a jumper with one end, here and in a record" do
      expect(read("wall,jumper,,,R\n").refused).to match([{ line: 2, problem: include("unknown terminal nil") }])
      [{ "to" => "Y" }, { "from" => "R" }, { "from" => "R", "to" => "" }].each do |ends|
        expect {
          Gorvant::AsFound.parse({ "jumpers" => [{ "place" => "wall", "found" => true, **ends }] }, fitted)
        }.to raise_error(Gorvant::BadAsFound, /unknown terminal/)
      end
    end

    it "takes the same conductor once at each of its ends" do
      expect(read("wall,cable_a,orange,,B\nair handler,cable a,orange,,O\n").as_found.landings.map(&:place)).to eq(
        %w[wall air_handler]
      )
    end

    it "keeps the settings of the record that it goes into" do
      kept = described_class.read("#{head}wall,cable_a,orange,,B\n", fitted, settings: { "changeover_setup" => "B" })
      expect(kept.as_found.settings).to eq("changeover_setup" => "B")
    end

    it "writes a bare end and a capped one as what they are, and reads them back" do
      found =
        Gorvant::AsFound.parse(
          {
            "landings" => [
              {
                "cable" => "cable_b",
                "conductor" => "white",
                "place" => "outdoor",
                "lands_on" => nil,
                "lies" => "bare"
              },
              {
                "cable" => "cable_b",
                "conductor" => "yellow",
                "place" => "outdoor",
                "lands_on" => nil,
                "lies" => "capped"
              }
            ]
          },
          fitted
        )
      rows =
        CSV
          .parse(described_class.dump(fitted, found), headers: true)
          .to_h { |row| [row.values_at("place", "cable", "conductor").join("."), row["lands_on"]] }
      expect(rows.values_at("outdoor.cable_b.white", "outdoor.cable_b.yellow")).to eq(%w[bare capped])
      back = described_class.read(described_class.dump(fitted, found), fitted).as_found
      expect(
        back.landings.reject { |one| one.lies == "landed" }.map { |one| [one.conductor, one.lies] }
      ).to contain_exactly(%w[white bare], %w[yellow capped])
    end
  end

  describe Gorvant::Comparison do
    let(:before) { Gorvant::Composer.compose(name: "Compared", facts: Bench::APART.transform_keys(&:to_s)) }

    it "tells of a fact that only its source changed, and of none that did not" do
      measured = before.set({ "transformer_va" => before[:transformer_va] }, "measured")
      told = described_class.of(before, measured)
      expect(told.map { |one| [one.field, one.before, one.after] }).to eq(
        [["/facts/transformer_va", "40 VA (assumed)", "40 VA (measured)"]]
      )
      expect(described_class.of(before, before)).to eq([])
    end

    it "tells of name, landing and jumper, each in words, and the other way round for the other way" do
      content = Gorvant::Formats::RigJson.dump(before)
      content["name"] = "Other"
      content["cables"][0]["conductors"].find { |one| one["id"] == "orange" }["from"] = "B"
      content["jumpers"] = []
      after = Gorvant::Formats::RigJson.read(content)
      there, back = described_class.of(before, after), described_class.of(after, before)
      expect(there.map(&:before)).to include("Compared", "O – O")
      expect(there.map(&:after)).to include("Other", "B – O")
      expect(back.map { |one| [one.field, one.after, one.before] }).to match_array(
        there.map { |one| [one.field, one.before, one.after] }
      )
    end
  end

  describe Gorvant::Formats::RigJson do
    it "reads an old file as it was meant then: what it left unsaid keeps the old defaults, and its digest stays" do
      old = JSON.parse(File.read(File.join(Bench::DEMO, "boathouse_north.json")))
      old["facts"] = old["facts"].except("safeties", "changeover_terminal")
      read = described_class.read(old)
      expect([read[:safeties], read[:changeover_terminal]]).to eq([%w[LPS DTS HPS], "separate"])
      expect(described_class.dump(read)["schema"]).to eq("gorvant-rig/1")
      expect(described_class.digest(described_class.read(described_class.dump(read)))).to eq(
        described_class.digest(read)
      )
    end

    it "writes the newer version only for what the older cannot hold, and reads it back" do
      rig = described_class.read(JSON.parse(File.read(File.join(Bench::DEMO, "boathouse_north.json"))))
      newer = { maker_codes: { "CC" => "K7" }, factory_colors: { "outdoor.CC.1" => "brown" } }
      newer.each do |field, value|
        changed = rig.with(field => value)
        expect(described_class.dump(changed)).to include("schema" => "gorvant-rig/2", field.to_s => value)
        expect(described_class.read(described_class.dump(changed)).public_send(field)).to eq(value)
      end
      table =
        Gorvant::Composer.compose(
          name: "Table",
          facts: {
            "board_family" => "larch",
            "defrost_clock" => "demand",
            "demand_below_air_degrees_f" => [[0, 5], [40, 12]]
          }
        )
      expect(described_class.read(described_class.dump(table))[:demand_below_air_degrees_f]).to eq([[0, 5], [40, 12]])
    end

    {
      "a table that goes back" => [[40, 5], [0, 12]],
      "a table of words" => [["cold", 5]],
      "an empty table" => [],
      "a figure out of all reason" => [[0, 900], [40, 5]]
    }.each do |what, table|
      it "refuses #{what} by its field" do
        expect {
          Gorvant::Composer.compose(
            name: "T",
            facts: {
              "board_family" => "larch",
              "defrost_clock" => "demand",
              "demand_below_air_degrees_f" => table
            }
          )
        }.to raise_error(Gorvant::Error) { |error|
          expect([error.message, *(error.problems if error.respond_to?(:problems))].join).to include(
            "demand_below_air_degrees_f"
          )
        }
      end
    end
  end
end
