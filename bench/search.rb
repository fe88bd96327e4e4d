# frozen_string_literal: true

# Search over many visits: ruby bench/search.rb [--visits 20000]. What one question takes, from its sending to its
# answer, for words that are rare, frequent, mistyped and unknown. Its own PostgreSQL and server, on loopback.
require "optparse"
require_relative "served"

WANTED =
  { visits: 20_000 }.tap do |wanted|
    OptionParser.new { |flags| flags.on("--visits N", Integer) { |n| wanted[:visits] = n } }.parse!
  end
BUDGET_MS = 50
ASKS = 40
QUESTIONS = {
  "rare" => {
    text: "kiln"
  },
  "mistyped" => {
    text: "klin"
  },
  "two slips" => {
    text: "boahtuose"
  },
  "in every visit" => {
    text: "hums"
  },
  "two words" => {
    text: "hums library"
  },
  "one number" => {
    text: "hums 17311"
  },
  "unknown" => {
    text: "xylophone"
  },
  "by complaint alone" => {
    symptom: "iced_outdoor_unit"
  }
}.freeze

def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

Bench.run do |bench|
  began = now
  bench.add_visits(WANTED[:visits])
  puts "#{WANTED[:visits]} visits written in #{(now - began).round} s, their words with them"
  headers = { "content-type" => "application/json", **bench.own }
  Net::HTTP.start("127.0.0.1", bench.port) do |http|
    QUESTIONS.each do |name, question|
      body = JSON.generate(question)
      found = nil
      times =
        Array.new(ASKS) do
          sent = now
          answer = http.post("/api/search", body, headers)
          raise "refused: #{answer.body[0, 200]}" unless answer.code == "200"

          found = JSON.parse(answer.body)["visits"].size
          (now - sent) * 1000
        end
      p50, p95 = [0.5, 0.95].map { |share| times.sort[(ASKS * share).ceil - 1].round }
      puts format(
             "%-20s %3d found  p50 %4d ms  p95 %4d ms%s",
             name,
             found,
             p50,
             p95,
             p50 > BUDGET_MS ? "  over #{BUDGET_MS}" : ""
           )
    end
  end
end
