# frozen_string_literal: true

# Every reader of a format against many broken texts: ruby bench/mutations.rb [--times 5000] [--seed 5] [NAME ...]. None
# may break a reader, none may take over 2 s. The archive is that of a demo visit of a server of the bench's own.
require "bundler/setup"
require "net/http"
require "optparse"
require_relative "served"

OPTIONS =
  { times: 5_000, seed: 5 }.tap do |o|
      OptionParser.new { |f| o.each_key { |k| f.on("--#{k} N", Integer) { |n| o[k] = n } } }.parse!
    end
    .freeze

bad = 0
Bench.run do |bench|
  require_relative "../spec/support/mutations"
  zip =
    Net::HTTP.start("127.0.0.1", bench.port) do |http|
      http.get("/api/visits/#{bench.visits.first}/archive", bench.own).body
    end
  files = Gorvant::Server::ArchiveZip.read(zip).reject { |name, _| name == "manifest.json" || name.end_with?(".jpg") }
  Mutations.archive = files.transform_values { |text| JSON.parse(text) }
  (ARGV.empty? ? Mutations::NAMES : Mutations::NAMES & ARGV).each_with_index do |name, i|
    samples, reader = Mutations.readers.fetch(name)
    mutations = Mutations.new(OPTIONS[:seed] + i)
    began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    outcomes = Array.new(OPTIONS[:times]) { Mutations.outcome(reader, mutations.text(name, samples)) }
    wrong = outcomes.grep(String)
    bad += wrong.size
    puts format(
           "%-18s %5d taken %5d refused %3d wrong  %6.1f s",
           name,
           outcomes.count(:taken),
           outcomes.count(:refused),
           wrong.size,
           Process.clock_gettime(Process::CLOCK_MONOTONIC) - began
         )
    wrong.uniq { |one| one[0, 60] }.first(3).each { |one| puts "    #{one[0, 400]}" }
  end
end
exit(bad.zero?)
