# frozen_string_literal: true

require_relative "../../support/core"

# Run cycles and defrosts from rows made by hand: what happened is written in the example, so nothing of the frost
# model's own idea of a unit is in it.
RSpec.describe Gorvant::RecordedCycles do
  # Rows of ten seconds from pieces: [seconds, { column => value or [from, to] }], what is left out goes on as before.
  def rows(*pieces, every: 10)
    state = { outdoor: 30.0, coil: 30.0, amps: 0.0, fan: 0.0, ob: 0.0, w2: 0.0 }
    at = 0
    pieces.flat_map do |seconds, changes|
      count = seconds / every
      first = at
      at += seconds
      next [] if changes == :gap

      list =
        (0...count).map do |i|
          values = state.to_h { |id, was| [id, value(changes.fetch(id, was), i / [count - 1, 1].max.to_f)] }
          [first + (i * every), values]
        end
      state = list.last[1]
      list
    end
  end

  def value(wanted, share) = wanted.is_a?(Array) ? wanted[0] + ((wanted[1] - wanted[0]) * share) : wanted

  def hours(rows, columns)
    rows
      .group_by { |at, _values| (1_768_003_200 + at) / 3600 }
      .map do |hour, some|
        Gorvant::RecordHour.new(
          hour: hour,
          seconds: some.map { |at, _values| (1_768_003_200 + at - (hour * 3600)).to_f },
          columns: columns.to_h { |id| [id, some.map { |_at, values| values.fetch(id.to_sym) }] }
        )
      end
  end

  let(:on_off) do
    { "amps" => 3, "fan" => 0.5, "ob" => 12, "w2" => 12 }.transform_values { |over| Gorvant::OnOff.at(over) }
  end

  def story(*pieces, columns: %w[outdoor coil amps fan ob w2], every: 10)
    described_class.of(
      hours(rows(*pieces, every: every), columns),
      ids: columns,
      on_off: on_off.slice(*columns),
      closes: 30.0,
      opens: 80.0,
      interval_seconds: every
    )
  end

  # An hour of heating, a defrost of four minutes that ends warm, and heating again.
  heat = [3600, { amps: 9.0, fan: 1.1, ob: 0.0, w2: 0.0, coil: [20.0, 16.0] }]
  defrost = [240, { amps: 6.5, fan: 0.0, ob: 26.0, w2: 26.0, coil: [16.0, 84.0] }]
  after = [1200, { amps: 9.0, fan: 1.1, ob: 0.0, w2: 0.0, coil: [26.0, 19.0] }]
  rest = [900, { amps: 0.0, fan: 0.0, ob: 0.0, w2: 0.0, coil: [19.0, 30.0] }]

  def starts(story) = story.defrosts.map { |one| (one.start - 1_768_003_200).round }

  {
    "O/B" => %w[outdoor coil amps fan ob w2],
    "the fan" => %w[outdoor coil amps fan],
    "the fan, with no word of the compressor" => %w[outdoor coil fan],
    "the fan, with no coil" => %w[outdoor amps fan],
    "the coil" => %w[outdoor coil amps],
    "the coil alone" => %w[outdoor coil]
  }.each do |how, columns|
    it "sees a defrost by #{how}, where it began and when it ended" do
      seen = story(rest, heat, defrost, after, rest, columns: columns)
      expect(starts(seen)).to contain_exactly(be_within(10).of(4500))
      expect(seen.defrosts.first.seconds).to be_within(20).of(240)
      expect(seen.defrosts.first.seen_by).to eq((%w[ob fan coil] & columns).first)
    end
  end

  it "measures what came before, in it and after it" do
    one = story(rest, heat, defrost, after, heat, defrost, after).defrosts.last
    expect(one).to have_attributes(
      coil_start: be_within(1).of(16),
      coil_end: be_within(3).of(84),
      fan_on_share: be < 0.1,
      strips_on_after: be <= 10,
      strips_off_after: be <= 10,
      fan_back_after: be <= 10,
      turns_after: be_between(10, 30),
      run_seconds: be_within(20).of(4800),
      whole: true,
      ended_with: nil
    )
    expect(one.path.first[1]).to be < 20
  end

  it "takes a defrost that the call broke off, and that goes on with the next, as one" do
    part = ->(from, to) { [120, { amps: 6.5, fan: 0.0, ob: 26.0, w2: 26.0, coil: [from, to] }] }
    pause = [600, { amps: 0.0, fan: 0.0, ob: 0.0, w2: 0.0, coil: [40.0, 33.0] }]
    seen = story(rest, heat, part[16.0, 40.0], pause, part[33.0, 84.0], after)
    expect(starts(seen)).to eq([4500])
    expect(seen.defrosts.first).to have_attributes(
      seconds: be_within(20).of(240),
      paused_seconds: be_within(20).of(600),
      ended_with: nil
    )
    ended = story(rest, heat, part[16.0, 40.0], pause, heat)
    expect(ended.defrosts.map(&:ended_with)).to eq(["call"])
  end

  it "watches the fan only as long as the compressor runs on" do
    stopped = [600, { amps: 0.0, fan: 0.0, ob: 0.0, w2: 0.0, coil: [60.0, 33.0] }]
    at_once, later = story(rest, heat, defrost, after), story(rest, heat, defrost, stopped, after)
    expect(at_once.defrosts.first).to have_attributes(fan_back_after: 0.0, ran_after: be > 800)
    expect(later.defrosts.first).to have_attributes(fan_back_after: nil, ran_after: be < 30)
  end

  it "counts nothing over a gap, and knows no end of a defrost that one swallowed" do
    seen = story(rest, heat, defrost, after, [1800, :gap], heat, defrost, after)
    expect(seen.defrosts.map(&:run_seconds)).to eq([nil, nil])
    cut = story(rest, heat, [120, defrost[1]], [1800, :gap], heat)
    expect(cut.defrosts.map(&:ended_with)).to eq(["record"])
  end

  it "takes neither cooling, nor a fan that stops, nor a coil that comes up at rest for a defrost" do
    cool = [3600, { outdoor: 85.0, amps: 9.0, fan: 1.1, ob: 26.0, coil: 105.0 }]
    expect(
      story([600, { outdoor: 85.0, coil: 85.0 }], cool, [600, { amps: 0.0, fan: 0.0, ob: 0.0 }], cool).defrosts
    ).to eq([])
    warm = { outdoor: 70.0, coil: 70.0 }
    short = [600, { outdoor: 70.0, amps: 9.0, fan: 1.1, ob: 26.0, coil: 90.0 }]
    expect(story([600, warm], short, [600, { **warm, amps: 0.0, fan: 0.0, ob: 0.0 }], short).defrosts).to eq([])
    stands = [300, { amps: 9.0, fan: 0.0, ob: 0.0, coil: [16.0, 5.0] }]
    seen = story(rest, heat, stands, after, columns: %w[outdoor coil amps fan])
    expect(seen.defrosts).to eq([])
    expect(seen.fan_stops.map(&:last)).to contain_exactly(be_within(20).of(300))
    expect(story(rest, heat, rest, heat, rest, columns: %w[outdoor coil]).defrosts).to eq([])
  end

  it "knows which way O/B stands in heating from the record itself" do
    turned = ->(piece) { [piece[0], piece[1].merge(ob: piece[1][:ob].to_f.zero? ? 26.0 : 0.0)] }
    plain, other = story(rest, heat, defrost, after), story(rest, turned[heat], turned[defrost], turned[after])
    expect([plain.heating_ob, other.heating_ob]).to eq([false, true])
    expect(starts(other)).to eq(starts(plain))
  end

  it "leaves a reading that is missing as it was for what switches, and out for what does not" do
    holed = [3600, { amps: 9.0, fan: 1.1, ob: 0.0, w2: 0.0, coil: [20.0, 16.0] }]
    list = rows(rest, holed, defrost, after)
    list.each_with_index { |(_at, values), i| %i[amps coil ob].each { |id| values[id] = Float::NAN } if (i % 7).zero? }
    columns = %w[outdoor coil amps fan ob w2]
    seen =
      described_class.of(
        hours(list, columns),
        ids: columns,
        on_off: on_off,
        closes: 30.0,
        opens: 80.0,
        interval_seconds: 10
      )
    expect(starts(seen)).to contain_exactly(be_within(10).of(4500))
    expect(seen.runs.size).to eq(1)
  end

  it "tells the longest time on a cold coil without a defrost, with how the coil fell behind the air" do
    long = [14_400, { amps: 9.0, fan: 1.1, ob: 0.0, w2: 0.0, coil: [21.0, 8.0] }]
    stretch = story(rest, long, rest).stretches.first
    expect(stretch).to include("seconds" => be_within(200).of(14_400), "defrosted" => false)
    expect(stretch["difference"] - stretch["clean_difference"]).to be > 10
    expect(story(rest, heat, defrost, after, heat, defrost, after).stretches.map { |one| one["defrosted"] }.uniq).to eq(
      [true]
    )
  end

  it "gives back what it was when it is kept as JSON" do
    seen = story(rest, heat, defrost, after, rest)
    again = Gorvant::RecordedStory.from(JSON.parse(JSON.generate(seen.to_json_hash)))
    expect(again.defrosts).to eq(seen.defrosts)
    expect(again.runs).to eq(seen.runs)
  end
end
