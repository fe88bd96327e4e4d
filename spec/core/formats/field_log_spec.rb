# frozen_string_literal: true

require "timeout"
require "tzinfo"
require_relative "../../support/core"

# A logger's file in whatever way it was written.
RSpec.describe Gorvant::Formats::FieldLogReader do
  formats = Gorvant::Formats

  # { told:, hours:, on_off:, mapping: } of the bytes of one file or several.
  def read(*files, zone: "UTC", part: 997, **mapped)
    heads = files.map { |bytes| Gorvant::Formats::FieldLogHead.guess(bytes.byteslice(0, 100_000)) }
    mapping = Gorvant::Formats::FieldLogMapping.guess(heads.first, zone: zone).with(**mapped)
    hours = []
    reader = described_class.new(mapping) { |hour| hours << hour }
    files.each_with_index do |bytes, i|
      reader.file(i + 1, heads[i])
      (0..(bytes.bytesize / part)).each { |n| reader << (bytes.byteslice(n * part, part) || "") }
      reader.end_file
    end
    { told: reader.finish, hours: hours, on_off: reader.on_off, mapping: mapping }
  end

  def values(read, id) = read[:hours].flat_map { |hour| hour.columns.fetch(id) }
  def times(read) = read[:hours].flat_map { |hour| hour.seconds.map { |second| hour.starts_at + second } }

  rows = (0...180).map { |i| [1_768_000_000 + (i * 30), 30.0 + (i % 7), 21.5 - (i % 5), i % 60 < 50 ? 9.2 : 0.1] }
  stamp = ->(seconds, how) { Time.at(seconds).utc.strftime(how) }
  table = ->(how, separator: ",", comma: false, names: "Time,Outdoor °F,Coil °F,Compressor A") do
    lines =
      rows.map do |at, *numbers|
        [stamp[at, how], *numbers.map { |n| comma ? n.to_s.tr(".", ",") : n.to_s }].join(separator)
      end
    "#{[names.tr(",", separator), *lines].join("\n")}\n"
  end
  plain = table.call("%Y-%m-%d %H:%M:%S")

  # The same record, written as loggers write.
  {
    "ISO with a zone" => table.call("%Y-%m-%dT%H:%M:%SZ"),
    "month first with a half of the day" => table.call("%m/%d/%Y %I:%M:%S %p"),
    "day first, decimal commas" => table.call("%d.%m.%Y %H:%M:%S", separator: ";", comma: true),
    "tabs" => table.call("%Y-%m-%d %H:%M:%S", separator: "\t"),
    "a mark of its encoding" => "\xEF\xBB\xBF".b + plain.b,
    "UTF-16" => "\xFF\xFE".b + plain.encode("UTF-16LE").b,
    "an older encoding" => plain.encode("Windows-1252").b,
    "lines before the heading" => "Logger 7\nSerial,none\n\n#{plain}",
    "lines that end otherwise" => plain.gsub("\n", "\r\n"),
    "quotes" => plain.gsub(/^([^,\n]+),/) { "\"#{Regexp.last_match(1)}\"," },
    "Celsius" =>
      "Time,Outdoor °C,Coil °C,Compressor A\n#{
        rows
          .map do |at, out, coil, amps|
            [stamp[at, "%Y-%m-%d %H:%M:%S"], (out - 32) / 1.8, (coil - 32) / 1.8, amps].join(",")
          end
          .join("\n")
      }\n",
    "date and time apart" =>
      "Date,Time,Outdoor °F,Coil °F,Compressor A\n#{
        rows.map { |at, *numbers| [stamp[at, "%Y-%m-%d"], stamp[at, "%H:%M:%S"], *numbers].join(",") }.join("\n")
      }\n",
    "blank lines and spaces" => plain.gsub("\n", "\n\n").gsub(",", " , ")
  }.each do |how, bytes|
    it "reads #{how} as the same record" do
      read = read(bytes)
      expect(read[:mapping].columns.keys).to match_array(%w[outdoor coil amps])
      expect(times(read)).to eq(rows.map { |row| row[0].to_f })
      expect(values(read, "coil").zip(rows).map { |value, row| (value - row[2]).abs }.max).to be < 1e-6
      expect(read[:on_off]["amps"]).to have_attributes(over: be_between(1, 8))
      expect(read[:told]).to have_attributes(rows: 180, interval_seconds: 30.0, gaps: [], repeated: 0)
    end
  end

  it "neither loses nor invents an hour on the nights on which clocks change" do
    zone = TZInfo::Timezone.get("America/Chicago")
    { Time.utc(2026, 11, 1, 3) => -1.0, Time.utc(2026, 3, 8, 5) => 1.0 }.each do |from, change|
      instants = (0...48).map { |i| from.to_i + (i * 600) }
      lines = instants.map { |at| "#{zone.utc_to_local(Time.at(at).utc).strftime("%Y-%m-%d %H:%M:%S")},30,20" }
      read = read("Time,Outdoor °F,Coil °F\n#{lines.join("\n")}\n", zone: "America/Chicago")
      expect(times(read)).to eq(instants.map(&:to_f))
      expect(read[:told]).to have_attributes(repeated: 0, gaps: [], changes: [[be_between(*instants.minmax), change]])
    end
    # A logger that keeps its clock all year is not put on with the others; one that says so has no such hour.
    missing = "Time,Outdoor °F,Coil °F\n2026-03-08 01:30:00,30,20\n2026-03-08 02:30:00,30,20\n"
    expect { read(missing, zone: "America/Chicago") }.to raise_error(formats::BadFieldLog, /does not exist on that day/)
    expect(
      times(read(missing, zone: "America/Chicago", daylight_saving: false)).each_cons(2).map { |a, b| b - a }
    ).to eq([3600.0])
  end

  it "tells gaps, rows that come again, cells that are empty, leads that are open and sensors that stick" do
    lines = plain.lines
    kept = lines[0..60] + lines[100..] + lines[150..151]
    kept[20] = kept[20].sub(/,[\d.]+,/, ",,")
    kept[30] = kept[30].sub(/,[\d.]+,/, ",-196.6,")
    told = read(kept.join)[:told]
    expect(told).to have_attributes(repeated: 2, strange: { "outdoor" => 1 }, empty: { "outdoor" => 2 })
    expect(told.gaps.map { |from, to| to - from }).to eq([1200.0])

    day = (0...1440).map { |i| "#{stamp[1_768_000_000 + (i * 60), "%Y-%m-%d %H:%M:%S"]},#{30 + (i / 60)},21.5" }
    stuck = read("Time,Outdoor °F,Coil °F\n#{day.join("\n")}\n")[:told].stuck
    expect(stuck.map(&:first)).to eq(["coil"])
  end

  it "names the first fifty lines that cannot be read, goes on over all of them, and keeps none" do
    lines = plain.lines
    (10..130).step(2) { |i| lines[i] = i % 4 == 0 ? "#{lines[i].chomp},1\n" : lines[i].sub(/,[\d.]+/, ",warm") }
    kept = []
    head = formats::FieldLogHead.guess(lines.first(8).join)
    reader = described_class.new(formats::FieldLogMapping.guess(head)) { |hour| kept << hour }
    reader.file(1, head) << lines.join
    expect { reader.end_file.finish }.to raise_error(formats::BadFieldLog) { |error|
      expect(error.problems.map { |one| one["field"] }).to eq((10..108).step(2).map { |i| "/lines/#{i + 1}" })
      expect(error.problems.first(2).map { |one| one["problem"] }).to match(
        [/'warm' in Outdoor °F is no number/, /5 columns where the others have 4/]
      )
    }
    expect(kept).to eq([])
  end

  {
    "number that only a program writes" => ["2026-01-10 09:00:00,0x1F,20,9", /is no number/],
    "thirteenth month" => ["2026-13-10 00:00:00,30,20,9", /is no time/],
    "sixtieth second" => ["2026-01-10 09:00:75,30,20,9", /no time|seconds over 59/],
    "time long ago" => ["1926-01-10 00:00:00,30,20,9", /before 1990/]
  }.each do |what, (line, problem)|
    it "refuses a #{what}" do
      expect { read("#{plain}#{line}\n") }.to raise_error(formats::BadFieldLog, problem)
    end
  end

  it "doubts an order of the date that could be the other, a time without its zero, and a file of other columns" do
    guess = ->(text) { formats::FieldLogMapping.guess(formats::FieldLogHead.guess(text)).doubts }
    expect(guess["Time,Coil °F\n01/02/2026 10:00,20\n01/02/2026 10:01,21\n"]).to match([/month first/])
    expect(guess["Time,Coil °F\n01/22/2026 10:00,20\n01/22/2026 10:01,21\n"]).to eq([])
    expect(guess["Seconds (time),Coil °F\n0,20\n30,21\n"]).to match([/say when it began/])
    expect { read(plain, plain.sub("Coil", "Liquid")) }.to raise_error(
      formats::BadFieldLog,
      /other columns than the first/
    )
    expect { formats::FieldLogHead.guess("\n\n") }.to raise_error(formats::BadFieldLog, /is empty/)
    expect { formats::FieldLogHead.guess("a letter\nwith no row\n") }.to raise_error(
      formats::BadFieldLog,
      /no row with numbers/
    )
  end

  it "uses no column twice, whatever the headings are" do
    words = Gorvant::Catalogue.recorded.fetch("columns").values.flat_map { |one| one["says"] } + %w[unit °F 1]
    random = Random.new(11)
    100.times do
      names = Array.new(8) { Array.new(1 + random.rand(3)) { words[random.rand(words.size)].tr(",", "") }.join(" ") }
      text = "Time,#{names.join(",")}\n#{Array.new(3) { |i| "2026-01-10 00:0#{i}:00,1,2,3,4,5,6,7,8" }.join("\n")}\n"
      mapping = formats::FieldLogMapping.guess(formats::FieldLogHead.guess(text))
      used = [*mapping.time, *mapping.columns.values.map { |one| one["at"] }]
      expect(used).to eq(used.uniq)
    end
  end

  it "finds on and off where a load idles seldom, has two speeds, or never changes" do
    on = ->(values, unit = "A") { Gorvant::OnOff.of(values, unit: unit) }
    expect(on[([9.0] * 970) + ([0.02] * 30)]).to have_attributes(over: be_between(1, 8))
    expect(on[([9.0] * 600) + ([6.5] * 300) + ([0.1] * 100)]).to have_attributes(over: be_between(0.2, 6.4))
    expect(on[[0.05] * 100]).to have_attributes(over: nil, always: false)
    expect(on[[9.0, 9.1] * 50]).to have_attributes(over: nil, always: true)
    expect(on[([0.0] * 50) + ([1.0] * 50), "V"]).to have_attributes(over: be_between(0.1, 0.9))
    expect(on[[Float::NAN] * 5]).to have_attributes(always: false)
  end

  it "puts a row on the edge of two minutes into the later one, and leaves a minute without rows empty" do
    hour =
      Gorvant::RecordHour.new(hour: 1, seconds: [0.0, 59.0, 60.0, 180.0], columns: { "coil" => [1.0, 2.0, 3.0, 4.0] })
    minutes = Gorvant::RecordHour.unpack_level(["coil"], 60, hour.pack_level(60)).fetch("coil")
    expect(minutes.first(4)).to eq([[1.0, 2.0], [3.0, 3.0], nil, [4.0, 4.0]])
    tens = Gorvant::RecordHour.unpack_level(["coil"], 600, hour.pack_level(600)).fetch("coil")
    expect(tens).to eq([[1.0, 4.0], nil, nil, nil, nil, nil])
  end

  it "packs an hour and its levels without a loss" do
    hour = read(plain)[:hours].first
    again = Gorvant::RecordHour.unpack(hour.hour, hour.columns.keys, hour.pack)
    expect(again.columns["coil"]).to eq(hour.columns["coil"])
    minutes = Gorvant::RecordHour.unpack_level(hour.columns.keys, 60, hour.pack_level(60))
    slow = hour.columns["coil"].each_with_index.group_by { |_value, i| (hour.seconds[i] / 60).to_i }
    minutes["coil"].each_with_index do |pair, slot|
      seen = slow[slot]&.map(&:first)
      expect(pair&.map { |value| value.round(3) }).to eq(seen && seen.minmax.map { |value| value.round(3) })
    end
  end

  it "looks at a cell of a megabyte of digits no longer than it takes to read it" do
    long = plain.sub("2026-01-09 23:06:40,30.0", "2026-01-09 23:06:40,#{"0" * 1_000_000}x")
    expect(long.size).to be > 1_000_000
    head = Timeout.timeout(10) { formats::FieldLogHead.guess(long.b) }
    expect(head.names.size).to eq(4)
  end
end
