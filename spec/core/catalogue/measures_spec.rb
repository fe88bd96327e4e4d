# frozen_string_literal: true

require_relative "../../support/core"

# One formatter turns what the core says into the units that a person chose: a temperature by offset and factor, a
# difference of two by the factor alone, a pressure or a length by its factor.
RSpec.describe Gorvant::Measures do
  def strings(value)
    case value
    when Hash
      value.values.flat_map { |inner| strings(inner) }
    when Array
      value.flat_map { |inner| strings(inner) }
    else
      value.is_a?(String) ? [value] : []
    end
  end
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
    "25–30 °F" => "-3.9–-1.1 °C",
    "110 psi and 42 ft" => "110 psi and 42 ft",
    "°F" => "°F"
  }.each do |fahrenheit, celsius|
    it("says “#{celsius}” for “#{fahrenheit}”") { expect(described_class.sentence(fahrenheit, ["C"])).to eq(celsius) }
  end

  {
    "true suction 110 psi" => "true suction 758 kPa",
    "60 to 180 psi apart" => "414 to 1241 kPa apart",
    "in psi or so" => "in kPa or so",
    "psi" => "psi",
    "place true_suction_psi" => "place true_suction_psi",
    "cable_a: 18 AWG, 42 ft" => "cable_a: 18 AWG, 12.8 m",
    "ft" => "ft",
    "12 ftlb, 3 psia, left" => "12 ftlb, 3 psia, left",
    "at 14 °F and 10 psi over 100 ft" => "at 14 °F and 69 kPa over 30.5 m"
  }.each do |core, metric|
    it("says “#{metric}” for “#{core}”") { expect(described_class.sentence(core, %w[kPa m])).to eq(metric) }
  end

  it "takes each unit by itself, in any order, and what is none for nothing" do
    lists = ["C kPa m", "m,kPa,C", "K bar m", "", nil]
    expect(lists.map { |list| described_class.chosen(list) }).to eq([%w[C kPa m], %w[C kPa m], %w[m], [], []])
  end

  it "comes back to the number it went from, whichever the unit" do
    %w[C kPa m]
      .product([-40.0, 0.0, 32.0, 110.5])
      .each do |name, value|
        there = described_class.to(name, value)
        expect([name, described_class.from(name, there).round(9)]).to eq([name, value])
      end
  end

  it "keeps °F as it was said, without the mark of a difference" do
    expect(described_class.sentence("error of 9 #{delta}", [])).to eq("error of 9 °F")
  end

  it "turns every word of an answer and no number or key" do
    given = { "°F" => 32, "says" => ["32 °F", { "deep" => "212 °F" }], "on" => true, "none" => nil }
    expect(described_class.all(given, ["C"])).to eq(
      "°F" => 32,
      "says" => ["0 °C", { "deep" => "100 °C" }],
      "on" => true,
      "none" => nil
    )
  end

  it "leaves a person's own words as they were written" do
    given = { "says" => "32 °F", "visit" => { "complaint" => "cold at 30 °F", "says" => "50 °F" } }
    expect(described_class.all(given, ["C"]) { |key, _whole| key == "complaint" }).to eq(
      "says" => "0 °C",
      "visit" => {
        "complaint" => "cold at 30 °F",
        "says" => "10 °C"
      }
    )
  end

  # A temperature whose unit stands only behind another one ("closes at 40 and opens at 45 °F") would keep its figure.
  it "turns each temperature of every template, whatever stands between it and the next unit" do
    temperatures = %w[asked closes coil degrees high low opens outdoor residual shipped].map(&:to_sym)
    templates =
      %i[wording verdicts findings].flat_map { |table| strings(Gorvant::Catalogue.public_send(table)) }.grep(/°F/)
    unturned =
      templates.select do |template|
        names = template.scan(/%<(\w+)>s/).flatten.uniq.map(&:to_sym)
        fields =
          names.each_with_index.to_h do |name, i|
            [name, temperatures.include?(name) ? (41.3 + (i * 1.7)).round(1).to_s : ", it"]
          end
        said = described_class.sentence(format(template, fields), ["C"])
        (temperatures & names).any? { |name| said.include?(fields[name]) }
      end
    expect(unturned).to eq([])
    expect(templates.size).to be > 80
  end

  it "leaves no figure unturned in any sentence of the catalogue that has one" do
    words = Gorvant::Catalogue.wording.values.grep(/\d.*°F/)
    expect(words.map { |text| described_class.sentence(text, ["C"]) }.grep(/°F/)).to eq([])
  end
end
