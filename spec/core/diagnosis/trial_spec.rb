# frozen_string_literal: true

require_relative "../../support/finding_trial"

# A small part of bench/diagnosis.rb: Find against specimens drawn within their tolerances, a person who misreads three
# answers in a hundred, and truths drawn by their shares.
RSpec.describe "Find against units whose truth is known" do
  let(:library) { Finding.library("trial", Gorvant::Composer.compose(name: "One stage", facts: {}), 34.0) }

  def mean(list) = list.sum.to_f / list.size

  it "has the truth first, in few tests, and believes about as much as is so" do
    trial = FindingTrial.new(library, Random.new(11))
    played =
      %w[no_heat contactor_silent no_auxiliary_heat iced_outdoor_unit].flat_map do |symptom|
        Array.new(10) { trial.play(trial.draw([symptom]), [symptom], mode: "fewest") }
      end
    expect(played.count(&:found)).to be >= played.size * 0.9
    expect(mean(played.map(&:tests))).to be <= 7.5
    told = played.flat_map(&:beliefs)
    expect(mean(told.map(&:first))).to be_within(0.08).of(mean(told.map { |_belief, right| right ? 1.0 : 0.0 }))
    sure = told.select { |belief, _right| belief >= 0.95 }
    expect(sure.count { |_belief, right| right }).to be >= sure.size * 0.88
  end

  it "seldom condemns a sound part where two are bad at once, or where a fact is noted wrongly" do
    trial = OutsideTrial.new(library, Random.new(3), misread: 0.0)
    truths = %w[no_heat iced_outdoor_unit].flat_map { |symptom| Array.new(8) { [trial.pair([symptom]), symptom] } }
    noted = trial.noted_wrongly.sample(8, random: Random.new(3)).map { |one| [one, "no_heat"] }
    ended = (truths + noted).map { |truth, symptom| [truth, trial.ended(truth, [symptom])] }
    expect(ended.map { |_truth, finder| finder.evidence.size }).to all(be_positive)
    expect(ended.count { |truth, finder| trial.wrongly?(finder, truth, 0.8) }).to be <= 1
  end

  it "takes less time by choosing for time" do
    truths = FindingTrial.new(library, Random.new(5)).then { |trial| Array.new(16) { trial.draw(%w[no_heat]) } }
    minutes =
      %w[cheapest fewest].map do |mode|
        truths
          .map do |truth|
            FindingTrial.new(library, Random.new(truth), misread: 0.0).play(truth, %w[no_heat], mode: mode).minutes
          end
          .sum
      end
    expect(minutes[0]).to be < minutes[1]
  end
end
