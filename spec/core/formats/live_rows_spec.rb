# frozen_string_literal: true

require_relative "../../support/core"

# Rows that a logger sends while it measures.
RSpec.describe Gorvant::Formats::LiveRows do
  let(:noon) { 1_767_610_800.0 } # on the hour
  let(:columns) { %w[coil outdoor fan] }

  def parse(rows, columns: self.columns, now: noon + 28_800) = described_class.parse(columns, rows, now: now)

  def hours(*batches)
    batches
      .flat_map { |rows| parse(rows).by_hour.to_a }
      .each_with_object({}) do |(hour, rows), all|
        all[hour] = (all[hour] || Gorvant::RecordHour.empty(hour, columns)).with_rows(columns, rows).first
      end
      .values
  end

  def read(hours)
    kept = []
    mapping = described_class.mapping(columns, "America/Chicago")
    reader = Gorvant::Formats::FieldLogReader.new(mapping) { |hour| kept << hour }
    hours.sort_by(&:hour).each { |hour| reader.hour(hour) }
    [reader.finish, reader.on_off, kept]
  end

  {
    "a column nobody knows" => [%w[coil moon], [[1, 2, 3]], "/columns/1", "known are"],
    "a column twice" => [%w[coil coil], [[1, 2, 3]], "/columns", "twice"],
    "no columns" => [[], [[1]], "/columns", "list of columns"],
    "no rows" => [%w[coil], [], "/rows", "1 to 500"],
    "a row that is short" => [%w[coil fan], [[1_767_610_800, 2]], "/rows/0", "the time and 2 values"],
    "words for a number" => [%w[coil], [[1_767_610_800, "cold"]], "/rows/0/1", "number, or null"],
    "milliseconds" => [%w[coil], [[1_767_610_800_000, 2]], "/rows/0/0", "seconds since 1970"],
    "no time" => [%w[coil], [[nil, 2]], "/rows/0/0", "seconds since 1970"],
    "a time that goes back" => [
      %w[coil],
      [[1_767_610_830, 2], [1_767_610_800, 2]],
      "/rows/1/0",
      "after the row before"
    ],
    "a clock that is ahead" => [%w[coil], [[1_767_722_000, 2]], "/rows/0/0", "set the logger's clock"],
    "another unit" => [%w[coil], [[1_767_610_800, 2981.5]], "/rows/0/1", "unit of “coil”"]
  }.each do |name, (given, rows, field, says)|
    it "refuses #{name}, and names it" do
      expect { parse(rows, columns: given) }.to raise_error(Gorvant::Formats::BadFieldLog) { |error|
        expect(error.problems.map { |one| [one["field"], one["problem"]] }).to include([field, include(says)])
      }
    end
  end

  it "keeps rows once, by time, in whatever order and however often they come" do
    rows = (0...200).map { |i| [noon + 2700 + (i * 10), 20.0 + (i % 7), 30.0, i.even? ? 1.1 : nil] }
    once = hours(rows)
    anyhow = hours(rows.last(80), rows.first(130), rows.each_slice(3).to_a.last.map(&:dup), rows.first(60))
    expect(anyhow.map(&:seconds)).to match_array(once.map(&:seconds))
    expect(anyhow.sort_by(&:hour).map { |hour| hour.pack.hash }).to eq(
      once.sort_by(&:hour).map { |hour| hour.pack.hash }
    )
    _same, fresh = once.first.with_rows(columns, parse(rows).by_hour.values.first)
    expect(fresh).to eq(0)
  end

  # A made-up day as a file, and the same rows live: they end as the same record.
  it "is read as the same rows of a file are" do
    profile = Gorvant::ClockProfile.of(Gorvant::Composer.compose(name: "Log", facts: {}))
    made = -> do
      Gorvant::Formats::MadeUpLog.new(
        profile: profile,
        every: 60,
        columns: columns,
        gaps: 0.005,
        drop_outs: 0.02,
        seed: 3
      )
    end
    text = made.call.text(6 * 3600)
    head = Gorvant::Formats::FieldLogHead.guess(text)
    kept = []
    file = Gorvant::Formats::FieldLogReader.new(Gorvant::Formats::FieldLogMapping.guess(head)) { |hour| kept << hour }
    file.file(1, head) << text
    told = file.end_file.finish
    rows =
      text
        .lines
        .drop(1)
        .map do |line|
          time, *cells = line.chomp.split(",", -1)
          [Time.iso8601("#{time.sub(" ", "T")}Z").to_f, *cells.map { |cell| Float(cell, exception: false) }]
        end
    live_told, on_off, live_kept = read(hours(*rows.each_slice(37)))
    expect(live_told.to_h).to eq(told.to_h)
    expect(on_off).to eq(file.on_off)
    expect(live_kept.map(&:pack)).to eq(kept.map(&:pack))
  end

  it "takes what no sensor can read for a gap, and says so" do
    told, _on_off, kept = read(hours((0...30).map { |i| [noon + (i * 10), i == 5 ? -196.0 : 25.0, 30.0 + i, 1.0] }))
    expect([told.strange, kept.first.columns["coil"][5].nan?]).to eq([{ "coil" => 1 }, true])
  end

  it "counts a logger as quiet after three of its own intervals, and never within twenty seconds" do
    expect([nil, 1, 10, 300].map { |seconds| described_class.quiet_after_seconds(seconds) }).to eq([20, 20, 30, 900])
  end
end
