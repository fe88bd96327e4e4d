# frozen_string_literal: true

require "json"
require_relative "../../server/boot"
require_relative "../../core/lib/gorvant/evidence/saying"

# What people and programs hand in, broken in a thousand ways: each reader of a format, with samples that it takes, and
# texts made from them by seeded changes of bytes, cells, lines and, where it is JSON, of places in it. A reader may
# take a text or refuse it in words (a Gorvant::Error); anything else, or more than MOST_SECONDS, is a fault of ours.
class Mutations
  include Gorvant

  MOST_SECONDS = 2
  ODD = [
    "",
    "\"",
    "=1+1",
    "-",
    "\u0000",
    "\xFF".b,
    "1e999",
    "NaN",
    "0",
    "-1",
    "9" * 60,
    "é",
    "\u202E",
    "," * 400,
    "2026-13-45T99:99"
  ].freeze
  ODD_VALUES = [nil, true, -1, 1e300, "", "x" * 5_000, [], {}, [nil] * 300, { "a" => {} }, "=1+1", "0"].freeze
  ROOT = Server::ROOT

  class << self
    # { "visits/ID.json" => document, "rigs/ID.json" => … } of an archive, from who has one.
    attr_accessor :archive

    # { name => [samples, reader of a text] }
    def readers = @readers ||= new(0).readers

    # :taken, :refused, or what is against a reader for a text.
    def outcome(reader, text)
      began = now
      outcome = told(reader, text)
      took = now - began
      took > MOST_SECONDS ? "took #{took.round(2)} s over #{text[0, 200].inspect}" : outcome
    end

    private

    def told(reader, text)
      read = reader.call(text)
      refused = (read.respond_to?(:refused) && read.refused.any?) || read == []
      refused ? :refused : :taken
    rescue Gorvant::Error => e
      e.message.to_s.strip.empty? ? "#{e.class} says nothing" : :refused
    rescue JSON::ParserError # a nesting error too
      :refused # by what stands before the readers (Guard)
    rescue StandardError, SystemStackError, NoMemoryError => e
      "#{e.class}: #{e.message[0, 160]} at #{e.backtrace.to_a.grep(/gorvant|server/).first}: #{text[0, 200].inspect}"
    end

    # Of this thread's own work: a machine that others have too takes its time.
    def now = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)
  end

  def initialize(seed) = @random = Random.new(seed)

  # A text that was one of the samples of that reader.
  def text(name, samples)
    sample = samples.sample(random: @random)
    return bytes(sample) if !JSONS.include?(name) || @random.rand < 0.3

    value = JSON.parse(sample)
    @random.rand(1..3).times { value = turned(value) }
    JSON.generate(value)
  end

  def readers = tables.merge(documents, words)

  NAMES = [
    "rig JSON",
    "loop notation",
    "landings CSV",
    "readings CSV",
    "sensor table CSV",
    "run history CSV",
    "course CSV",
    "climate CSV",
    "logger CSV",
    "archive",
    "zip",
    "drill file",
    "drills within",
    "device reading",
    "dictated line"
  ].freeze
  JSONS = ["rig JSON", "archive", "drill file", "drills within", "device reading"].freeze

  SHELF = {
    "rigs" => [],
    "units" => [{ "site" => "Mill", "site_notes" => "", "unit" => "Loft", "notes" => "dry", "installed_year" => 2014 }],
    "setting_profiles" => [
      { "id" => "7d9d2f0e-5a53-4a0e-9d58-3f0a1b2c3d4e", "name" => "Mill", "labels" => { "changeover_setup" => "12" } }
    ],
    "sensor_tables" => [
      {
        "id" => "7d9d2f0e-5a53-4a0e-9d58-3f0a1b2c3d4f",
        "name" => "Loft table",
        "tolerance_degrees_f" => 2.0,
        "points" => [[30.0, 34_000.0], [60.0, 15_000.0], [90.0, 7_300.0]]
      }
    ]
  }.freeze

  READINGS = <<~CSV
    taken_at,call,function,from,to,place,value,value_high,about,open,isolated,choice,instrument,note
    2026-11-26T10:00:00Z,heat,volts_ac,outdoor.Y,outdoor.C,,24.3,,,,,,high_impedance,at the board
    2026-11-26T10:02:00Z,cool,volts_ac,outdoor.O,outdoor.C,,26,27,yes,,,,low_impedance,
    2026-11-26T10:05:00Z,off,ohms,outdoor.Y,outdoor.C,,,,,yes,yes,,ohmmeter,"coil, the power off"
  CSV
  SENSORS = "degrees_f,ohms\n#{(0..12).map { |i| "#{i * 10},#{(33_000 / (1.35**i)).round}" }.join("\n")}\n".freeze
  HISTORY = "minutes,fed,outdoor,coil\n0,0,34,33\n5,1,34,27.5\n50,1,33,20\n60,0,33,31\n"
  COURSE = "seconds,outdoor,coil,room\n0,35,30,68\n600,34.5,24,\n1200,34,20,69\n"
  CLIMATE =
    "time,temperature,humidity\n#{
      (0..30).map { |i| "2025-01-01 #{format("%02d", i % 24)}:00,#{20 + i},#{60 + (i % 40)}" }.join("\n")
    }\n".freeze
  DEVICE =
    JSON.generate(
      id: "0b0f5b0a-7d2f-4b57-9a30-1f5f6f0e2c11",
      function: "volts_ac",
      value: 24.2,
      unit: "V",
      stable: true,
      device_time: "2026-11-26T10:00:00Z"
    ).freeze
  SAID = [
    "outdoor see to why twenty four point three, in heat",
    "o b to see zero volts in cool at the wall",
    "across the contactor coil 23.9 volts",
    "fan does not run outdoors, with nothing called",
    "the compressor's capacitor herm side 38.5 microfarads"
  ].freeze

  private

  def rig = @rig ||= rig_file("boathouse_north")

  def words =
    {
      "loop notation" => [
        [Notation.print(rig), "R > wall.Y > air_handler.Y > outdoor.Y > LPS > HPS > (CC) > C"],
        ->(text) { Notation.parse(utf8(text), name: "Mill") }
      ],
      "dictated line" => [SAID, ->(text) { Saying.new(rig).read(utf8(text)) }]
    }

  def tables =
    {
      "landings CSV" => [
        [Formats::LandingsCsv.dump(rig, AsFound.parse({}, rig))],
        ->(text) { Formats::LandingsCsv.read(utf8(text), rig) }
      ],
      "readings CSV" => [[READINGS], ->(text) { Formats::ReadingsCsv.read(utf8(text), rig) }],
      "sensor table CSV" => [
        [SENSORS, SENSORS.tr(",", ";")],
        ->(text) { Formats::SensorTableCsv.read(utf8(text), id: "mill", title: "Mill") }
      ],
      "run history CSV" => [[HISTORY], ->(text) { Formats::RunHistoryCsv.read(utf8(text)) }],
      "course CSV" => [[COURSE], ->(text) { Formats::CourseCsv.parse(utf8(text)) }],
      "climate CSV" => [[CLIMATE], ->(text) { Formats::ClimateCsv.read(utf8(text), wind_mph: 4.0) }],
      "logger CSV" => [logs, method(:log)]
    }

  def documents =
    {
      "rig JSON" => [rig_files, ->(text) { Formats::RigJson.read(json(text)) }],
      "archive" => [[archive], ->(text) { Formats::Archive.read(files(text)) }],
      "zip" => [[Server::ArchiveZip.dump(files(archive))], ->(bytes) { Server::ArchiveZip.read(bytes.b) }],
      "drill file" => [[sealed], ->(text) { Server::DrillFile.load(json(text), "reeds on the shore") }],
      "drills within" => [[drills], ->(text) { Server::DrillFile.drills(text) }],
      "device reading" => [[DEVICE], ->(text) { Server::SampleRequest.parse(json(text)) }]
    }

  def utf8(text) = text.dup.force_encoding(Encoding::UTF_8).scrub
  # As Guard has it.
  def json(text)
    whole = text.dup.force_encoding(Encoding::UTF_8)
    raise JSON::ParserError.new("no text") unless whole.valid_encoding?

    JSON.parse(whole, max_nesting: 40)
  end

  def path(name) = File.join(ROOT, "db/demo/rigs/#{name}.json")
  def rig_files = Dir[path("*")].map { |file| File.read(file, encoding: "UTF-8") }
  def rig_file(name) = Formats::RigJson.read(JSON.parse(File.read(path(name), encoding: "UTF-8")))

  def logs
    [false, true].map do |comma|
      log = Formats::MadeUpLog.new(profile: ClockProfile.of(rig), changeover: rig.changeover, every: 60, comma: comma)
      log.text(3 * 3600)
    end
  end

  # As a record is read: guessed, mapped, then read to its end.
  def log(text)
    head = Formats::FieldLogHead.guess(text.b)
    mapping = Formats::FieldLogMapping.guess(head, zone: "UTC")
    mapping = Formats::FieldLogMapping.parse(JSON.parse(JSON.generate(mapping.to_json_hash)), head.names.size)
    reader = Formats::FieldLogReader.new(mapping) { |_hour| nil }
    reader.file(1, head)
    reader << text.b
    reader.end_file
    reader.finish
  end

  # A visit with its rig and a crew's shelf, as one text; its sums are made anew, so that what is broken is read and not
  # only found out.
  def archive = JSON.generate({ **self.class.archive, "shelf.json" => SHELF })

  def files(text)
    given = json(text)
    raise JSON::ParserError.new("no documents") unless given.is_a?(Hash)

    files = given.to_h { |name, one| [name, JSON.generate(one)] }
    sums = files.transform_values { |one| Digest::SHA256.hexdigest(one) }
    manifest = { "format" => Formats::Archive::FORMATS.last, "made_at" => "2026-11-26T10:00:00Z", "made_by" => "Crew" }
    { "manifest.json" => JSON.generate(manifest.merge("files" => sums)), **files }
  end

  def sealed = JSON.generate(Server::DrillFile.dump("Mill", [drill_row], "reeds on the shore"))
  def drills = JSON.generate([{ "rig" => drill_row[:content].to_hash, "drill" => drill_row[:sealed].to_hash }])

  def drill_row
    @drill_row ||= Server::Drills.fields(Practice::Quiz.drill("predict", "wiring", 1, 7, rig), nil, "made")
  end

  def bytes(text)
    @random
      .rand(1..4)
      .times
      .inject(text.b) do |so_far, _|
        [method(:byte), method(:cell), method(:line), method(:piece)].sample(random: @random).call(so_far)
      end
  end

  def byte(text)
    at = @random.rand(text.bytesize + 1)
    [text[0, at], @random.bytes(1), text[(at + 1)..]].join.b
  end

  def cell(text)
    cells = text.split(/([,;\n])/n)
    cells[@random.rand(cells.size + 1)] = ODD.sample(random: @random).b
    cells.join.b
  end

  def line(text)
    lines = text.lines
    at = @random.rand(lines.size + 1)
    case @random.rand(4)
    when 0
      lines.delete_at(at)
    when 1
      lines.insert(at, *Array.new(@random.rand(1..40)) { lines.sample(random: @random).to_s })
    when 2
      lines.shuffle!(random: @random)
    else
      lines = lines.first(at)
    end
    lines.join.b
  end

  def piece(text)
    from = @random.rand(text.bytesize + 1)
    text.b.tap { |copy| copy[from, @random.rand(80)] = text.b[@random.rand(text.bytesize + 1), @random.rand(300)].to_s }
  end

  # A place of a JSON value turned odd, doubled, or taken out.
  def turned(value)
    case value
    when Hash
      return ODD_VALUES.sample(random: @random) if value.empty? || @random.rand < 0.04

      key = value.keys.sample(random: @random)
      return value.except(key) if @random.rand < 0.08

      value.merge(key => turned(value[key]))
    when Array
      return ODD_VALUES.sample(random: @random) if value.empty? || @random.rand < 0.04

      at = @random.rand(value.size)
      copy = value.dup
      return copy.insert(at, *Array.new(@random.rand(1..3)) { value[at] }) if @random.rand < 0.08

      copy[at] = turned(value[at])
      copy
    else
      ODD_VALUES.sample(random: @random)
    end
  end
end
