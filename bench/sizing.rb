# frozen_string_literal: true

# How many people a server of this size bears: ruby bench/sizing.rb [--seconds 30]. People with an account each and a
# second of thinking between two questions, mixed pages; for each number of them answers a second, processor, memory,
# p50 and p95 of reads. Then 50 of them for a minute with the memory as it goes, and one account that floods with dear
# requests beside them. Its own PostgreSQL, server and data, on loopback, ended after. The table stands in
# docs/running.md.
require "bundler/setup"
require "etc"
require "optparse"
require_relative "clients"
require_relative "served"

OPTIONS =
  { seconds: 30 }.tap { |o| OptionParser.new { |f| f.on("--seconds N", Integer) { |n| o[:seconds] = n } }.parse! }
USUAL = 0.8 # of what is asked, as where people open pages; the rest never came before
PEOPLE = [10, 25, 50, 100, 200].freeze
READS = %w[visits visit rig readings rigs faults trace expected drawing_loops drawing_ladder legend].freeze

# Answers as milliseconds, of reads alone.
def reads(took) = took.select { |one| READS.include?(one[0]) }.map { |one| one[1] }
def failed(took) = took.reject { |one| one[2].between?(200, 299) }.map { |one| one[2] }.tally

def measured(bench, count, seconds, whose, usual: USUAL)
  before = bench.processor_seconds
  took = Clients.ask(bench, count, seconds, think: 1.0, tries: 6, usual: usual, whose: whose)
  [took, (bench.processor_seconds - before) / seconds]
end

Bench.run(visits: 500, readings: 5_000) do |bench|
  whose = bench.add_people(PEOPLE.max)
  Clients.ask(bench, 8, 15, usual: USUAL, whose: whose)
  puts "#{Etc.nprocessors} cores, two processes of 8 threads and PostgreSQL on them; clients on the same cores"
  puts "| People | Answers/s | Cores busy | Memory | Reads p50 | Reads p95 | Not answered |"
  puts "| --- | --- | --- | --- | --- | --- | --- |"
  PEOPLE.each do |count|
    took, cores = measured(bench, count, OPTIONS[:seconds], whose)
    p50, p95 = [0.5, 0.95].map { |share| Clients.part(reads(took), share).round }
    row = [count, (took.size / OPTIONS[:seconds].to_f).round, format("%.2f", cores), "#{bench.memory_kb / 1024} MB"]
    puts "| #{[*row, "#{p50} ms", "#{p95} ms", failed(took).inspect].join(" | ")} |"
  end

  memory = []
  watch = Thread.new { loop { (memory << (bench.memory_kb / 1024)) && sleep(10) } }
  took, = measured(bench, 50, 60, whose)
  watch.kill
  puts "50 people, 60 s: reads p95 #{Clients.part(reads(took), 0.95)} ms (at most 150), not answered #{failed(took)}"
  worst, = measured(bench, 50, 30, whose, usual: 0)
  puts "the same, nothing ever asked twice: reads p95 #{Clients.part(reads(worst), 0.95)} ms, #{failed(worst)}"
  puts "memory, each 10 s: #{memory.join(", ")} MB"

  # From 50 ms away, and from this very machine, where who floods takes the processor from the server too.
  [0.05, 0].each do |away|
    flood = Thread.new { Clients.ask(bench, 16, 20, ["dear"], think: away, whose: whose.first(1)) }
    sleep(1)
    others = Clients.ask(bench, 16, 18, READS, think: 0.5, tries: 6, usual: USUAL, whose: whose.drop(1))
    puts "one account's flood, #{away} s between two, #{flood.value.map(&:last).tally}; 16 others p95 " \
           "#{Clients.part(reads(others), 0.95)} ms (at most 300), not answered #{failed(others)}"
  end
end
