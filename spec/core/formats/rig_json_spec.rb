# frozen_string_literal: true

RSpec.describe Gorvant::Formats::RigJson do
  def problems(content)
    described_class.read(content)
    []
  rescue Gorvant::BadRigFile => e
    e.problems.map { |problem| problem["field"] }
  end

  %w[boathouse_north hostel_bunks].each do |name|
    it "writes #{name} back as it was read" do
      expect(described_class.dump(rig(name))).to eq(rig_file(name))
    end
  end

  it "names a rig by its content, whatever the order of its keys" do
    shuffled = rig_file.to_a.reverse.to_h
    expect(described_class.digest(described_class.read(shuffled))).to eq(described_class.digest(rig))
    expect(described_class.digest(described_class.read(rig_file.merge("name" => "Other")))).not_to eq(
      described_class.digest(rig)
    )
  end

  # What a person might do to a rig file with an editor, and where the answer has to point.
  {
    "an unknown key" => [->(rig) { rig["color"] = "red" }, "/color"],
    "a missing name" => [->(rig) { rig.delete("name") }, "/"],
    "a number for a name" => [->(rig) { rig["name"] = 7 }, "/name"],
    "another format" => [->(rig) { rig["schema"] = "gorvant-rig/9" }, "/schema"],
    "an unknown archetype" => [->(rig) { rig["archetype"] = "split_heat_pmp" }, "/archetype"],
    "an unknown fact" => [->(rig) { rig["facts"]["changover"] = rig["facts"]["changeover"] }, "/facts/changover"],
    "a fact without provenance" => [->(rig) { rig["facts"]["changeover"].delete("provenance") }, "/facts/changeover"],
    "a hearsay provenance" => [
      ->(rig) { rig["facts"]["changeover"]["provenance"]["source"] = "guess" },
      "/facts/changeover/provenance/source"
    ],
    "a choice that is none" => [->(rig) { rig["facts"]["changeover"]["value"] = "A" }, "/facts/changeover/value"],
    "a transformer of 4000 VA" => [
      ->(rig) { rig["facts"]["transformer_va"]["value"] = 4000 },
      "/facts/transformer_va/value"
    ],
    "the same safety twice" => [->(rig) { rig["facts"]["safeties"]["value"] = %w[LPS LPS] }, "/facts/safeties/value"],
    "a cable of no length" => [->(rig) { rig["cables"][0]["length_feet"] = 0 }, "/cables/0/length_feet"],
    "a cable to its own place" => [->(rig) { rig["cables"][0]["to"] = "wall" }, "/cables/0/to"],
    "a conductor that lands on no terminal" => [
      ->(rig) { rig["cables"][1]["conductors"][2]["to"] = "Y9" },
      "/cables/1/conductors/2/to"
    ],
    "a dangling conductor" => [->(rig) { rig["cables"][1]["conductors"][2].delete("to") }, "/cables/1/conductors/2/to"],
    "two conductors of one name" => [
      ->(rig) { rig["cables"][0]["conductors"][1]["id"] = "red" },
      "/cables/0/conductors/1/id"
    ],
    "two cables of one name" => [->(rig) { rig["cables"][1]["id"] = "cable_a" }, "/cables/1/id"],
    "a jumper from a terminal to itself" => [->(rig) { rig["jumpers"][0]["to"] = "W2" }, "/jumpers/0/to"],
    "a name of 10 000 characters" => [->(rig) { rig["name"] = "x" * 10_000 }, "/name"]
  }.each do |name, (edit, field)|
    it "points at #{field} for #{name}" do
      content = rig_file
      edit.call(content)
      expect(problems(content)).to include(field)
    end
  end

  it "says that text is no JSON, and suggests the nearest name" do
    expect { described_class.parse("{") }.to raise_error(Gorvant::BadRigFile, /not JSON/)
    expect { described_class.read(rig_file.merge("archetype" => "split_heat_pmp")) }.to raise_error(
      Gorvant::BadRigFile,
      /did you mean 'split_heat_pump'/
    )
  end

  it "takes defaults for what is not recorded, and counts them as assumed" do
    bare = described_class.read(rig_file.merge("facts" => {}))
    expect(bare[:changeover]).to eq("O")
    expect(bare.assumed).to eq(Gorvant::Catalogue.facts.keys.select { |key| bare.asks?(key) })
    expect(rig.assumed).not_to include("changeover")
  end
end
