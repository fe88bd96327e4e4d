# frozen_string_literal: true

require_relative "../../support/core"

# One formatter turns what the core says into °C: a temperature by offset and factor, a difference by the factor alone.
RSpec.describe Gorvant::Degrees do
  delta = described_class::DELTA

  {
    "32 °F" => "0 °C",
    "the coil is at 70 °F" => "the coil is at 21.1 °C",
    "-40 °F" => "-40 °C",
    "28 to 32 °F" => "-2.2 to 0 °C",
    "30/60 °F" => "-1.1/15.6 °C",
    "error of 9 #{delta}" => "error of 5 °C",
    "+1.8 #{delta}" => "+1 °C",
    "1.8#{delta} over" => "1 °C over",
    "no number, °F alone" => "no number, °C alone",
    "24 V at 50 °F, then 14 °F" => "24 V at 10 °C, then -10 °C",
    "24.3 V" => "24.3 V",
    "°F" => "°F"
  }.each do |fahrenheit, celsius|
    it("says “#{celsius}” for “#{fahrenheit}”") { expect(described_class.sentence(fahrenheit, "C")).to eq(celsius) }
  end

  it "keeps °F as it was said, without the mark of a difference" do
    expect(described_class.sentence("error of 9 #{delta}", "F")).to eq("error of 9 °F")
  end

  it "turns every word of an answer and no number or key" do
    given = { "°F" => 32, "says" => ["32 °F", { "deep" => "212 °F" }], "on" => true, "none" => nil }
    expect(described_class.all(given, "C")).to eq(
      "°F" => 32,
      "says" => ["0 °C", { "deep" => "100 °C" }],
      "on" => true,
      "none" => nil
    )
  end

  it "leaves a person's own words as they were written" do
    given = { "says" => "32 °F", "visit" => { "complaint" => "cold at 30 °F", "says" => "50 °F" } }
    expect(described_class.all(given, "C", own: %w[complaint])).to eq(
      "says" => "0 °C",
      "visit" => {
        "complaint" => "cold at 30 °F",
        "says" => "10 °C"
      }
    )
  end

  it "leaves no figure unturned in any sentence of the catalogue that has one" do
    words = Gorvant::Catalogue.wording.values.grep(/\d.*°F/)
    expect(words.map { |text| described_class.sentence(text, "C") }.grep(/°F/)).to eq([])
  end
end
