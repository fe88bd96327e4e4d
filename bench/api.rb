# frozen_string_literal: true

# The server under readers: ruby bench/api.rb [--seconds 8] [--visits 500] [--readings 5000] [--mixed 20000]. Its own
# PostgreSQL, server and data, on loopback, ended after. Prints p50 and p95 by route for 20 and 50 people (a second of
# thinking between questions) and for 20 clients without pause, what a flood of dear requests does to others,
# what 10 000 visits do to the list, and memory over many mixed requests. No body is sent twice.
require "bundler/setup"
require "etc"
require "optparse"
require_relative "clients"
require_relative "served"

OPTIONS =
  { seconds: 8, visits: 500, readings: 5_000, mixed: 20_000 }.tap do |options|
      OptionParser
        .new { |flags| options.each_key { |name| flags.on("--#{name} N", Integer) { |value| options[name] = value } } }
        .parse!
    end
    .freeze
BUDGET_P95_MS = 90
OTHERS_P95_MS = 300

def clients(bench, count, seconds, names = nil, **how) = Clients.ask(bench, count, seconds, names, **how)
def part(times, share) = Clients.part(times, share)

def table(took)
  took
    .group_by(&:first)
    .sort
    .each do |name, all|
      times = all.map { |one| one[1] }
      puts format(
             "  %-22s %5d  p50 %7.1f  p95 %7.1f  worst %7.1f ms%s",
             name,
             all.size,
             part(times, 0.5),
             part(times, 0.95),
             times.max,
             part(times, 0.95) > BUDGET_P95_MS ? "  over #{BUDGET_P95_MS}" : ""
           )
    end
  bad = took.reject { |one| one[2].between?(200, 299) }
  puts "  answers that were none: #{bad.map { |one| [one[0], one[2]] }.tally}" if bad.any?
end

Bench.run(visits: OPTIONS[:visits], readings: OPTIONS[:readings]) do |bench|
  puts "#{Etc.nprocessors} cores, #{bench.visits.size} visits, #{OPTIONS[:readings]} readings; #{OPTIONS[:seconds]} s each"
  clients(bench, 8, 6)
  reads = %w[
    visits
    visit
    rig
    readings
    rigs
    faults
    trace
    expected
    drawing_loops
    drawing_ladder
    drawing_connections
    legend
  ]
  {
    "20 readers without pause" => [20, 0, reads],
    "20 people" => [20, 1.0],
    "50 people" => [50, 1.0],
    "20 clients without pause" => [20, 0]
  }.each do |who, (count, think, names)|
    seconds = OPTIONS[:seconds] * (think.zero? ? 1 : 3)
    took = clients(bench, count, seconds, names, think: think)
    puts "#{who}: #{(took.size / seconds.to_f).round} answers/s, p95 of all #{part(took.map { |one| one[1] }, 0.95)} ms"
    table(took)
  end

  flood = Thread.new { clients(bench, 8, OPTIONS[:seconds], ["dear"]) }
  sleep(0.5)
  others = clients(bench, 8, OPTIONS[:seconds] - 1, %w[visit readings trace drawing_loops measurement], think: 0.5)
  codes = flood.value.map(&:last).tally
  puts "8 clients of dear requests (#{codes}); 8 other people: p50 #{part(others.map { |one| one[1] }, 0.5)}, p95 #{part(others.map { |one| one[1] }, 0.95)} ms (at most #{OTHERS_P95_MS})"

  before = part(clients(bench, 4, 3, ["visits"]).map { |one| one[1] }, 0.5)
  bench.add_visits(9_500)
  after = part(clients(bench, 4, 3, ["visits"]).map { |one| one[1] }, 0.5)
  puts "list of visits, p50 at 4 clients: #{before} ms with #{bench.visits.size}, #{after} ms with 10 000"

  [0.25, 0.5, 0.75, 1.0].each do |share|
    clients(bench, 12, 600, most: OPTIONS[:mixed] / 4)
    puts "memory after #{(OPTIONS[:mixed] * share).round} mixed requests: #{bench.memory_kb / 1024} MB"
  end
end
