# frozen_string_literal: true

# What roles and row-level security cost a read: ruby bench/roles.rb [--times 250]. The same questions to two
# applications in one process, turn by turn: one as role web, one as the tables' owner, whom no policy binds.
require "rack"
require_relative "served"

TIMES = ARGV.include?("--times") ? Integer(ARGV[ARGV.index("--times") + 1]) : 250
BUDGET = 0.15
WARM = 10

def milliseconds
  began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  yield
  (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began) * 1000
end

def median(times) = times.sort[times.size / 2]

Bench.run do |bench|
  bench.in_database do |owner, _viewer|
    server = Gorvant::Server
    build = ->(web, door) { server::App.build(web, door, secret: bench.secret) }
    apps = { roles: build.call(server::Database.connect(as: :web), server::Database.connect(as: :door)) }
    apps[:owner] = build.call(owner, owner)
    visit, rig = "/api/visits/#{bench.visits.first}", "/api/rigs/#{bench.rigs.first}"
    heat = { condition: { call: "heat" } }
    asks = %W[/api/visits #{visit} #{visit}/readings /api/rigs #{rig}].to_h { |path| [path, nil] }
    asks["/api/search"] = { text: "ice" }
    asks["#{visit}/trace"] = heat
    asks["#{visit}/drawing"] = { view: "ladder", **heat }
    asks.each do |path, body|
      headers = {
        "HTTP_HOST" => "127.0.0.1",
        **bench.own.to_h { |name, value| ["HTTP_#{name.upcase.tr("-", "_")}", value] }
      }
      headers.merge!("CONTENT_TYPE" => "application/json", :input => JSON.generate(body)) if body
      took = { roles: [], owner: [] }
      TIMES.times do |i|
        owner[:rate_counts].delete if (i % 20).zero?
        apps.to_a.shuffle.each do |who, app|
          answer = nil
          spent = milliseconds { answer = Rack::MockRequest.new(app).request(body ? "POST" : "GET", path, headers) }
          raise("#{path}: #{answer.status} #{answer.body[0, 200]}") unless answer.status == 200

          took[who] << spent if i >= WARM
        end
      end
      more = (median(took[:roles]) / median(took[:owner])) - 1
      puts format(
             "%-16s with roles %6.2f ms, without %6.2f ms, %+5.1f %%%s",
             path.sub(/\h{8}-[\h-]{27}/, "ID").delete_prefix("/api/"),
             median(took[:roles]),
             median(took[:owner]),
             more * 100,
             more > BUDGET ? "  over #{(BUDGET * 100).round} %" : ""
           )
    end
  end
end
