# frozen_string_literal: true

# What is said at the bench, line by line, and what comes of it.
RSpec.describe Gorvant::Saying do
  # "volts_ac outdoor.C outdoor.Y 24.3 heat @outdoor" of what was understood.
  def told(understood)
    return "nothing" unless understood

    given = understood.given
    parts = [
      given["function"],
      *given.values_at("from_node", "to_node").compact,
      given["place"],
      given["choice"],
      amount(given)
    ]
    parts << "alone" if given["isolated"]
    parts << "low" if given["instrument"] == "low_impedance"
    [*parts, understood.call, understood.at && "@#{understood.at}"].compact.join(" ")
  end

  def amount(given)
    return "OL" if given["open"]
    return nil unless given["value"]

    number = [given["value"], given["value_high"]].compact.map { |value| format("%g", value) }.join("-")
    given["about"] ? "~#{number}" : number
  end

  def self.table(name) =
    File.readlines(File.join(__dir__, name), chomp: true, encoding: "UTF-8").reject { |line| line.start_with?("#") }

  lines = table("sayings.txt")

  # How many words of a place or call are said is the line's; the table names them where they are.
  lines.each do |line|
    said, meant = line.split(" | ")
    it "understands “#{said}”" do
      ways = described_class.new(rig).read(said).map { |one| told(one) }
      expect(ways).to include(meant).or include("#{meant} @outdoor")
    end
  end

  it "has a table of at least 120 sayings, and reads all of them without a second thought but a few" do
    expect(lines.size).to be >= 120
    double = lines.count { |line| described_class.new(rig).read(line.split(" | ").first).size > 1 }
    expect(double).to be <= 5
  end

  # A line turned round by "not", a number by halves, a meter by its name: what is meant, and no other way.
  table("sayings_of_others.txt").each do |line|
    said, meant = line.split(" | ")
    it "takes “#{said}” for #{meant}, and for nothing else" do
      ways = described_class.new(rig).read(said).map { |one| told(one) }
      expect(ways).to eq(meant == "nothing" ? [] : meant.split(" / "))
    end
  end

  it "reads a setting by a value that this unit's can have" do
    with =
      Gorvant::Composer.compose(name: "Set", facts: { "balance_points" => true, "changeover_terminal" => "single" })
    said = { "aux balance point fifty" => 50, "auxiliary balance ten celsius" => 50, "o b setting is b" => "B" }
    said.each do |line, value|
      expect(described_class.new(with).read(line).map { |one| one.given["choice"] }).to eq([value]), line
    end
    nothing = ["interval four hundred", "interval thirty to sixty", "aux balance point two hundred", "o b setting"]
    nothing.each { |line| expect(described_class.new(with).read(line)).to eq([]), line }
  end

  it "keeps the words of a code that flashes, and the meter of the line before until another is named" do
    code = described_class.new(rig).read("board led three flashes").first.given
    expect(code.values_at("place", "choice", "note")).to eq(["lamp", "code", "board led three flashes"])
    meters =
      [{}, { meter: "low_impedance" }, { meter: "low_impedance", chosen: { meter: "high_impedance" } }].map do |given|
        described_class.new(rig, **given).read("c y 24 out").first.given["instrument"]
      end
    expect(meters).to eq(%w[high_impedance low_impedance high_impedance])
  end

  # In figures of °F and psi, as they are kept.
  {
    ["supply air 33", []] => 33.0,
    ["supply air 33", ["C"]] => 91.4,
    ["supply air 33 degrees", ["C"]] => 91.4,
    ["supply air 33 degrees c", []] => 91.4,
    ["supply air thirty three celsius", []] => 91.4,
    ["supply air 91 degrees f", ["C"]] => 91.0,
    ["outdoor air minus ten", ["C"]] => 14.0,
    ["outdoor air -10", []] => -10.0,
    ["outdoor air ten below zero", ["C"]] => 14.0,
    ["coil tube 5 below", []] => -5.0,
    ["vapor port 110 psi", ["kPa"]] => 110.0,
    ["vapor port 758 kilopascals", []] => 109.94,
    ["vapor port 758", ["kPa"]] => 109.94,
    ["vapor port 110", ["C"]] => 110.0
  }.each do |(said, units), value|
    it "takes “#{said}” for #{value} where a person reads in #{units.empty? ? "°F and psi" : units.join(" and ")}" do
      ways = described_class.new(rig, units: units).read(said)
      expect(ways.map { |one| [one.given["value"], one.left] }).to eq([[value, []]])
    end
  end

  it "turns both ends of a range, and keeps that it is about" do
    given = described_class.new(rig, units: ["C"]).read("supply air about 30 to 35").first.given
    expect(given.values_at("value", "value_high", "about")).to eq([86.0, 95.0, true])
  end

  it "reads a range below zero, and no sign where a meter has none" do
    given = described_class.new(rig).read("outdoor air minus ten to minus five").first.given
    expect(given.values_at("value", "value_high")).to eq([-10.0, -5.0])
    expect(described_class.new(rig).read("c minus y 24").map { |one| told(one) }).to eq(
      described_class.new(rig).read("c y minus 24").map { |one| told(one) }
    )
  end

  it "shows both where “to” may be a terminal's 2" do
    two_stage = Gorvant::Composer.compose(name: "Two", facts: { "compressor_stages" => 2 })
    ways = described_class.new(two_stage, call: "heat", at: "outdoor").read("why to twenty four")
    expect(ways.map { |one| one.given["to_node"] }).to contain_exactly("outdoor.Y", "outdoor.Y2")
    one_way = described_class.new(two_stage, at: "outdoor").read("why two twenty four")
    expect(one_way.map { |one| one.given.values_at("to_node", "value") }).to eq([["outdoor.Y2", 24.0]])
  end

  it "remembers call and place from the line before, and says which words it left" do
    one = described_class.new(rig, call: "cool", at: "wall").read("c to y 24 wobbly").first
    expect([one.call, one.at, one.given["to_node"], one.left]).to eq(["cool", "wall", "wall.Y", ["wobbly"]])
  end

  [
    "hello there",
    "c to y",
    "24 volts",
    "c to y to g 24",
    "why two twenty four outdoors", # no Y2 on this unit: nothing is made of it
    "across the limit",
    "c to q 24 outdoors",
    "",
    "fan",
    "24 24 24 c y"
  ].each do |said|
    it "makes nothing of “#{said}”" do
      expect(described_class.new(rig).read(said)).to eq([])
    end
  end

  it "never gives a reading that this unit cannot have" do
    random = Random.new(4)
    words =
      Gorvant::Catalogue
        .sayings
        .values
        .flat_map { |value| value.is_a?(Hash) ? value.values.flatten : value }
        .grep(String) + %w[24 zero to two point five]
    trace = trace("heat")
    400.times do
      said = Array.new(random.rand(2..7)) { words.sample(random: random) }.join(" ")
      described_class
        .new(rig, call: "heat", at: "outdoor")
        .read(said)
        .each do |one|
          instrument = one.given["function"] == "volts_ac" ? { "instrument" => "high_impedance" } : {}
          expect { Gorvant::Observation.parse(one.given.merge(instrument), trace) }.not_to raise_error, said
        end
    end
  end
end
