# frozen_string_literal: true

# Find against units whose truth is known: tests and minutes to the cause, against a linear hop that skips useless
# steps and against the entropy of what could be so; how often the cause is first; whether a belief of 90 % is right 90
# times in 100; milliseconds. Seeded: `ruby bench/diagnosis.rb [truths a symptom] [seed]`.
require_relative "rigs"
require_relative "../spec/support/finding_trial"

truths, seed = [ARGV[0] || 60, ARGV[1] || 1].map(&:to_i)
SYMPTOMS = %w[
  no_heat
  cold_air_in_heating
  contactor_silent
  no_auxiliary_heat
  thermostat_blank
  blower_silent
  iced_outdoor_unit
].freeze

# The loop from where one stands, point after point; what tells nothing is passed over.
HOP =
  lambda do |finder|
    tests = finder.library.tests.select { |test| test.function == "volts_ac" && test.state == finder.call }
    (tests + finder.library.tests)
      .each do |test|
        next unless finder.next_tests.possible?(test)

        gain = finder.beliefs.gain(finder.library.column(test))
        next if gain < Gorvant::Diagnosis::NextTests::LEAST_BITS

        return_choice =
          Gorvant::Diagnosis::NextTests::Choice.new(
            test: test,
            gain: gain,
            minutes: finder.next_tests.minutes(test),
            worth: 0
          )
        break return_choice
      end
      .then { |found| found.is_a?(Gorvant::Diagnosis::NextTests::Choice) ? found : nil }
  end

mean = ->(list) { list.empty? ? 0.0 : list.sum.to_f / list.size }
calibration = []
BenchRigs::ALL.each do |name, rig|
  library = Finding.library(name, rig, 34.0)
  library.shapes
  puts "#{name}: #{library.size} hypotheses, #{library.classes.size} classes, #{library.tests.size} tests, #{library.shapes.size} distinct"
  puts "complaint              tests worst  bound    hop  fewer     min     hop cheaper  first"
  SYMPTOMS.each do |symptom|
    random = Random.new(seed)
    trial = FindingTrial.new(library, random)
    drawn = Array.new(truths) { trial.draw([symptom]) }
    found = drawn.map { |truth| trial.play(truth, [symptom], mode: "fewest") }
    cheap = drawn.map { |truth| trial.play(truth, [symptom]) }
    hopped = drawn.map { |truth| trial.play(truth, [symptom], &HOP) }
    calibration.concat((found + cheap).flat_map(&:beliefs))
    start = Gorvant::Diagnosis::Finder.new(library, symptoms: [symptom], mode: "fewest")
    remedies =
      start
        .beliefs
        .all
        .each_index
        .group_by { |i| library.remedies[i] }
        .values
        .map { |list| list.sum { |i| start.beliefs[i] } }
    bound = Gorvant::Diagnosis::Scale.entropy(remedies) / start.next_tests.all.map(&:gain).max
    tests, hops = [found, hopped].map { |list| mean[list.map(&:tests)] }
    minutes, hop_minutes = [cheap, hopped].map { |list| mean[list.map(&:minutes)] }
    puts format(
           "%-22s %5.1f %5d %6.1f %6.1f %5.0f%% %7.1f %7.1f %6.0f%% %5.1f%%",
           symptom,
           tests,
           found.map(&:tests).max,
           bound,
           hops,
           (1 - (tests / hops)) * 100,
           minutes,
           hop_minutes,
           (1 - (minutes / hop_minutes)) * 100,
           mean[(found + cheap).map { |one| one.found ? 100.0 : 0.0 }]
         )
  end
  finder = -> { Gorvant::Diagnosis::Finder.new(library, symptoms: %w[no_heat]).next_test }
  finder.call
  puts format("next test %.1f ms", BenchRigs.seconds(9, &finder) * 1000)
end

bins = calibration.group_by { |belief, _right| [(belief * 10).floor, 9].min }.sort
errors =
  bins.map do |_bin, list|
    [list.size, (mean[list.map(&:first)] - mean[list.map { |_belief, right| right ? 1.0 : 0.0 }]).abs]
  end
total = errors.sum(&:first).to_f
puts format(
       "calibration over %d beliefs: expected error %.3f",
       total,
       errors.sum { |count, error| count / total * error }
     )
bins.each do |bin, list|
  puts format(
         "  %.1f to %.1f: %5d beliefs, said %.2f, right %.2f",
         bin / 10.0,
         (bin + 1) / 10.0,
         list.size,
         mean[list.map(&:first)],
         mean[list.map { |_b, right| right ? 1.0 : 0.0 }]
       )
end
