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
