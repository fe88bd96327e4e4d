# frozen_string_literal: true

require_relative "../../support/finding"

# What a test takes away: a power that was off has a hold begin anew, a count lost, a code cleared.
RSpec.describe "What a test disturbs" do
  def find(name, **facts) =
    Finding.new(Finding.library(name, Gorvant::Composer.compose(name: name, facts: facts.transform_keys(&:to_s)), 34.0))
  let(:plain) { find("disturbs plain") }
  let(:delays) { find("disturbs delays", board_family: "osier") }

  def test(find, function) = find.library.tests.find { |one| one.function == function && one.place == "CC" }
  def cautions(find, one)
    finder = find.finder(%w[contactor_silent])
    Gorvant::Desks::Find::Words.new(finder).send(:cautions, one).grep(/hold begins|count is lost|clears a fault code/)
  end

  it "is said at the step, by what the board in hand forgets, the lamp first" do
    said = [plain, delays].map { |one| cautions(one, test(one, "ohms")) }
    expect(said.map(&:size)).to eq([1, 3])
    expect(said.last).to include(/hold begins anew/, /count is lost/, /read the board's lamp first/)
    volts = delays.library.tests.find { |one| one.function == "volts_ac" && one.to_node == "outdoor.board.T1" }
    expect(cautions(delays, volts)).to eq([])
  end

  it "follows the board's own facts: a count that survives, a hold that does not begin with the power" do
    keeps = find("disturbs nothing", clock_survives_power: true)
    expect(cautions(keeps, test(keeps, "ohms"))).to eq([])
    codes = find("disturbs code", board_family: "osier", hold_on_power: false, clock_survives_power: true)
    expect(codes.finder(%w[no_heat]).next_tests.disturbs(test(codes, "ohms"))).to eq(%w[code])
  end

  it "is part of the price, of what has the power off alone" do
    minutes = ->(find, one) { find.finder(%w[no_heat], stands: "outdoor").next_tests.minutes(one) }
    ohms = [plain, delays].map { |one| minutes.call(one, test(one, "ohms")) }
    expect(ohms[1] - ohms[0]).to be_within(1e-6).of(
      Gorvant::Diagnosis.numbers["disturbs"].values_at("hold", "code").sum
    )
    look =
      [plain, delays].map do |one|
        minutes.call(one, one.library.tests.find { |seen| seen.place == "outdoor_fan" && seen.state == "heat" })
      end
    expect(look.uniq.size).to eq(1)
  end
end
