# frozen_string_literal: true

require_relative "../../support/finding"
require_relative "../../../bench/rigs"

# What is kept of signatures against what they were made of, hypothesis by hypothesis.
RSpec.describe Gorvant::Diagnosis::Packed do
  it "gives back what each hypothesis shows, tests that show the same in one column, the commonest unsaid" do
    random = Random.new(7)
    pieces =
      Array.new(40) do |i|
        codes = Array.new(12) { |test| test.even? ? %w[b0 b7 b9].sample(random: random) : [12, true].at(i % 2) }
        i % 5 == 2 ? nil : { "codes" => codes, "marks" => { "heat" => ["ice"].first(i % 2) } }
      end
    packed = described_class.new(JSON.parse(JSON.generate(described_class.of(pieces))))
    pieces.each_with_index do |piece, i|
      next unless piece

      shown =
        Array.new(12) do |test|
          group = packed.groups[packed.number(test)]
          group.others.find { |_code, list| list.include?(i) }&.first || group.common
        end
      expect(shown).to eq(piece["codes"].map(&:to_s))
    end
    expect(packed.marks).to eq(pieces.map { |piece| piece && piece["marks"] })
    expect((0...12).select(&:odd?).map { |test| packed.number(test) }.uniq.size).to eq(1)
    expect(packed.groups.map { |group| group.others.values.flatten.size }.max).to be < 27
  end

  it "is laid out as the hypotheses show it by themselves, what comes and goes either way, alike what no test parts" do
    library = Finding.library("single stage", BenchRigs::SINGLE, 34.0)
    maker = Gorvant::Diagnosis::Maker.new(library.situation)
    well = maker.shows(library.hypotheses[library.index("nothing")])["codes"].map(&:to_s)
    library
      .hypotheses
      .each_index
      .to_a
      .sample(30, random: Random.new(11))
      .each do |i|
        one = library.hypotheses[i]
        next if one.none_of_these?

        own = maker.shows(one.steady ? library.hypotheses[library.index(one.steady)] : one)["codes"].map(&:to_s)
        own = own.zip(well).map { |code, plain| code == plain ? code : "#{code}+#{plain}" } if one.steady
        expect(library.tests.map { |test| library.column(test).codes[i] }).to eq(own), one.id
      end
    all = library.tests.map { |test| library.column(test).codes[0...-1] }.transpose
    expect(library.class_of.last).not_to eq(library.class_of.first)
    same = ->(list) { list.each_index.group_by { |i| list[i] }.values.sort }
    expect(same.call(library.class_of[0...-1])).to eq(same.call(all))
  end
end
