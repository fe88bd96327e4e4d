# frozen_string_literal: true

require_relative "../../support/finding_trial"

# What was complained of does not show now: said when it was looked at and is not there, never because nobody looked.
RSpec.describe "A complaint that does not show now" do
  let(:find) { Finding.new(Finding.library("one stage", Gorvant::Composer.compose(name: "One", facts: {}), 34.0)) }
  let(:well) do
    [
      %w[heat seen vapour_line_by_hand hot],
      %w[heat seen blower blows],
      %w[heat seen outdoor_fan turns],
      ["heat", "volts_ac", %w[outdoor.C outdoor.O], 0.0],
      %w[heat seen compressor runs],
      ["heat", "volts_ac", %w[outdoor.C outdoor.Y], 24.2]
    ]
  end

  def said(finder) = Gorvant::Desks::Find::Words.new(finder).to_h[:outcome]

  it "is said once its own call was read and runs as it should, and clears nothing" do
    finder = find.finder(%w[no_heat], *well)
    expect(finder).to be_not_now.and be_settled
    expect(finder.sure?).to be(false)
    outcome = said(finder)
    expect([outcome[:key], outcome[:says]]).to match(["not_now", /does not show now, 9\d% \(readings: 6\)/])
    expect(outcome[:not_proved]).to match(/clears nothing.*comes and goes/)
    expect(finder.next_test).not_to be_nil # it can be looked on
  end

  {
    "a lukewarm line" => [%w[no_heat], ->(list) { [%w[heat seen vapour_line_by_hand lukewarm], *list.drop(1)] }],
    "a blower that stands" => [%w[no_heat], ->(list) { [list[0], %w[heat seen blower stands], *list.drop(2)] }],
    "nothing read" => [%w[no_heat], ->(_list) { [] }],
    "one reading alone" => [%w[no_heat], ->(list) { list.first(1) }],
    "readings of another call" => [%w[no_heat], ->(list) { list.map { |_call, *rest| ["fan", *rest] }.drop(1) }],
    "no complaint" => [[], ->(list) { list }],
    "a second complaint that nobody looked at" => [%w[no_heat blower_silent], ->(list) { list }],
    "a complaint that the weather forbids to run" => [%w[no_cooling], ->(list) { list }],
    "readings in the call that the weather forbids" => [
      %w[no_cooling],
      ->(list) { [*list, ["cool", "volts_ac", %w[outdoor.C outdoor.Y], 0.0], %w[cool seen blower stands]] }
    ]
  }.each do |name, (symptoms, told)|
    it("is not said with #{name}") { expect(find.finder(symptoms, *told.call(well))).not_to be_not_now }
  end

  it "is said as designed where what is right is complained of" do
    expect(said(find.finder(%w[cold_air_in_heating], *well))[:key]).to eq("as_designed")
  end

  it "ends a way of the road map, with what is left to do" do
    told = well.map { |one| find.clue(*one) }
    start = ->(clues) { Gorvant::Diagnosis::Finder.new(find.library, symptoms: %w[no_heat], evidence: told + clues) }
    drawn = Gorvant::Desks::Find::Words.new(start.call([])).road_map { |clues| start.call(clues) }
    expect([drawn[:leaves], drawn[:tree]]).to match([1, include(title: "Does not show now", share: /9\d%/, sure: true)])
    expect(drawn[:tree][:proof]).to include("min and max")
  end

  it "is not settled while a hold is waited out, and is after it" do
    kiln = Finding.new(Finding.library("kiln", rig("lantern_kiln"), 34.0))
    within = kiln.finder(%w[contactor_silent], ["heat", "minutes", "since_stop", 1.0], stopped_minutes: 1.0)
    expect([kiln.top(within), within.sure?, within.settled?]).to eq(["hold", true, false])
    expect(within.next_test.test.place).to eq("after_the_wait")
    over =
      kiln.finder(
        %w[contactor_silent],
        ["heat", "minutes", "since_stop", 1.0],
        %w[heat seen after_the_wait in],
        stopped_minutes: 6.0
      )
    expect(over.next_test&.test&.place).not_to eq("after_the_wait")
  end

  # A switch that is stuck shut makes no ice: whoever is told “iced” and finds a coil as it should be is not sent to it.
  it "takes a unit for iced where a look at the coil may find ice, and nowhere else" do
    library = find.library
    look = library.column(library.tests.find { |test| test.place == "ice" })
    odd =
      library.hypotheses.each_index.reject do |i|
        marks = library.marks_of(i)
        library.hypotheses[i].none_of_these? || library.hypotheses[i].steady ||
          marks["heat"].include?("ice") ==
            !%w[usual_frost no_frost].include?(Gorvant::Diagnosis::Scale.usual(look.codes[i]))
      end
    expect(odd.map { |i| library.hypotheses[i].id }).to eq([])
    finder = find.finder(%w[iced_outdoor_unit], %w[heat seen ice thin_even], *well)
    lps = library.index("stuck_closed:LPS")
    expect(finder.beliefs[lps]).to be < 0.02
    expect(finder.beliefs.shows?(lps, "iced_outdoor_unit")).to be(false)
  end

  it "is looked for in its own call before what else may be wrong, wherever another call says that it does not show" do
    elsewhere = ["heat", "volts_ac", %w[wall.C wall.R], 24.2]
    finder = find.finder(%w[thermostat_blank], elsewhere)
    asked = finder.next_test.test
    expect([finder.not_now?, find.library.situation.state(asked.state).condition.call]).to eq([false, "off"])
    shown, lit =
      %w[blank lit].map { |choice| find.finder(%w[thermostat_blank], elsewhere, ["off", "seen", "display", choice]) }
    expect([shown.not_now?, lit.not_now?]).to eq([false, true])
  end

  # At the wall nothing tells more of ice; outdoors something does.
  it "is not said for want of tests at the place where one stands" do
    told = [
      %w[heat seen ice thin_even],
      ["heat", "volts_ac", %w[outdoor.C outdoor.board.M], 24.2],
      %w[heat seen vapour_line_by_hand hot],
      %w[heat seen outdoor_fan turns],
      %w[heat seen compressor runs],
      ["heat", "volts_ac", %w[outdoor.C outdoor.board.DFT_2], 24.2, { condition: { "coil_degrees_f" => 20.0 } }]
    ]
    here = find.finder(%w[iced_outdoor_unit], *told, mode: "here", stands: "wall")
    anywhere = find.finder(%w[iced_outdoor_unit], *told)
    expect(here.absent_belief).to be_between(0.9, 0.95)
    expect([here.own_look, here.not_now?]).to eq([nil, false])
    expect(anywhere.own_look.test.place).to eq("forced_defrost")
  end

  # Nothing wrong, whatever is complained of: what else could be found in a whole unit is not looked for to the end.
  %w[no_heat contactor_silent no_auxiliary_heat thermostat_blank blower_silent iced_outdoor_unit].each do |symptom|
    it "ends soon where nothing of #{symptom} is there" do
      trial = FindingTrial.new(find.library, Random.new(4), misread: 0.0)
      played = Array.new(3) { trial.play(find.library.index("nothing"), [symptom], mode: "fewest") }
      expect(played.map(&:found)).to all(be(true))
      expect(played.map(&:tests).sort[1]).to be <= 7 # a look may be odd by itself, such as snow that blew in
    end
  end

  # Every fault that shows the complaint, by its own answers: found, left open, never told away.
  %w[no_heat no_auxiliary_heat blower_silent contactor_silent].each do |symptom|
    it "is never said of #{symptom} while it shows" do
      library = find.library
      start = Gorvant::Diagnosis::Finder.new(library, symptoms: [symptom])
      shown =
        library.hypotheses.each_index.select do |i|
          one = library.hypotheses[i]
          !one.none_of_these? && one.steady.nil? && !one.as_designed? && start.beliefs.shows?(i, symptom)
        end
      trial = FindingTrial.new(library, Random.new(9), misread: 0.0)
      told_away =
        shown
          .sample(40, random: Random.new(3))
          .select { |truth| trial.play(truth, [symptom]).not_now && !trial.mild?(truth) }
      expect(told_away.map { |i| library.hypotheses[i].id }).to eq([])
    end
  end
end
