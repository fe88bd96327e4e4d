# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::Practice::Repetition do
  # By the published rule: 1 day, 6 days, then the last interval times the ease; the ease moves by the grade.
  it "lengthens as the published schedule does" do
    days = (1..5).map { |count| described_class.after([100] * count).days }
    expect(days.first(3)).to eq([1, 6, 17]) # ease 2.8 by then
    expect(days).to eq(days.sort)
    expect(described_class.after([85] * 3).days).to eq(15) # grade 4 leaves the ease at 2.5
  end

  it "begins anew after a drill that went badly, with less ease and never under the least" do
    bad = described_class.after([100, 100, 100, 10])
    expect([bad.days, bad.streak, bad.standing]).to eq([1, 0, "shaky"])
    expect(bad.ease).to be < described_class.after([100, 100, 100]).ease
    expect(described_class.after([0] * 20).ease).to eq(1.3)
  end

  it "is new before the first, shaky at a low grade, sure after a good one" do
    expect(described_class.fresh.standing).to eq("new")
    expect(described_class.after([59]).standing).to eq("shaky")
    expect(described_class.after([60]).standing).to eq("sure")
    expect(described_class.grade_of(0)).to eq(0)
    expect(described_class.grade_of(95)).to eq(5)
    expect(described_class.grade_of(94)).to eq(4)
  end

  it "never waits longer than half a year" do
    expect(described_class.after([100] * 30).days).to eq(180)
  end
end
