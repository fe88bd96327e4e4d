# frozen_string_literal: true

# Drills of free benches, seeded, over all subjects and levels: how many can be had, whether Find's own play has full
# marks and a guess has not, and seconds a drill. `ruby bench/practice.rb [drills] [seed]`.
require_relative "rigs"
require_relative "../spec/support/practice_trial"

wanted, seed = [ARGV[0] || 200, ARGV[1] || 1].map(&:to_i)
numbers = Gorvant::Practice.numbers
demo = File.expand_path("../db/demo/rigs", __dir__)
rigs =
  {
    "boathouse_north" => 34.0,
    "heron_loft" => 62.0,
    "lantern_kiln" => 28.0,
    "bakery_shop" => 50.0
  }.map { |name, outdoor| [Gorvant::Formats::RigJson.read(JSON.parse(File.read("#{demo}/#{name}.json"))), outdoor] }
kinds = numbers["subjects"].keys.product(numbers["levels"].keys)
random = Random.new(seed)
played = []
none = Hash.new(0)
clock = -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) }
began = clock.call
until played.size >= wanted
  rig, outdoor = rigs.sample(random: random)
  subject, level = kinds.sample(random: random)
  drill = PracticeTrial.maker(rig, outdoor).drill(subject, level, random.rand(2**31))
  next none["#{subject} #{level}"] += 1 unless drill

  library = PracticeTrial.library(rig, outdoor)
  marks = PracticeTrial.new(drill, library).perfect.marks
  guess = PracticeTrial.new(drill, library).guess(random).marks
  played << [subject, level, marks, guess, drill.par.tests]
end
mean = ->(list) { list.sum.to_f / list.size }
puts "subject        drills  tests  worst   Find's marks, least   guess, mean"
played
  .group_by(&:first)
  .each do |subject, list|
    tests = list.map(&:last)
    puts format(
           "%-14s %6d %6.1f %6d %21d %13.1f",
           subject,
           list.size,
           mean[tests],
           tests.max,
           list.map { |one| one[2] }.min,
           mean[list.map { |one| one[3] }]
         )
  end
puts format(
       "%d drills, %.2f s each, guess at most %d",
       played.size,
       (clock.call - began) / played.size,
       played.map { |one| one[3] }.max
     )
puts "not to be had: #{none.sort_by { |_kind, count| -count }.map { |kind, count| "#{kind} (#{count})" }.join(", ")}"
