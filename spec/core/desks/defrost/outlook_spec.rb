# frozen_string_literal: true

require_relative "../../../support/core"

RSpec.describe Gorvant::DefrostOutlook do
  def rig_with(**facts) =
    Gorvant::Composer.compose(
      name: "Bench",
      facts: { defrost_interval_minutes: 60 }.merge(facts).transform_keys(&:to_s)
    )
  def outlook(rig, **moment) =
    described_class.new(rig, described_class::Moment.new(call: "heat", outdoor_degrees_f: 30.0, **moment))
  def out(outlook) = outlook.lamps.reject(&:on).map(&:id)

  it "says what a defrost waits for, lamp by lamp" do
    expect(out(outlook(rig_with, coil_degrees_f: 20.0, counted_minutes: 60))).to eq([])
    expect(out(outlook(rig_with, coil_degrees_f: 90.0, counted_minutes: 20))).to eq(%w[cold count])
    expect(out(outlook(rig_with, coil_degrees_f: 20.0, counted_minutes: 60, switches: { "HPS" => "open" }))).to eq(
      %w[t1]
    )
    expect(
      out(
        outlook(
          rig_with(clock_counts_on: "Y"),
          coil_degrees_f: 20.0,
          counted_minutes: 60,
          switches: {
            "HPS" => "open"
          }
        )
      )
    ).to eq([])
    expect(
      out(
        described_class.new(
          rig_with,
          described_class::Moment.new(call: "cool", outdoor_degrees_f: 80.0, coil_degrees_f: 20.0, counted_minutes: 60)
        )
      )
    ).to eq(%w[call])
    expect(
      out(
        outlook(
          rig_with,
          coil_degrees_f: 20.0,
          counted_minutes: 60,
          faults: [{ "kind" => "open", "at" => "cable_b.red" }]
        )
      )
    ).to eq(%w[power y t1 cold].-(%w[y t1]))
    between = outlook(rig_with, coil_degrees_f: 50.0).lamps
    expect(between.to_h { |lamp| [lamp.id, lamp.on] }).to include("cold" => nil, "count" => nil)
    expect(between.find { |lamp| lamp.id == "cold" }.waits_for).to include("nobody can tell")
  end

  it "tells when the next is due, or why it does not come, and under which assumptions" do
    soon = outlook(rig_with, coil_degrees_f: 24.0, counted_minutes: 40).following
    expect(soon).to have_attributes(in_seconds: be_within(2).of(1200), says: "Next defrost in 20 min")
    expect(soon.assumed).to include(
      "the coil stays at 24 °F",
      "the call goes on without a stop",
      a_string_including("as the profile has them, not read: defrost clock")
    )
    freed = soon.course.to_h { |sight| [sight.says, sight.after_seconds.round] }
    expect(freed).to include(
      "Board: defrost begins, 60 min counted and the coil is cold" => 0,
      "Outdoor fan off" => 0,
      "Valve moves to cooling" => 1,
      "Heat strips on" => 25
    )
    over = freed.fetch("Board: defrost over, the coil is warm: ended by temperature (when: modelled)")
    expect([freed.fetch("Outdoor fan on"), freed.fetch("Heat strips off")]).to eq([over, over + 50]),
    "a measured coil is held until it begins, and no longer"
    unfrozen =
      outlook(
        rig_with(defrost_ends_by: "time", defrost_limit_minutes: 6),
        coil_degrees_f: 24.0,
        counted_minutes: 40
      ).following
    expect(unfrozen.course.map(&:says).grep(/over/)).to eq(["Board: defrost over, 6 min are over: ended by time"])
    never = outlook(rig_with, coil_degrees_f: 60.0, counted_minutes: 59).following
    expect(never).to have_attributes(in_seconds: nil, course: [])
    expect(never.because.join(" ")).to include("Coil switch closed", "waiting for a cold coil")
    read = rig_with.set({ "defrost_clock" => "run_time", "defrost_interval_minutes" => 60 }, "measured")
    expect(outlook(read, coil_degrees_f: 24.0).following.assumed.join).not_to include("defrost clock")
  end

  it "lists what to read, with what the circuit expects: O and B types" do
    %w[O B].each do |letter|
      lines =
        outlook(rig_with(changeover: letter), coil_degrees_f: 20.0).checklist.to_h do |line|
          [line.id, line.expected_volts_ac&.round]
        end
      expect(lines).to include(
        "supply" => be > 22,
        "t1" => be > 22,
        "coil_switch" => 0,
        "fan" => 0,
        "w2_out" => be > 22,
        "valve" => letter == "O" ? be > 22 : 0
      )
    end
    warm = outlook(rig_with, coil_degrees_f: 90.0).checklist.to_h { |line| [line.id, line.expected_volts_ac&.round] }
    expect(warm["coil_switch"]).to be > 22
    expect(
      outlook(rig_with, coil_degrees_f: 50.0).checklist.find { |line| line.id == "coil_switch" }
    ).to have_attributes(expected_volts_ac: nil, says: include("measure the coil"))
    expect(outlook(rig_with(sensing: "thermistors", backup: "none")).checklist.map(&:id)).to eq(
      %w[supply y t1 fan valve]
    )
  end

  it "starts a demand board's defrost by how far the coil runs below the air" do
    demand =
      rig_with(sensing: "thermistors", defrost_clock: "demand", demand_minimum_minutes: 20, demand_maximum_minutes: 120)
    clock = Gorvant::DefrostClock.new(Gorvant::ClockProfile.of(demand))
    expect([-30, 0, 25, 40, 90].map { |air| clock.below_air(air) }).to eq([6, 8, 11, 15, 18])
    expect(clock.demand_point(30)).to eq(18)
    expect(outlook(demand, coil_degrees_f: 17.0).following.in_seconds).to be_within(2).of(1200)
    expect(outlook(demand, coil_degrees_f: 19.0).following.in_seconds).to be_within(2).of(7200)
    expect(outlook(demand, coil_degrees_f: 40.0).following.in_seconds).to be_nil
    expect(out(outlook(demand, coil_degrees_f: 19.0, counted_minutes: 30))).to eq(["frost"])
  end

  describe "the lamps that a board really has" do
    def ids(rig, **moment) = outlook(rig, **moment).lamps.map(&:id)

    it "are one for each condition it asks, and none for what is not fitted" do
      expect(ids(rig_with)).not_to include("air_pressure", "sensors", "frost")
      expect(ids(rig_with(air_pressure_switch: true))).to include("cold", "air_pressure")
      expect(ids(rig_with(sensing: "thermistors", defrost_clock: "demand"))).to include("sensors", "frost").and(
        satisfy { |list| !list.include?("cold") }
      )
      expect(ids(rig_with(defrost_clock: "time_only"))).not_to include("cold")
      expect(ids(rig_with(clock_counts_on: "Y"))).not_to include("t1")
      expect(ids(rig_with(defrost_in_cooling: true))).not_to include("call")
    end

    it "leave the air-pressure switch open as long as nobody looked, and take what was seen" do
      lamp = ->(**moment) do
        outlook(rig_with(air_pressure_switch: true), **moment).lamps.find { |one| one.id == "air_pressure" }
      end
      expect(lamp.call.on).to be_nil
      expect(%w[closed open].map { |state| lamp.call(switches: { "APS" => state }).on }).to eq([true, false])
      held =
        outlook(
          rig_with(air_pressure_switch: true),
          coil_degrees_f: 20.0,
          counted_minutes: 60,
          switches: {
            "APS" => "open"
          }
        ).following
      expect(held.in_seconds).to be_nil
      expect(held.because.join(" ")).to include("air").and(
        satisfy { |words| !words.include?("waiting for a cold coil") }
      )
    end

    it "show a failed sensor for what it is, and no frost by it" do
      demand = rig_with(sensing: "thermistors", defrost_clock: "demand", demand_maximum_minutes: 120)
      failed =
        outlook(
          demand,
          coil_degrees_f: 5.0,
          counted_minutes: 60,
          faults: [{ "kind" => "sensor_open", "at" => "COIL_T" }]
        )
      expect(failed.lamps.find { |lamp| lamp.id == "sensors" }.on).to be(false)
      expect(failed.following.in_seconds).to be_nil
      backed =
        outlook(
          rig_with(
            sensing: "thermistors",
            defrost_clock: "demand",
            demand_maximum_minutes: 120,
            failed_sensor_backstop: true
          ),
          coil_degrees_f: 5.0,
          counted_minutes: 60,
          faults: [{ "kind" => "sensor_open", "at" => "COIL_T" }]
        )
      expect(backed.following).to have_attributes(
        in_seconds: be_within(2).of(3600),
        because: include(include("longest interval"))
      )
    end
  end

  it "starts by time alone on a warm coil too, and says that it is waste" do
    warm = outlook(rig_with(defrost_clock: "time_only"), coil_degrees_f: 95.0, counted_minutes: 50).following
    expect(warm.in_seconds).to be_within(2).of(600)
    expect(warm.because.join(" ")).to match(/waste|thaw/)
    cold = outlook(rig_with(defrost_clock: "time_only"), coil_degrees_f: 20.0, counted_minutes: 50).following
    expect(cold.because.join(" ")).not_to include("waste")
  end

  it "promises no minute on “auto”" do
    expect(
      outlook(rig_with(interval_auto: true), coil_degrees_f: 20.0, counted_minutes: 59).following
    ).to have_attributes(in_seconds: nil, says: include("auto"))
  end

  it "knows by what it was told whether anything was measured" do
    expect(
      [
        outlook(rig_with),
        outlook(rig_with, coil_degrees_f: 20.0),
        outlook(rig_with, switches: { "DFT" => "closed" })
      ].map(&:measured?)
    ).to eq([false, true, true])
  end

  it "takes the longer over the next defrost the wetter the air, says that it is modelled, and what it took for wet" do
    over =
      [35.0, nil, 95.0].map do |percent|
        following = outlook(rig_with, counted_minutes: 55, humidity_percent: percent).following
        said = percent ? "at #{percent.round} % humidity" : "80 % humidity, which nobody gave"
        expect(following.assumed).to include(include(said))
        following.course.find { |sight| sight.says.include?("over") && sight.says.include?("modelled") }.after_seconds
      end
    expect([over.sort, over.last > over.first * 2]).to eq([over, true])
  end
end
