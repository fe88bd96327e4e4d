# frozen_string_literal: true

require_relative "../../support/core"

# What parts the schools from each other: what they count on, ties at the very second, frost, temperatures, a clock that
# turns by itself.
RSpec.describe Gorvant::Schools do
  def profile(**facts) =
    Gorvant::ClockProfile.of(
      Gorvant::Composer.compose(
        name: "Apart",
        facts: { defrost_interval_minutes: 60 }.merge(facts).transform_keys(&:to_s)
      )
    )
  def history(minutes: 240, **lanes) =
    Gorvant::RunHistory.parse({ "minutes" => minutes, "fed" => "0-" }.merge(lanes.transform_keys(&:to_s)))
  def schools(lanes, facts: {}, **more) = described_class.new(history(**lanes), profile(**facts), **more)
  def course(school, lanes, **more) = schools(lanes, **more).courses.find { |one| one.school == school }

  it "counts run time while cold on Y and run time on T1, where nobody says otherwise" do
    counts = schools({ cold: "always" }).courses.to_h { |one| [one.school, one.counts_on] }
    expect(counts).to include(
      "run_time" => "T1",
      "run_time_cold" => "Y",
      "time_only" => "T1",
      "free" => nil,
      "clock_motor" => nil
    )
  end

  it "lets each be set, side by side in one comparison, and never moves the round ones" do
    lanes = { cold: "always", fed: "0-20, 35-", y: "0-" }
    own = schools(lanes).courses.to_h { |one| [one.school, one.starts.first] }
    set =
      schools(lanes, counts_on: { "run_time" => "Y", "run_time_cold" => "T1", "free" => "Y" }).courses.to_h do |one|
        [one.school, one.starts.first]
      end
    expect([own["run_time"], own["run_time_cold"]]).to eq([75, 60])
    expect([set["run_time"], set["run_time_cold"]]).to eq([60, 75])
    expect(set["free"]).to eq(own["free"])
  end

  describe "a clock motor" do
    it "turns by the clock, the defrost included, and misses its turn for a whole interval" do
      expect(course("clock_motor", { cold: "always" }).starts).to eq([60, 120, 180, 240])
      expect(course("clock_motor", { cold: "0-50, 70-" }).starts).to eq([120, 180, 240])
      expect(course("clock_motor", { cold: "always", fed: "0-55, 65-" }).starts).to eq([120, 180, 240])
    end

    it "is no free clock: that one stands while it defrosts where its board says so" do
      expect(course("free", { cold: "always" }).starts).to eq([60, 126, 192])
    end
  end

  describe "a tie at the very second" do
    it "is told as a tie, with the lane it hangs on" do
      step = course("run_time", { cold: "60-" }).steps.find { |one| one.kind == "start" }
      expect(step).to have_attributes(minute: 60.0, tie: true, says: include("coil"))
      before = course("run_time", { cold: "59-" }).steps.find { |one| one.kind == "start" }
      expect([before.minute, before.tie]).to eq([60.0, false])
    end

    it "is told for a compressor that stops as the clock comes round" do
      expect(
        course("free", { cold: "always", fed: "0-60, 61-" }).steps.find { |one| (one.minute - 60).abs < 1e-9 }.tie
      ).to be(true)
      expect(
        course("free", { cold: "always", fed: "0-61, 62-" }).steps.find { |one| (one.minute - 60).abs < 1e-9 }.tie
      ).to be(false)
    end
  end

  it "restarts for an open coil switch alone, and waits for all else" do
    restarts = ->(lanes) { course("run_time_restarts", lanes).starts.first }
    expect(restarts.call({ cold: "61-" })).to eq(120)
    expect(restarts.call({ cold: "always", fed: "0-", cooling: "55-70" })).to eq(70)
    expect(course("run_time", { cold: "61-" }).starts.first).to eq(61)
  end

  it "asks the air-pressure switch when a defrost is to begin, and at no other time" do
    lanes = { cold: "always", aps: "80-84" }
    expect(course("run_time", lanes).starts.first).to eq(80)
    expect(course("run_time", lanes).ends.first).to eq(86)
    expect(course("run_time", { cold: "always" }).starts.first).to eq(60)
    expect(course("run_time", { cold: "always", aps: "never" }).starts).to eq([])
    expect(course("run_time", lanes).steps.find { |one| one.kind == "wait" }.says).to include("air")
  end

  describe "temperatures in a history" do
    it "move the switch by its hysteresis where nobody wrote down how it stood" do
      facts = { coil_switch_closes_degrees_f: 30, coil_switch_opens_degrees_f: 60 }
      falls = course("run_time", { coil: "0:70, 100:20" }, facts: facts)
      expect(falls.starts.first).to be_within(1e-6).of(80) # 30 °F on the way from 70 to 20
      expect(course("run_time", { coil: "45" }, facts: facts).starts).to eq([])
      expect(course("run_time", { coil: "45", cold: "always" }, facts: facts).starts.first).to eq(60)
    end

    it "bring demand in, by how far the coil runs below the air, and the longest interval where it never does" do
      facts = {
        demand_minimum_minutes: 30,
        demand_maximum_minutes: 120,
        demand_below_air_degrees_f: [[0, 8], [40, 16]]
      }
      demand = ->(coil, air) { course("demand", { coil: coil, outdoor: air }, facts: facts)&.starts&.first }
      expect(demand.call("10", "30")).to eq(30) # 20 below, 14 needed
      expect(demand.call("17", "30")).to eq(120) # 13 below
      expect(demand.call("0:25, 60:5", "30")).to be_within(0.1).of(30)
      expect(schools({ cold: "always" }).courses.map(&:school)).not_to include("demand")
    end

    it "bring demand in nowhere while the coil is warm, though it is far below the air" do
      facts = { demand_minimum_minutes: 30, demand_maximum_minutes: 120 }
      expect(course("demand", { coil: "45", outdoor: "75" }, facts: facts).starts).to eq([])
    end
  end

  it "does with Y lost in mid-defrost what its board does" do
    lanes = { cold: "always", fed: "0-62, 90-", y: "0-62, 90-" }
    ends =
      %w[next_call abort finish].to_h do |way|
        [way, course("run_time", lanes, facts: { y_lost_in_defrost: way }).ends.first]
      end
    expect(ends).to eq("next_call" => 94, "abort" => 62, "finish" => 66)
    kinds = course("run_time", lanes, facts: { y_lost_in_defrost: "next_call" }).steps.map(&:kind)
    expect(kinds.first(4)).to eq(%w[start break resume end])
  end

  it "promises nothing on “auto” and calls what it counts by its name" do
    counts = schools({ cold: "always", coil: "20", outdoor: "30" }).courses.to_h { |one| [one.school, one.counts] }
    expect(counts.values.uniq.size).to be > 2
    expect(counts["free"]).not_to include("run time")
    expect(counts["run_time_cold"]).to include("cold")
  end

  [
    ["a lane that overlaps", { "fed" => "0-30, 20-40" }],
    ["a temperature without a minute", { "coil" => "0:40, 30" }],
    ["a minute that goes back", { "coil" => "30:20, 10:25" }],
    ["a temperature of no air on earth", { "outdoor" => "900" }],
    ["too long a history", { "minutes" => 1e9 }]
  ].each do |what, given|
    it "refuses #{what} by its field" do
      expect { Gorvant::RunHistory.parse({ "minutes" => 100, "fed" => "0-" }.merge(given)) }.to raise_error(
        Gorvant::BadHistory
      ) { |error| expect(error.problems.map { |one| one["field"] }).to eq(["/history/#{given.keys.first}"]) }
    end
  end
end
