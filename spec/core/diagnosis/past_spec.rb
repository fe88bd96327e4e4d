# frozen_string_literal: true

require_relative "../../support/finding"

# What earlier visits to the unit found weighs more today, fades, and proves nothing.
RSpec.describe Gorvant::Diagnosis::Past do
  let(:find) { Finding.new(Finding.library("one stage", Gorvant::Composer.compose(name: "One", facts: {}), 34.0)) }
  let(:numbers) { Gorvant::Diagnosis.numbers.fetch("earlier") }

  def past(id, title: "", days: 0, mended: true) =
    described_class.read([{ "on" => "2026-01-05", "days" => days, "id" => id, "title" => title, "mended" => mended }])

  def belief(finder, id) = finder.beliefs[find.library.index(id)]

  # How much more one weighs against another that has nothing to do with it, by what was told before.
  def rise(id, pasts, beside: "open:RVS")
    with, without = [pasts, []].map { |list| find.finder(%w[no_heat], past: list) }
    belief(with, id) / belief(with, beside) / (belief(without, id) / belief(without, beside))
  end

  {
    "what was put right, again" => ["open:CC", ["open:CC"], "again"],
    "what was left" => ["open:CC", ["open:CC", { mended: false }], "not_mended"],
    "the same, come and gone" => ["open:CC_at_times", ["open:CC"], "again"],
    "another fault of the part" => ["coil_shorted:CC", ["open:CC"], "same_part"],
    "what is as designed, complained of again" => %w[wall_hold wall_hold as_designed],
    "what comes and goes, after nothing was found" => ["open:cable_a.yellow_at_times", ["nothing"], "not_found"]
  }.each do |name, (id, (told, more), rate)|
    it "makes #{name} weigh more" do
      expect(rise(id, past(told, **more.to_h))).to be_within(1e-6).of(numbers.fetch(rate))
    end
  end

  {
    "another part" => ["open:RVS", %w[open:CC], "open:OFM"],
    "what this unit cannot have" => ["open:CC", %w[open:Q9], "open:RVS"],
    "a steady fault, after nothing was found" => ["open:CC", %w[nothing], "open:RVS"]
  }.each do |name, (id, told, beside)|
    it("leaves #{name} as it was") { expect(rise(id, past(*told), beside: beside)).to be_within(1e-6).of(1.0) }
  end

  it "knows it by its title where no id was kept" do
    title = find.library.hypotheses[find.library.index("open:CC")].title
    expect(rise("open:CC", past(nil, title: title))).to be_within(1e-6).of(numbers["again"])
    expect(rise("open:CC", past(nil, title: "Loose belt"))).to be_within(1e-6).of(1.0)
  end

  it "fades by half in each half-life, and of several the strongest counts" do
    half = past("open:CC", days: numbers["half_life_days"], mended: false)
    expect(rise("open:CC", half)).to be_within(1e-6).of(1 + ((numbers["not_mended"] - 1) / 2))
    expect(rise("open:CC", past("open:CC") + half)).to be_within(1e-6).of(1 + ((numbers["not_mended"] - 1) / 2))
  end

  it "proves nothing: without a reading nothing is sure, and a reading against it counts as ever" do
    left = past("open:CC", mended: false)
    told = [["heat", "volts_ac", %w[outdoor.C outdoor.Y], 0.0], ["heat", "volts_ac", %w[wall.C wall.Y], 0.0]]
    expect(find.finder(%w[contactor_silent], past: left)).not_to be_sure
    expect(find.beliefs(find.finder(%w[contactor_silent], *told, past: left)).fetch("open:CC", 0.0)).to be < 0.05
  end

  it "is named with its day, and only where it counts" do
    said = ->(pasts) do
      Gorvant::Desks::Find::Words.new(find.finder(%w[no_heat], past: pasts)).to_h[:assumed].grep(/2026-01-05/)
    end
    title = find.library.hypotheses[find.library.index("open:CC")].title
    expect(said.call(past("open:CC", title: title))).to contain_exactly(include(title, "Put right then"))
    expect(said.call(past("open:CC", title: title, mended: false))).to contain_exactly(include(title, "Not put right"))
    expect(said.call(past("nothing"))).to contain_exactly(include("nothing to put right"))
    expect(said.call(past("open:Q9", title: "Loose belt"))).to eq([])
  end
end
