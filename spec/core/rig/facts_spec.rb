# frozen_string_literal: true

require_relative "../../support/core"

# Every question about a unit: what it takes, what it refuses and how it says so, and what stands for it until it is
# read.
RSpec.describe Gorvant::Rig do
  facts = Gorvant::Catalogue.facts
  let(:plain) { Gorvant::Composer.compose(name: "Facts", facts: {}) }

  def problems(key, value) = Gorvant::Rig::Check.new(plain).value(key, value, Gorvant::Catalogue.facts.fetch(key))

  facts.each do |key, about|
    it "#{key} takes what it offers and refuses all else at its own field" do
      good, bad =
        case about["kind"]
        when "choice"
          [about["of"].keys, ["none of these", nil, 3.7, [], {}]]
        when "flag"
          [[true, false], ["yes", 1, nil, []]]
        when "number"
          [
            about.values_at("low", "high"),
            [about["low"] - 0.01, about["high"] + 0.01, "12", nil, true, Float::NAN, Float::INFINITY]
          ]
        when "list"
          [[[], about["of"].keys, about["of"].keys.first(1)], [about["of"].keys.first(1) * 2, ["XYZ"], "LPS", nil]]
        when "table"
          [[about["default"]], [[], [[0, 5]], [[10, 5], [0, 5]], [[0, "x"], [1, 5]], nil, "table"]]
        end
      expect(good.to_h { |value| [value, problems(key, value)] }.reject { |_value, wrong| wrong.empty? }).to eq({})
      bad.each do |value|
        wrong = problems(key, value)
        expect(wrong).not_to be_empty, "#{key} took #{value.inspect}"
        expect(wrong.map { |one| one["field"] }).to all(start_with("/facts/#{key}/value"))
        expect(wrong.map { |one| one["problem"] }).to all(
          match(/has to|unknown|known are|times|comes after|one of|more than/)
        ),
        wrong.inspect
      end
    end

    it "#{key} has a default that it takes itself, for whatever else may be fitted" do
      defaults = [about["default"], *about.fetch("default_by", {}).values.flat_map(&:values)]
      expect(defaults.map { |value| problems(key, value) }.flatten).to eq([])
      about
        .fetch("default_by", {})
        .each { |other, values| expect(values.keys.map { |value| problems(other, value) }.flatten).to eq([]) }
    end
  end

  it "asks each question in words of its own, in one of the groups of the composer" do
    asked = facts.map { |key, about| [about["title"], about["asks"], about["when"].to_s, key.start_with?("gas_cut")] }
    expect(asked.uniq.size).to eq(asked.size)
    expect(facts.values.map { |about| about["group"] }.uniq).to match_array(%w[wall indoor outdoor board settings])
  end

  it "leans only on facts that are there, with values that those take" do
    facts.each do |key, about|
      about
        .fetch("when", {})
        .each do |other, values|
          expect(facts).to have_key(other), "#{key} hangs on #{other}"
          expect(Array(values).map { |value| problems(other, value) }.flatten).to eq([])
        end
    end
  end

  it "goes by the profile's default until an answer is given, and back to it when the answer is taken back" do
    reversed = Gorvant::Composer.compose(name: "B", facts: { "changeover" => "B", "changeover_terminal" => "single" })
    expect([plain[:changeover_setup], reversed[:changeover_setup]]).to eq(%w[O B])
    told = plain.set("transformer_va" => 60)
    expect([plain[:transformer_va], told[:transformer_va], told.set("transformer_va" => 75)[:transformer_va]]).to eq(
      [40, 60, 75]
    )
    expect(plain[:transformer_va]).to eq(40)
  end

  it "counts as assumed what nobody read, and no longer once somebody did" do
    expect(plain.assumed).to include("transformer_va", "changeover")
    read = plain.set({ "transformer_va" => 40 }, "measured")
    expect(read.assumed).to eq(plain.assumed - ["transformer_va"])
  end

  it "suggests the nearest name where one was mistyped" do
    expect(problems("backup", "strip").first["problem"]).to include("strips")
    expect(problems("board_family", "quernn").first["problem"]).to include("quern")
  end
end
