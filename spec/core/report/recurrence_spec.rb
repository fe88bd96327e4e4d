# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::Recurrence do
  cases = ->(count, iced, board, unit: nil) do
    Array.new(count) do |i|
      described_class::Case.new(
        unit_id: unit || "#{board}#{i}",
        whats: i < iced ? { "complaint.iced" => "Iced" } : { "complaint.no_heat" => "No heat" },
        traits: {
          "board_family" => board
        }
      )
    end
  end

  it "says nothing of few visits" do
    few = described_class.new(cases.call(7, 5, "quern"))
    expect([few.enough?, few.often, few.apart]).to eq([false, [], []])
    expect(described_class.new(cases.call(8, 5, "quern")).enough?).to be(true)
  end

  it "counts visits and units, with an interval that holds the share and is the narrower the more there are" do
    some, many = [8, 80].map { |count| described_class.new(cases.call(count, count / 2, "quern")).often.first }
    [some, many].each { |one| expect([one.low, 0.5, one.high]).to eq([one.low, 0.5, one.high].sort) }
    expect(many.high - many.low).to be < some.high - some.low
    one_unit = described_class.new(cases.call(8, 4, "quern", unit: "u")).often.first
    expect([one_unit.count, one_unit.of, one_unit.units]).to eq([4, 8, 1])
  end

  # [iced of one board, of the other, each of so many, what stands apart]
  [
    [18, 2, 20, [["quern", 18], ["sedge", 2]]],
    [11, 9, 20, []],
    [6, 1, 7, []],
    [10, 10, 20, []]
  ].each do |one, other, each, apart|
    it "of #{each} each, #{one} and #{other}: #{apart.empty? ? "nothing stands apart" : apart}" do
      found = described_class.new(cases.call(each, one, "quern") + cases.call(each, other, "sedge")).apart
      expect(
        found
          .select { |line| line.what == "Iced" }
          .map { |line| [line.value[/Quern|Sedge/].to_s.downcase, line.count] }
          .sort
      ).to eq(apart)
    end
  end

  # [year it was installed, day of the visit, its age, how it is held apart]
  [
    [2026, "2026-01-02", 0, "under 5 years"],
    [2022, "2026-12-31", 4, "under 5 years"],
    [2021, "2026-01-01", 5, "5 to 9 years"],
    [2017, "2026-06-01", 9, "5 to 9 years"],
    [2012, "2026-06-01", 14, "10 to 14 years"],
    [2011, "2026-06-01", 15, "15 years and more"],
    [1950, "2026-06-01", 76, "15 years and more"],
    [2027, "2026-06-01", nil, nil],
    [nil, "2026-06-01", nil, nil]
  ].each do |year, on, age, band|
    it "takes a unit of #{year.inspect} on #{on} for #{band || "of no known age"}" do
      expect(described_class.age(year, Date.iso8601(on))).to eq(age)
      of = described_class.case_of("u", rig, [], nil, age_years: age)
      expect(of.traits["age"]).to eq(band)
    end
  end

  it "says what is met more often among old units than among young" do
    aged =
      Array.new(24) do |i|
        old = i < 12
        described_class.case_of("u#{i}", rig, [], old && i < 11 ? "HPS open" : nil, age_years: old ? 16 : 3)
      end
    told = described_class.new(aged).apart.select { |one| one.trait == "Age" }
    expect(told.map { |one| [one.value, one.count, one.of] }).to contain_exactly(
      ["15 years and more", 11, 12],
      ["under 5 years", 0, 12]
    )
  end

  it "takes only what was read of a unit for its traits" do
    fitted = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
    expect(described_class.case_of("u", fitted, ["no_heat"], "LPS open").traits).to eq({})
    expect(described_class.case_of("u", fitted, ["no_heat"], "LPS open").whats.values).to eq(["No heat", "LPS open"])
    read = rig
    expect(described_class.case_of("u", read, [], nil).traits.keys).to match_array(
      described_class::TRAITS.select { |key| read.asks?(key) } - read.assumed
    )
  end
end
