# frozen_string_literal: true

# Find over HTTP, with a worker beside it: ruby bench/find.rb [--asks 200]. How soon there is a first look and the whole
# of a visit that nobody has asked about, then how long an answer takes, each asked with other tests passed over, from
# other places. Its own PostgreSQL, server and worker, on loopback. Budgets: first look 1 s, p95 60 ms.
require "optparse"
require_relative "served"

WANTED =
  { asks: 200 }.tap do |wanted|
    OptionParser.new { |flags| flags.on("--asks N", Integer) { wanted[:asks] = _1 } }.parse!
  end
BUDGETS = { first_seconds: 1.0, p95_ms: 60 }.freeze
POLL_SECONDS = 0.05

def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

# A worker of the bench's own for as long as the block, which begins once the demo's records are read.
def working(bench)
  worker = Process.spawn(Keeper::FASTER, "bundle", "exec", "bin/worker", chdir: ROOT, out: File::NULL)
  bench.in_database { |db, _viewer| sleep(1) until db[:tasks].where(state: %w[waiting running]).empty? }
  yield
ensure
  Process.kill("TERM", worker)
  Process.wait(worker)
end

# [seconds to the first answer, seconds to the whole, the whole]
def waited(ask)
  began = now
  first = nil
  loop do
    status, answer = ask.call(early: true)
    first ||= now - began if status == 200
    return first, now - began, answer if status == 200 && answer["first_look"].nil?

    sleep(POLL_SECONDS)
  end
end

def asks(ask, answer)
  Array.new(WANTED[:asks]) do |i|
    skip = [answer["next"], *answer.dig("next", "others").to_a].compact.map { |test| test["id"] }.sample(rand(4))
    began = now
    ask.call(stands: %w[wall air_handler outdoor][i % 3], mode: %w[cheapest fewest here].sample, skip: skip)
    (now - began) * 1000
  end
end

Bench.run do |bench|
  visits =
    bench.in_database do |db, _viewer|
      db[:visits].join(:units, id: :unit_id).select_hash(Sequel[:visits][:id], Sequel[:units][:name])
    end
  working(bench) do
    Net::HTTP.start("127.0.0.1", bench.port, read_timeout: 60) do |http|
      headers = { "content-type" => "application/json", **bench.own }
      visits.each do |id, name|
        ask = ->(**asked) do
          answer = http.post("/api/visits/#{id}/find", JSON.generate(asked), headers)
          [answer.code.to_i, JSON.parse(answer.body)]
        end
        first, whole, answer = waited(ask)
        took = asks(ask, answer).sort
        p95 = took[(took.size * 0.95).ceil - 1]
        over = [*("first look late" if first > BUDGETS[:first_seconds]), *("p95 over" if p95 > BUDGETS[:p95_ms])]
        puts format(
               "%-24s first %4.1f s, whole %4.1f s; p50 %5.1f  p95 %5.1f ms  %s",
               name,
               first,
               whole,
               took[took.size / 2],
               p95,
               over.join(", ")
             )
      end
    end
  end
end
