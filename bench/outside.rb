# frozen_string_literal: true

# Find against what it has no hypothesis of: two faults at once, and a fact noted wrongly that it does not ask about:
# how often does a part that is none of the truth stand above 0.8? Seeded: `ruby bench/outside.rb [pairs] [seed]`.
require_relative "rigs"
require_relative "../spec/support/finding_trial"

pairs, seed = [ARGV[0] || 60, ARGV[1] || 1].map(&:to_i)
ABOVE = 0.8
BUDGET = 0.02
SYMPTOMS = %w[no_heat cold_air_in_heating contactor_silent no_auxiliary_heat thermostat_blank iced_outdoor_unit].freeze

all = 0
wrong = []
BenchRigs::ALL.each do |name, rig|
  library = Finding.library(name, rig, 34.0)
  trial = OutsideTrial.new(library, Random.new(seed), misread: 0.0)
  truths = SYMPTOMS.flat_map { |symptom| Array.new(pairs) { [trial.pair([symptom]), symptom] } }
  truths += trial.noted_wrongly.map { |one| [one, SYMPTOMS.first] }
  ended = truths.map { |truth, symptom| [truth, trial.ended(truth, [symptom])] }
  mistaken = ended.select { |truth, finder| trial.wrongly?(finder, truth, ABOVE) }
  puts format("%-22s %4d truths, a wrong part above %.1f in %d", name, ended.size, ABOVE, mistaken.size)
  mistaken.each do |truth, finder|
    first = library.hypotheses[finder.top.indexes.first].id
    puts format("  %s: %s %.2f, %d tests", truth.whole.id, first, finder.remedy_belief, finder.evidence.size)
  end
  all += ended.size
  wrong.concat(mistaken)
end
puts format("%.1f %% of %d (budget %.0f %%)", wrong.size * 100.0 / all, all, BUDGET * 100)
