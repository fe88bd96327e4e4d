# frozen_string_literal: true

# Recorded defrosts against known truths, and a large record against the clock:
#   ruby bench/recorded.rb [--each 22] [--healthy 300] [--rows 780000] [--from 1]
# each: records for each planted fault. Prints what was named, found, invented and misjudged.
require "bundler/setup"
require "optparse"
require "benchmark"
require "json"
require_relative "../spec/support/log_trial"

WANTED =
  { each: 22, healthy: 300, rows: 780_000, from: 1 }.tap do |wanted|
    OptionParser
      .new { |flags| wanted.each_key { |key| flags.on("--#{key} N", Integer) { |n| wanted[key] = n } } }
      .parse!
  end
RIG = Gorvant::Formats::RigJson.read(JSON.parse(File.read(File.join(__dir__, "../db/demo/rigs/boathouse_north.json"))))
Sums = Struct.new(:played, :shown, :named, :clean, :defrosts, :missed, :invented, :misjudged)

# Plays trials on both cores.
def play(jobs)
  halves = jobs.each_slice((jobs.size / 2.0).ceil).to_a
  readers =
    halves.map do |half|
      read, write = IO.pipe
      fork do
        read.close
        write.puts JSON.generate(half.filter_map { |seed, fault| trial(seed, fault) })
        exit!(0)
      end
      write.close
      read
    end
  readers.flat_map { |read| JSON.parse(read.read) }
ensure
  Process.waitall
end

def trial(seed, fault)
  one = LogTrial.of(RIG, seed, fault)&.run or return nil
  {
    "seed" => seed,
    "fault" => fault,
    "shows" => fault.nil? || one.shows?,
    "named" => fault && one.named?,
    "accused" => one.accused,
    "blurred" => one.blurred?,
    "defrosts" => one.truth.size,
    "missed" => one.missed.size,
    "invented" => one.invented.size,
    "misjudged" => one.misjudged.size
  }
end

def percent(part, of) = format("%d of %d (%.1f %%)", part, of, 100.0 * part / [of, 1].max)

def tell(all)
  faults, healthy = all.partition { |one| one["fault"] }
  shown = faults.select { |one| one["shows"] }
  puts "planted, and shown by the record: named #{percent(shown.count { |one| one["named"] }, shown.size)}; wanted 95"
  puts "healthy: no fault named in #{percent(healthy.count { |one| one["accused"].empty? }, healthy.size)}; wanted 98"
  sums("all", all)
  sums("where nothing blurs them", all.reject { |one| one["blurred"] })
  (shown.reject { |one| one["named"] } + healthy.select { |one| one["accused"].any? }).each do |one|
    puts "  seed #{one["seed"]} #{one["fault"] || "healthy"}: #{one["accused"].join(", ")}"
  end
end

def sums(title, list)
  counts = %w[defrosts missed invented misjudged].map { |key| "#{key} #{list.sum { |one| one[key] }}" }
  puts "defrosts, #{title}: #{counts.join(", ")}"
end

# A record of a row a second, read and judged on one core.
def large(rows)
  text = +""
  log =
    Gorvant::Formats::MadeUpLog.new(
      profile: Gorvant::ClockProfile.of(RIG),
      every: 1,
      columns: %w[outdoor coil amps fan ob w2]
    )
  log.lines(rows) { |line| text << line << "\n" }
  head = Gorvant::Formats::FieldLogHead.guess(text.byteslice(0, 60_000))
  mapping = Gorvant::Formats::FieldLogMapping.guess(head)
  profile = Gorvant::ClockProfile.of(RIG)
  hours = []
  told = reader = nil
  read =
    Benchmark.realtime do
      reader =
        Gorvant::Formats::FieldLogReader.new(mapping) do |hour|
          hours << [hour.hour, hour.pack, hour.pack_level(60), hour.pack_level(600)]
        end
      reader.file(1, head)
      (0..(text.bytesize / 8_000_000)).each { |i| reader << text.byteslice(i * 8_000_000, 8_000_000) }
      told = reader.end_file.finish
    end
  text.clear
  judged =
    Benchmark.realtime do
      kept = hours.lazy.map { |hour, bytes| Gorvant::RecordHour.unpack(hour, mapping.ids, bytes) }
      story =
        Gorvant::RecordedCycles.of(
          kept,
          ids: mapping.ids,
          on_off: reader.on_off,
          closes: profile.starts_degrees_f,
          opens: profile.ends_degrees_f,
          interval_seconds: told.interval_seconds
        )
      Gorvant::RecordedJudge.new(story, RIG).verdicts
    end
  puts format(
         "%d rows: read in %.1f s (wanted 8), read and judged in %.1f s (wanted 20), %d MB at most (text included)",
         told.rows,
         read,
         read + judged,
         peak_mb
       )
end

def peak_mb = File.read("/proc/self/status")[/VmHWM:\s+(\d+)/, 1].to_i / 1024

# A day of the frost model with its board, at steps of ten seconds.
def frost_day
  weather = Gorvant::FrostCoil::Weather.new(degrees_f: 28.0, humidity_percent: 85.0)
  profile = Gorvant::ClockProfile.of(RIG)
  times =
    Array.new(5) do
      Benchmark.realtime { Gorvant::FrostRun.new(profile: profile, weather: ->(_at) { weather }).go(86_400) }
    end
  puts format("24 h with frost: %d ms at best of five (wanted 250)", times.min * 1000)
end

frost_day
if WANTED[:rows].positive?
  pid = fork { large(WANTED[:rows]) }
  Process.wait(pid)
end
seeds =
  (0...WANTED[:each]).flat_map do |i|
    LogTrial::FAULTS.each_with_index.map { |fault, n| [(WANTED[:from] * 10_000) + (i * 100) + n, fault] }
  end
healthy = (0...WANTED[:healthy]).map { |i| [(WANTED[:from] * 10_000) + 50_000 + i, nil] }
tell(play((seeds + healthy).shuffle(random: Random.new(1)))) if (seeds + healthy).any?
