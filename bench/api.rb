# frozen_string_literal: true

# The server under readers: ruby bench/api.rb [--seconds 8] [--visits 500] [--readings 5000] [--mixed 20000]. Its own
# PostgreSQL, server and data, on loopback, ended after. Prints p50 and p95 by route for 20 and 50 people (a second of
# thinking between questions) and for 20 clients without pause, what a flood of dear requests does to others,
# what 10 000 visits do to the list, and memory over many mixed requests. No body is sent twice.
require "bundler/setup"
require "etc"
require "json"
require "net/http"
require "optparse"
require "securerandom"
require_relative "questions"
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

# Clients in four processes, so that they do not wait for one another; each asks without pause.
def clients(bench, count, seconds, names = nil, most: nil, think: 0)
  readers =
    Array.new(4) do |process|
      reader, writer = IO.pipe
      fork do
        reader.close
        late = now + seconds
        share = (count / 4.0).ceil
        took =
          Array
            .new(share) do |i|
              Thread.new { one_client(bench, (process * 1_000) + i, late, names, most && (most / (4 * share)), think) }
            end
            .flat_map(&:value)
        writer.write(JSON.generate(took))
        writer.close
        exit!(0)
      end
      writer.close
      reader
    end
  readers.flat_map { |reader| JSON.parse(reader.read) }
end

def one_client(bench, seed, late, names, most, think)
  sleep(rand * think)
  questions = Questions.new(bench, seed + Integer(now * 1000))
  took = []
  Net::HTTP.start("127.0.0.1", bench.port, read_timeout: 30) do |http|
    while now < late && (most.nil? || took.size < most)
      name = (names || questions.names).sample
      method, path, body = name == "dear" ? questions.dear : questions.make(name)
      began = now
      headers = bench.own
      answer =
        if method == :get
          http.get(path, headers)
        else
          http.post(path, JSON.generate(body), headers.merge("content-type" => "application/json"))
        end
      took << [name, ((now - began) * 1000).round(1), answer.code.to_i]
      sleep(think * rand(0.5..1.5)) if think.positive?
    end
  end
  took
end

def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
def part(times, share) = times.sort[[(times.size * share).ceil - 1, 0].max]

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
