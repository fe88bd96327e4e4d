# frozen_string_literal: true

require_relative "../../support/finding"
require_relative "../../../bench/rigs"

# A reading that all the others speak against: it was misread more probably than not, and is asked for once more.
RSpec.describe "a doubtful reading" do
  let(:find) { Finding.new(Finding.library("single stage", BenchRigs::SINGLE, 34.0)) }
  let(:points) { %w[wall.C wall.Y] }
  # The yellow conductor lives at the air handler and outdoors, and the contactor is in: it cannot be dead at the wall.
  let(:others) do
    [
      ["heat", "volts_ac", %w[air_handler.C air_handler.Y], 24.2],
      ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.1],
      %w[heat seen contactor in]
    ]
  end
  let(:dead) { ["heat", "volts_ac", points, 0.1] }
  let(:live) { ["heat", "volts_ac", points, 24.2] }

  def finder(*told) = find.finder(%w[cold_air_in_heating], *told)
  def doubted(*told) = finder(*told).doubtful&.test&.then { |test| [test.from_node, test.to_node] }

  it "is the one that the rest speaks against, in whatever order they were told, and none where all agree" do
    expect([doubted(dead, *others), doubted(*others, dead), doubted(live, *others)]).to eq([points, points, nil])
  end

  it "is none among too few, and no more once it was read twice, whatever it read then" do
    expect([doubted(dead, *others.first(1)), doubted(dead, *others, live), doubted(dead, *others, dead)]).to all(be_nil)
  end

  it "is among what may be made next, as no other test is that was made" do
    made = finder(dead, *others).evidence.map { |clue| clue.test.id }
    expect(finder(dead, *others).next_tests.all.map { |choice| choice.test.id } & made).to all(eq(made.first))
    id = find.library.tests.find { |test| test.id == made.first }
    possible = [finder(dead, *others), finder(live, *others)].map { |one| one.next_tests.possible?(id) }
    expect(possible).to eq([true, false])
  end

  it "is as probable a slip as misreads and readings together say" do
    beliefs = finder(dead, *others).beliefs
    slip = Gorvant::Diagnosis.numbers.dig("misread", "volts") / Gorvant::Diagnosis::Scale.volts.answers.size # about 0
    rates = beliefs.likelihoods.first
    shown = (0...(beliefs.all.size - 1)).sum { |i| beliefs.all[i] * (slip / rates[i]) }
    expect([beliefs.misread(0), beliefs.misread(0)]).to match([be > 0.5, be_within(1e-9).of(shown)])
    expect(beliefs.misread(1)).to be < 0.05
  end

  it "says why it is asked for again" do
    told = [["heat", "volts_ac", points, 0.1], *others]
    here = { mode: "here", stands: "wall" }
    before = find.finder(%w[cold_air_in_heating], *told, **here).next_tests.all.map { |choice| choice.test.id }
    passed = before.take_while { |id| !id.include?("|heat|wall.C|wall.Y|") }
    page = Gorvant::Desks::Find::Words.new(find.finder(%w[cold_air_in_heating], *told, **here, skip: passed)).to_h
    asked = [page[:next], *page.dig(:next, :others)].compact.to_h { |test| [test[:id], test[:again]] }
    expect(asked.compact.values).to eq(
      ["Told already: 0.1 V. By all the rest that was more likely a slip than not: once more."]
    )
    expect(asked.key(asked.compact.values.first)).to include("wall.C|wall.Y")
  end
end
