# frozen_string_literal: true

require_relative "../../support/core"

# What a record says of a board: each verdict, its opposite, its boundary, and where nobody looked.
RSpec.describe Gorvant::RecordedJudge do
  # A healthy defrost of a unit on 60 min, its switch 30 and 80 °F, its limit 10 min.
  def defrost(number, **changes)
    start = 1_768_000_000.0 + (number * 3900)
    Gorvant::RecordedDefrost.new(
      start: start,
      end: start + 300,
      seen_by: "ob",
      ended_with: nil,
      paused_seconds: 0.0,
      outdoor: 30.0,
      outdoor_most: 30.5,
      coil_start: 18.0,
      coil_end: 80.0,
      coil_most: 80.5,
      climb: 12.0,
      coldest_since: 16.0,
      ran_after: 900.0,
      watched: 900.0,
      fan_on_share: 0.0,
      fan_back_after: 5.0,
      strips_on_after: 5.0,
      strips_off_after: 10.0,
      strips_before: false,
      turns_after: 20.0,
      vapor_turns_after: 20.0,
      run_seconds: 3600.0,
      cold_run_seconds: 3600.0,
      wall_seconds: 3600.0,
      start_to_start_run_seconds: 3600.0,
      whole: true,
      clean_difference: 9.0,
      last_difference: 11.0,
      frost_kg: 1.5,
      recovery_seconds: 60.0,
      path: [[0, 18], [60, 36], [120, 38], [180, 50], [240, 65], [290, 80]],
      **changes
    )
  end

  all_columns = %w[outdoor coil fan amps w2 ob]
  let(:all_columns) { all_columns }
  let(:facts) { { "defrost_interval_minutes" => 60, "defrost_clock" => "run_time" } }
  let(:unit) { rig.set(facts, "measured") }

  def story(defrosts = nil, count: 5, columns: all_columns, each: {}, **changes)
    list = defrosts || Array.new(count) { |i| defrost(i, **each) }
    last = list.last&.end || 1_768_030_000.0
    Gorvant::RecordedStory.new(
      from: 1_767_990_000.0,
      to: last + 3600,
      columns: columns,
      defrosts: list,
      runs: [[1_767_990_000.0, last + 3600]],
      run_seconds: last + 3600 - 1_767_990_000,
      stretches: [],
      interval_seconds: 10.0,
      running_by: "amps",
      humidity: "column",
      fan_stops: [],
      cold: [[1_767_990_000.0, last + 3600]],
      over_air_seconds: 0,
      under_air_seconds: 9000,
      w2_alone_seconds: 0,
      on_off: {
      },
      heating_ob: false,
      **changes
    )
  end

  def judge(story, on: unit) = described_class.new(story, on)
  def codes(story, on: unit) = judge(story, on: on).verdicts.map(&:code)
  def board(**facts) = unit.set(facts.transform_keys(&:to_s), "measured")

  it "says what it looked at of a healthy unit, and what the record has no column for" do
    verdicts = judge(story).verdicts
    expect(verdicts.map(&:code)).to include("recorded_fine", "recorded_interval_as_set")
    expect(verdicts.map(&:verdict).uniq).to eq(["right"])
    fine =
      judge(story(columns: %w[outdoor coil amps], each: { seen_by: "coil", strips_on_after: nil, fan_on_share: nil }))
        .verdicts
        .find { |one| one.code == "recorded_fine" }
    expect(fine.not_proved.join).to include("Outdoor fan, W2, O/B")
    expect(fine.says).not_to include("fan")
  end

  # [what is seen, of every defrost; the verdict; a change after which it is not said]
  {
    "a coil that passes its point" => [
      { coil_most: 120.0, coil_end: 120.0, end: 420, path: [[0, 18], [100, 80], [250, 120]] },
      "recorded_passed_opening",
      { coil_most: 86.0, coil_end: 86.0 }
    ],
    "the limit, with the coil far from its point" => [
      { end: 600, coil_most: 55.0, coil_end: 55.0, climb: 1.0 },
      "recorded_ended_by_time",
      { end: 600, coil_most: 79.0, coil_end: 79.0 }
    ],
    "an end short of both" => [
      { end: 180, coil_most: 45.0, coil_end: 45.0, climb: 2.0 },
      "recorded_ended_early",
      { end: 180 }
    ],
    "a start on a coil that was never cold" => [
      { coldest_since: 45.0 },
      "recorded_started_warm",
      { coldest_since: 37.0 }
    ],
    "a fan that draws all through it" => [{ fan_on_share: 1.0 }, "recorded_fan_runs", { fan_on_share: 0.4 }],
    "a fan that stands afterwards" => [{ fan_back_after: nil }, "recorded_fan_not_back", { fan_back_after: 80.0 }],
    "no W2" => [
      { strips_on_after: nil, strips_off_after: nil },
      "recorded_strips_missing",
      { strips_on_after: nil, strips_off_after: nil, strips_before: true }
    ],
    "W2 that came late" => [
      { strips_on_after: 200.0 },
      "recorded_strips_missing",
      { strips_on_after: nil, strips_off_after: nil, strips_before: nil }
    ],
    "a fan that comes back late" => [{ fan_back_after: 95.0 }, "recorded_fan_not_back", { fan_back_after: 85.0 }],
    "W2 that stays" => [{ strips_off_after: nil }, "recorded_strips_stay", { strips_off_after: 200.0 }],
    "a coil that does not warm" => [
      { end: 600, turns_after: nil, coil_most: 10.0, coil_end: 10.0 },
      "recorded_valve_not_turning",
      { end: 600, turns_after: 200.0, coil_most: 10.0, coil_end: 10.0 }
    ],
    "a coil that turns late" => [{ turns_after: 100.0 }, "recorded_valve_slow", { turns_after: 50.0 }],
    "an interval that is another" => [
      { run_seconds: 5400.0, start_to_start_run_seconds: 5400.0, wall_seconds: 5400.0 },
      "recorded_interval_other",
      { run_seconds: 3660.0 }
    ],
    "a start sooner than any clock of that interval" => [
      { whole: false, run_seconds: 1800.0, start_to_start_run_seconds: 1800.0, cold_run_seconds: 900.0 },
      "recorded_interval_shorter",
      { whole: false, run_seconds: 4100.0, start_to_start_run_seconds: 4100.0 }
    ],
    "nothing to melt" => [{ frost_kg: 0.05 }, "recorded_dry", { frost_kg: 0.3 }],
    "more frost than the fins bear" => [{ frost_kg: 5.0 }, "recorded_much_frost", { frost_kg: 4.0 }]
  }.each do |what, (seen, code, not_seen)|
    it "names #{what} where it comes again and again, and neither once nor where it is otherwise" do
      changed = ->(changes, number) do
        changes.key?(:end) ? changes.merge(end: defrost(number).start + changes[:end]) : changes
      end
      every = ->(changes) { story(Array.new(5) { |i| defrost(i, **changed[changes, i]) }) }
      uneven = ->(changes) do
        # One that is told again and again has to differ from run to run, or it is a clock's.
        if code == "recorded_interval_shorter"
          story(Array.new(5) { |i| defrost(i, **changes, run_seconds: changes[:run_seconds] + (i * 300)) })
        else
          every[changes]
        end
      end
      expect(codes(uneven[seen])).to include(code)
      expect(codes(uneven[not_seen])).not_to include(code)
      once = story([defrost(0, **changed[seen, 0]), *Array.new(5) { |i| defrost(i + 1) }])
      expect(codes(once)).not_to include(code)
      expect(codes(story(Array.new(2) { |i| defrost(i, **changed[seen, i]) }))).not_to include(code)
    end
  end

  it "clears nothing that it saw too seldom, and tells what is otherwise now and then" do
    fine = ->(given) { judge(given).verdicts.find { |one| one.code == "recorded_fine" } }
    expect(fine[story].says).to include("the fan stood in defrost and came back", "W2 came and went")
    stopped = story(each: { ran_after: 20.0, fan_back_after: nil, watched: 20.0, strips_off_after: nil })
    expect(fine[stopped].says).not_to match(/fan|W2/)
    expect(fine[stopped].not_proved.join).to include("Outdoor fan, seen too seldom", "W2, seen too seldom")

    once = story([defrost(0, fan_back_after: nil), *Array.new(9) { |i| defrost(i + 1) }])
    told = judge(once).verdicts.find { |one| one.code == "recorded_now_and_then" }
    expect(told.says).to include("the fan did not come back 1 / 10")
    expect(codes(once)).not_to include("recorded_fine")
    timed = Array.new(5) { |i| defrost(i, end: defrost(i).start + 600, coil_most: 60.0, coil_end: 60.0, climb: 0.5) }
    expect(codes(story(timed), on: board(defrost_ends_by: "time"))).to include("recorded_fine")
  end

  it "looks at nothing that the record has no column for" do
    bare =
      story(
        columns: %w[outdoor amps ob],
        each: {
          coil_most: nil,
          coil_end: nil,
          coil_start: nil,
          climb: nil,
          path: [],
          turns_after: nil,
          fan_on_share: nil,
          fan_back_after: nil,
          strips_on_after: nil,
          strips_off_after: nil,
          strips_before: nil,
          coldest_since: nil
        }
      )
    expect(codes(bare) - %w[recorded_fine recorded_interval_as_set recorded_school_fits]).to eq([])
  end

  it "tells the cause of an end only where the record can" do
    ended = ->(**changes) { judge(story).ended_by(defrost(0, **changes)) }
    at = ->(seconds) { defrost(0).start + seconds }
    expect(ended[]).to eq("temperature")
    expect(ended[end: at[600], coil_most: 55.0, coil_end: 55.0, climb: 1.0]).to eq("time")
    expect(ended[end: at[600]]).to be_nil # at its point and at the limit: either
    expect(ended[end: at[600], coil_most: 75.0, coil_end: 75.0, climb: 0.0]).to be_nil # nearly
    expect(ended[ended_with: "call", coil_end: 40.0, climb: 1.0]).to eq("call")
    expect(ended[ended_with: "call"]).to be_nil # the call went as the coil came to its point
    expect(ended[ended_with: "record"]).to be_nil
    expect(ended[coil_end: nil, coil_most: nil]).to eq("temperature") # well short of the limit
    expect(judge(story, on: board(defrost_ends_by: "time")).ended_by(defrost(0))).to eq("time")
  end

  it "suspects a defrost that never came, and is sure only where ice is seen to grow" do
    stretch = {
      "to" => 1.0,
      "seconds" => 12_600,
      "defrosted" => false,
      "clean_difference" => 9.0,
      "difference" => 20.0,
      "outdoor" => 30.0,
      "frost_kg" => 5.0
    }
    never = ->(columns: all_columns, **changes) do
      codes(story([], columns: columns, stretches: [stretch.merge(changes.transform_keys(&:to_s))]))
    end
    expect(never[]).to eq(["recorded_never_started"])
    late = story(stretches: [stretch.merge("defrosted" => true)])
    expect(codes(late)).to include("recorded_never_started")
    # A clock that goes round may have missed its turns; one that never defrosted has no such way out.
    expect(codes(late, on: board(defrost_clock: "free"))).not_to include("recorded_never_started")
    expect(codes(story([], stretches: [stretch]), on: board(defrost_clock: "free"))).to eq(["recorded_never_started"])
    expect(never[difference: 11.0]).to eq(["recorded_never_suspected"])
    expect(never[columns: %w[outdoor amps fan]]).to eq(["recorded_never_suspected"])
    expect(never[seconds: 11_000]).to eq(["recorded_none_due"])
    expect(codes(story([]))).to eq(["recorded_none_due"])
    expect(codes(story(count: 2))).to include("recorded_few")
  end

  it "holds runs, heat by itself and O/B against what is fitted" do
    short = Array.new(40) { |i| [1_768_000_000.0 + (i * 300), 1_768_000_150.0 + (i * 300)] }
    expect(codes(story(runs: short))).to include("recorded_short_cycling")
    close = Array.new(10) { |i| [1_768_000_000.0 + (i * 3600), 1_768_000_000.0 + (i * 3600) + 3500] }
    expect(codes(story(runs: close))).to include("recorded_no_hold")
    expect(codes(story(w2_alone_seconds: 7200))).to include("recorded_strips_alone")
    expect(codes(story(w2_alone_seconds: 7200), on: board(backup: "none"))).not_to include("recorded_strips_alone")
    expect(codes(story(heating_ob: true))).to include("recorded_ob_other")
    expect(codes(story(fan_stops: [[1.0, 300.0]] * 4, columns: all_columns - ["ob"]))).to include("recorded_fan_stops")
    expect(codes(story(fan_stops: [[1.0, 300.0]] * 2, columns: all_columns - ["ob"]))).not_to include(
      "recorded_fan_stops"
    )
  end

  it "doubts the clock that is recorded where another fits every spell, and a demand board that melts nothing" do
    # Runs of 30 min, 30 apart: a clock that counts running starts after two hours by the wall, a free one after one.
    base = 1_768_000_000.0
    runs = Array.new(60) { |i| [base + (i * 3600), base + (i * 3600) + 1800] }
    list =
      Array.new(7) do |i|
        defrost(
          0,
          start: base + (i * 7500),
          end: base + (i * 7500) + 300,
          whole: false,
          run_seconds: 3600.0,
          wall_seconds: 7200.0
        )
      end
    spelled = story(list, runs: runs, cold: [[base, base + 900_000]])
    expect(codes(spelled, on: board(defrost_clock: "free"))).to include("recorded_school_other")
    fits = judge(spelled).verdicts.find { |one| one.code == "recorded_school_fits" }
    expect(fits.says).to end_with("ruled out: free clock, clock motor.")
    expect(fits.not_proved.join).to include("time only", "run time while cold")
    dry = story(each: { frost_kg: 0.05 })
    expect(codes(dry, on: board(defrost_clock: "demand"))).to include("recorded_dry_demand")
    expect(codes(dry, on: board(defrost_clock: "demand"))).not_to include("recorded_dry")
  end

  it "bounds the coil switch's points by starts and ends, and holds a demand board's starts against its curve" do
    says = ->(given, code, on: unit) { judge(given, on: on).verdicts.find { |one| one.code == code }&.says }
    spread = story(Array.new(4) { |i| defrost(i, coldest_since: 12.0 + i, coil_end: 76.0 + i, coil_most: 81.0) })
    expect(says[spread, "recorded_switch_points"]).to include("closed at 15 °F or above", "between 76 and 81 °F")
    timed =
      story(Array.new(4) { |i| defrost(i, end: defrost(i).start + 600, coil_end: 50.0, coil_most: 50.0, climb: 0.5) })
    expect(says[timed, "recorded_switch_points"]).to be_nil

    demand = board(defrost_clock: "demand")
    clock = Gorvant::DefrostClock.new(Gorvant::ClockProfile.of(demand))
    at = ->(below) { story(each: { coil_start: 30.0 - below, run_seconds: 4000.0 }) }
    due = 30.0 - clock.demand_point(30.0)
    expect(codes(at[due + 4], on: demand)).to include("recorded_demand_as_set")
    expect(codes(at[due + 6], on: demand)).to include("recorded_demand_other")
    longest = story(each: { coil_start: 10.0, run_seconds: clock.profile.demand_maximum_seconds.to_f })
    expect(codes(longest, on: demand).grep(/demand_/)).to eq([])
  end

  it "stands beside a defrost what should have been, as far as board and record say" do
    rows =
      judge(story).beside(defrost(0)).to_h { |row| [row["mark"], row.values_at("expected_seconds", "seen_seconds")] }
    expect(rows).to include("started" => [3600.0, 3600.0], "ended" => [290, 300.0], "fan_back" => [0.0, 5.0])
    expect(judge(story).beside(defrost(0, run_seconds: nil)).first["expected_seconds"]).to be_nil
  end
end
