# frozen_string_literal: true

# Lines in which more than one thing is said, and lines that only look so.
RSpec.describe Gorvant::SayingLine do
  def said(line, **memory)
    told = described_class.new(rig, **memory).read(line)
    [
      told.ways.map do |one|
        [*one.given.values_at("from_node", "to_node", "place", "choice", "value"), one.call].compact
      end,
      told.rest
    ]
  end

  def first(line, **memory) = said(line, **memory).then { |ways, rest| [ways.first&.join(" "), ways.size, rest] }

  # [line, the first reading, in how many ways, what is left to be said]
  [
    ["R to C 26.1, Y to C zero out heat", "outdoor.R outdoor.C 26.1", 2, "Y to C zero out heat"],
    [
      "see to why outdoors heat twenty four point three and see to oh zero",
      "outdoor.C outdoor.Y 24.3 heat",
      1,
      "see to oh zero"
    ],
    ["fan stands, compressor hums", "outdoor_fan stands", 1, "compressor hums"],
    ["fan stands. Compressor hums", "outdoor_fan stands", 1, "Compressor hums"],
    [
      "fan stands and then compressor hums and blower blows",
      "outdoor_fan stands",
      1,
      "compressor hums and blower blows"
    ],
    ["C to Y 24.3; C to R 24.1; C to O 0", "outdoor.C outdoor.Y 24.3", 1, "C to R 24.1; C to O 0"]
  ].each do |line, reading, ways, rest|
    it("takes the first of “#{line}”") { expect(first(line)).to eq([reading, ways, rest]) }
  end

  # What belongs together is not parted.
  [
    ["C to Y, 24.3, outdoor", "outdoor.C outdoor.Y 24.3"],
    ["across the limit two hundred and forty", "air_handler.L1 air_handler.LIM.2 240.0"],
    ["C to Y twenty four and a half", "outdoor.C outdoor.Y 24.5"]
  ].each { |line, reading| it("keeps “#{line}” whole") { expect(first(line)).to eq([reading, 1, ""]) } }

  # No part of these is kept by itself.
  [
    "C to Y 24, no, 0",
    "C to Y 24, wait, 22",
    "fan stands, hello there",
    "good morning, C to Y",
    "C to Y, C to O",
    "fan stands and compressor"
  ].each { |line| it("does not part “#{line}”") { expect(said(line).last).to eq("") } }

  it "comes to the same one after the other, whatever stands between" do
    lines = ["C to Y 24.3 heat", "C to O zero", "fan stands", "vapor line ninety two degrees"]
    [", ", "; ", ". ", " and ", " and then ", " then "].each do |between|
      rest, call, read = lines.join(between), nil, []
      until rest.empty?
        told = described_class.new(rig, call: call, at: "outdoor").read(rest)
        read << told.ways.first.given
        call, rest = told.ways.first.call, told.rest
      end
      alone = lines.map { |line| Gorvant::Saying.new(rig, at: "outdoor").read(line).first.given }
      expect([between, read, call]).to eq([between, alone, "heat"])
    end
  end

  it "asks where only what follows names the call, or the place" do
    ways, = said("C to Y 24 and C to O zero in cool", call: "heat")
    expect(ways.map(&:last)).to eq(%w[heat cool])
    ways, = said("C to Y 24 and C to O zero at the wall", call: "heat")
    expect(ways.map(&:first)).to eq(%w[outdoor.C wall.C])
    ways, = said("C to Y 24 and C to O zero at the wall", call: "heat", chosen: { at: "outdoor" })
    expect(ways.map(&:first)).to eq(%w[outdoor.C])
  end

  it "is not long about a line of nothing but breaks" do
    began = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)
    [", " * 99, "fan stands, " * 16, "and then " * 20, "24 and " * 6].each { |line| said(line) }
    expect(Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID) - began).to be < 1.5
  end
end
