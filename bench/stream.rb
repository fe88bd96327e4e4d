# frozen_string_literal: true

# A device that sends ten readings a second, through two app processes, to twenty who listen: ruby bench/stream.rb
# [--seconds 60] [--rate 10] [--ears 20]. Some of the listeners vanish and come back on the way. Prints how many were
# lost, doubled or out of order, and the time from sending to hearing. Its own PostgreSQL and server, on loopback.
require "optparse"
require_relative "served"

WANTED =
  { seconds: 60, rate: 10, ears: 20 }.tap do |options|
      OptionParser
        .new { |flags| options.each_key { |name| flags.on("--#{name} N", Integer) { |value| options[name] = value } } }
        .parse!
    end
    .freeze
BUDGET_P95_MS = 300
VANISH_EVERY_SECONDS = 7

def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

# One who listens: [id of the sample, when it was heard], in the order heard.
class Ear
  attr_reader :heard

  def initialize(bench, vanishes:)
    @bench = bench
    @heard = []
    @vanishes = vanishes
    @thread = Thread.new { listen until @ended }
  end

  def finish
    @ended = true
    @socket&.close
    @thread.join(2)
  end

  private

  def listen
    @socket = TCPSocket.new("127.0.0.1", @bench.port)
    last = "Last-Event-ID: #{@last}\r\n" if @last
    @socket.write("GET /api/stream HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: #{@bench.cookie}\r\n#{last}\r\n")
    until_seconds = now + (@vanishes ? VANISH_EVERY_SECONDS : Float::INFINITY)
    id = nil
    while (line = @socket.gets)
      id = line[4..].strip if line.start_with?("id: ")
      @heard << [JSON.parse(line[6..])["id"], now] if line.start_with?("data: {") && line.include?('"device_id"')
      next unless line == "\n" && id

      @last = id # as a browser does: once all of it is there
      return @socket.close if now > until_seconds
    end
  rescue IOError, SystemCallError
    sleep(0.2)
  end
end

Bench.run do |bench|
  headers = { "content-type" => "application/json" }
  own = headers.merge(bench.own)
  device = { id: SecureRandom.uuid, name: "Bench meter", scope: "readings" }
  Net::HTTP.start("127.0.0.1", bench.port) do |http|
    token = JSON.parse(http.post("/api/devices", JSON.generate(device), own).body).fetch("token")
    ears = Array.new(WANTED[:ears]) { |i| Ear.new(bench, vanishes: i.even? && i > 10) }
    sleep(2)
    sent = {}
    began = now
    (WANTED[:seconds] * WANTED[:rate]).times do |i|
      id = SecureRandom.uuid
      sleep([began + (i / WANTED[:rate].to_f) - now, 0].max)
      sent[id] = now
      sample = {
        id: id,
        function: "volts_ac",
        value: 24.0 + (i % 10),
        unit: "V",
        stable: true,
        device_time: Time.now.utc
      }
      answer =
        http.post("/api/devices/readings", JSON.generate(sample), headers.merge("authorization" => "Bearer #{token}"))
      raise "refused: #{answer.body}" unless answer.code == "201"
    end
    sleep(3)
    ears.each(&:finish)
    steady, vanishing = ears.partition.with_index { |_, i| !(i.even? && i > 10) }
    times = steady.flat_map { |ear| ear.heard.map { |id, at| (at - sent.fetch(id)) * 1000 } }.sort
    p95 = times[(times.size * 0.95).ceil - 1]
    lost = ears.sum { |ear| (sent.keys - ear.heard.map(&:first)).size }
    doubled = ears.sum { |ear| ear.heard.size - ear.heard.uniq(&:first).size }
    order = ears.count { |ear| ear.heard.map(&:first) != sent.keys & ear.heard.map(&:first) }
    puts "#{sent.size} samples to #{steady.size} ears and #{vanishing.size} that vanish and come back: " \
           "#{lost} lost, #{doubled} doubled, #{order} out of order; " \
           "p95 #{p95&.round} ms#{" over #{BUDGET_P95_MS}" if p95.nil? || p95 > BUDGET_P95_MS}"
  end
end
