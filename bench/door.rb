# frozen_string_literal: true

# What the time of a refusal tells a stranger: ruby bench/door.rb [--tries 200]. A name that is not there and a wrong
# password for one that is, turn by turn, over HTTP. Prints both medians and how often the slower of one each is the
# known name: one half where nothing is told; the budget is what chance alone does at so many tries.
require_relative "served"

TRIES = ARGV.include?("--tries") ? Integer(ARGV[ARGV.index("--tries") + 1]) : 200
PASSWORD = "reeds on the north shore"
TWO_SIGMA = 2 / Math.sqrt(6 * TRIES) # of the share, about one half, by rank sums of two equal samples

# Milliseconds of one refusal.
def refused(http, headers, name)
  body = JSON.generate(name: name, password: "not the password")
  began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  answer = http.post("/api/session", body, headers)
  took = (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began) * 1000
  raise("not refused: #{answer.code} #{answer.body}") unless answer.code == "401"

  took
end

def median(times) = times.sort[times.size / 2]

# How often one of the first is the slower, of all pairs.
def slower(first, second) = first.sum { |one| second.count { |other| one > other } }.fdiv(first.size * second.size)

Bench.run do |bench|
  Net::HTTP.start("127.0.0.1", bench.port) do |http|
    json = { "content-type" => "application/json" }
    http.post("/api/account/password", JSON.generate(sign_in_name: "Wren", password: PASSWORD), { **json, **bench.own })
    stranger = http.get("/api/session")
    headers = { **json, "cookie" => stranger["set-cookie"][/\A[^;]+/], "x-csrf-token" => stranger["x-csrf-token"] }
    times = { "Wren" => [], "nobody here" => [] }
    bench.in_database do |db|
      TRIES.times do
        times.keys.shuffle.each do |name|
          %i[sign_in_attempts rate_counts].each { |table| db[table].delete } # or the door waits ever longer
          times[name] << refused(http, headers, name)
        end
      end
    end
    share = slower(times["Wren"], times["nobody here"])
    puts times.map { |name, all| format("%s: median %.2f ms", name, median(all)) }.join(", ")
    puts format("the known name is the slower in %.3f of pairs (0.5 ± %.3f is chance)", share, TWO_SIGMA)
    warn("over budget") if (share - 0.5).abs > TWO_SIGMA
  end
end
