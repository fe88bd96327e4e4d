# frozen_string_literal: true

# A large record's picture over HTTP: ruby bench/zoom.rb [--rows 780000]. From all of it to ten minutes, at two widths,
# at places along it. Its own PostgreSQL and server, on loopback. Budget: 150 ms.
require "optparse"
require_relative "served"
require_relative "../core/lib/gorvant"

WANTED =
  { rows: 780_000 }.tap do |wanted|
    OptionParser.new { |flags| flags.on("--rows N", Integer) { |n| wanted[:rows] = n } }.parse!
  end
BUDGET_MS = 150
COLUMNS = %w[outdoor coil amps fan ob w2].freeze
WIDTHS = [1200, 2000].freeze
SPANS = { "all of it" => 1.0, "a day" => 0.11, "an hour" => 0.0046, "ten minutes" => 0.0008 }.freeze
ALONG = 12 # places of each span

def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

# A row a second, packed into the record's hours as a task would.
def record(bench)
  bench.in_database do |db, viewer|
    unit = db[:visits].where(id: bench.visits.first).get(:unit_id)
    logs = Gorvant::Server::Logs.new(db, viewer)
    id = SecureRandom.uuid
    logs.create(id, "bench", unit_id: unit, name: "Nine days a second")
    mapping = Gorvant::Formats::LiveRows.mapping(COLUMNS, "UTC")
    db[:logs].where(id: id).update(mapping: Sequel.pg_jsonb(mapping.to_json_hash))
    told, on_off = fill(Gorvant::Server::LogHours.new(db, id))
    Gorvant::Server::LogHours.new(db, id).finish(mapping, told, on_off)
    db.run("ANALYZE log_hours")
    [id, told.from, told.to]
  end
end

def fill(kept)
  rig = Gorvant::Composer.compose(name: "Bench", facts: {})
  log = Gorvant::Formats::MadeUpLog.new(profile: Gorvant::ClockProfile.of(rig), every: 1, columns: COLUMNS)
  head = Gorvant::Formats::FieldLogHead.guess(log.lines(60).to_a.join("\n"))
  reader =
    Gorvant::Formats::FieldLogReader.new(Gorvant::Formats::FieldLogMapping.guess(head)) { |hour| kept.keep(hour) }
  reader.file(1, head)
  log.lines(WANTED[:rows]).drop(1).each_slice(50_000) { |some| reader << "#{some.join("\n")}\n" }
  [reader.end_file.finish, reader.on_off]
end

Bench.run do |bench|
  id, from, to = record(bench)
  headers = { "content-type" => "application/json", **bench.own }
  Net::HTTP.start("127.0.0.1", bench.port) do |http|
    WIDTHS
      .product(SPANS.to_a)
      .each do |width, (name, share)|
        span = (to - from) * share
        times =
          Array.new(share < 1 ? ALONG : 3) do |i|
            start = from + ((to - from - span) * i / ALONG)
            body = JSON.generate(from: start, to: start + span, width: width, columns: COLUMNS)
            sent = now
            answer = http.post("/api/logs/#{id}/picture", body, headers)
            raise "refused: #{answer.body[0, 200]}" unless answer.code == "200"

            (now - sent) * 1000
          end
        puts format(
               "%-12s at %d pixels: p50 %d ms, most %d ms (wanted %d)",
               name,
               width,
               times.sort[times.size / 2],
               times.max,
               BUDGET_MS
             )
      end
  end
end
