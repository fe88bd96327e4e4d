# frozen_string_literal: true

require_relative "../../support/core"

# A unit in its house over a day: the board's own clock on the frost model. What is held here are the trade's rules, not
# the model's figures.
RSpec.describe Gorvant::FrostRun do
  let(:profile) { Gorvant::ClockProfile.of(rig).with(interval_seconds: 3600.0) }

  def day(degrees: 28.0, humidity: 85.0, wind: 3.0, hours: 24, board: profile, **more)
    weather = Gorvant::FrostCoil::Weather.new(degrees_f: degrees, humidity_percent: humidity, wind_mph: wind)
    run = described_class.new(profile: board, weather: ->(_seconds) { weather }, **more)
    rows = []
    run.go(hours * 3600) { |row| rows << row }
    [run, rows]
  end

  def ended(run) = run.defrosts.select(&:end_seconds)

  it "defrosts a healthy unit once for each interval of running, by temperature, and clear of ice" do
    run, rows = day
    expect(ended(run).size).to be > 10
    expect(ended(run).drop(1).map(&:run_seconds_since)).to all(be_within(30).of(3600))
    expect(ended(run).map(&:by).uniq).to eq(["temperature"])
    expect(ended(run).map(&:left_kg)).to all(be < 0.1)
    in_defrost = rows.select(&:relay).select(&:running)
    expect(in_defrost).to all(have_attributes(fan: false, w2: true, cooling: true))
    expect(rows.reject(&:relay).select(&:running)).to all(have_attributes(fan: true, cooling: false))
  end

  it "keeps the room about its set point, and more often runs in the cold" do
    [[40.0, 0.6], [15.0, 1.0]].each do |degrees, most|
      run, rows = day(degrees: degrees)
      expect(rows.drop(2000).map(&:room).minmax).to match([be > 65, be < 73])
      expect(run.run_seconds / 86_400).to be <= most
    end
  end

  it "never defrosts where it never frosts, and is waited for where the coil is warm" do
    expect(day(degrees: 48.0).first.defrosts).to eq([])
    by_time = profile.with(school: "time_only")
    run, = day(degrees: 48.0, board: by_time)
    expect(run.defrosts.map(&:frost_kg)).to all(eq(0.0))
    expect(run.defrosts.size).to be > 3
  end

  it "ends by time in the wind, night after night" do
    run, = day(degrees: 15.0, wind: 20.0, board: profile.with(ends_degrees_f: 60.0))
    expect(ended(run).map(&:by).uniq).to eq(["time"])
    calm, = day(degrees: 15.0, wind: 3.0, board: profile.with(ends_degrees_f: 60.0))
    expect(ended(calm).map(&:by).uniq).to eq(["temperature"])
  end

  # What each fault does, seen from outside.
  {
    "switch_stuck_closed" => ->(run, _rows) { run.defrosts.filter_map(&:by).uniq == ["time"] },
    "switch_stuck_open" => ->(run, _rows) { run.defrosts.empty? && run.worst_frost_kg > 5 },
    "switch_opens_late" => ->(run, _rows) { run.defrosts.filter_map(&:ends_degrees_f).min > 100 },
    "switch_off_pipe" => ->(run, _rows) { run.defrosts.filter_map(&:by).uniq == ["time"] },
    "fan_runs_in_defrost" => ->(_run, rows) { rows.select { |row| row.relay && row.running }.all?(&:fan) },
    "fan_stays_off" => ->(_run, rows) { rows.last(2000).none?(&:fan) },
    "strips_dead" => ->(_run, rows) { rows.none?(&:w2) },
    "strips_stay_on" => ->(_run, rows) { rows.last(2000).all?(&:w2) },
    "valve_stuck" => ->(run, rows) { rows.none?(&:cooling) && run.worst_frost_kg > 5 },
    "valve_slow" => ->(_run, rows) { rows.each_cons(5).any? { |some| some.all? { |row| row.relay && !row.cooling } } },
    "never_starts" => ->(run, _rows) { run.defrosts.empty? && run.worst_frost_kg > 5 },
    "low_charge" => ->(run, _rows) { run.defrosts.count { |one| one.by == "time" } > run.defrosts.size / 2 },
    "short_cycling" => ->(_run, rows) { rows.each_cons(2).count { |one, other| !one.y && other.y } > 100 }
  }.each do |fault, shows|
    it "shows #{fault} as the unit would, and not where it is not there" do
      expect(shows.call(*day(faults: [fault]))).to be(true)
      expect(shows.call(*day)).to be(false)
    end
  end

  it "knows every fault that a record can be asked for, and no other" do
    expect { day(faults: ["moon"], hours: 1) }.to raise_error(ArgumentError, /no fault moon/)
    expect(described_class::FAULTS.size).to eq(13)
  end

  it "comes to about the same at a step three times as long" do
    fine, coarse = [10.0, 30.0].map { |seconds| day(step_seconds: seconds).first }
    expect(coarse.defrosts.size).to be_within(1).of(fine.defrosts.size)
    expect(coarse.worst_frost_kg).to be_within(0.3).of(fine.worst_frost_kg)
  end
end
