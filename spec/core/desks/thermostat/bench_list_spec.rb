# frozen_string_literal: true

require_relative "../../../support/core"

# What to do at the thermostat and what is live then: run, not listed, so that jumpers and settings of this rig show in
# it.
RSpec.describe Gorvant::BenchList do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Bench", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def lines(outdoor = 40.0, **facts) = described_class.new(rig_with(**facts), outdoor_degrees_f: outdoor).lines
  def expects(outdoor = 40.0, **facts) = lines(outdoor, **facts).to_h { |line| [line.id, line.expect] }

  it "lights W2 and E together where the rig joins them, and each alone where it does not" do
    joined = expects
    expect([joined["emergency"], joined["heat-2"]]).to match([include("W2", "E"), include("W2", "E")])
    # Joined at the air handler, so it feeds back.
    expect(expects(emergency_path: "two_conductors")["emergency"]).to include("W2", "E")
  end

  it "lights W2 by the feed back through an outdoor thermostat in the cold, and not on a mild day" do
    facts = { outdoor_thermostat: true, outdoor_thermostat_closes_degrees_f: 40 }
    expect(expects(20.0, **facts)["emergency"]).to include("W2", "E")
    expect(expects(60.0, **facts)["emergency"]).to include("E").and(satisfy { |lit| !lit.include?("W2") })
  end

  it "has lines for fast recovery only where it is on, and lights at once what it brings" do
    expect(expects.keys.grep(/fast|push/)).to eq([])
    fast = expects(fast_heating: "either", fast_cooling: "error")
    expect(fast.keys).to include("heat-fast", "heat-push", "cool-fast")
    expect(fast.keys).not_to include("cool-push")
    expect(fast["heat-fast"]).to include("Y", "W2")
    expect(lines(fast_heating: "error").find { |line| line.id == "heat-fast" }.after_seconds).to be_between(1, 10)
  end

  it "waits as long as its own stage delay says, from the set point's last move" do
    [5, 10, 20].each do |minutes|
      wait = lines(stage_delay_minutes: minutes).find { |line| line.id == "heat-2" }
      expect(wait.after_seconds).to be_within(2).of(minutes * 60)
    end
    steps = lines(staging_school: "per_stage")
    expect(steps.find { |line| line.id == "heat-2" }.does).to match(/3.5/)
  end

  it "knows what balance points let through at this temperature" do
    facts = {
      outdoor_sensor: true,
      balance_points: true,
      compressor_balance_degrees_f: 35,
      auxiliary_balance_degrees_f: 55
    }
    expect(expects(20.0, **facts)["heat-1"]).to include("W2").and(satisfy { |lit| !lit.include?("Y") })
    expect(expects(65.0, **facts).values.grep(Array).flatten.tally["W2"].to_i).to eq(
      expects(65.0, **facts)["emergency"].count("W2")
    )
  end

  it "warns of cooling in frost and of heating in summer, and of nothing in between" do
    cautions = ->(outdoor, mode) { lines(outdoor).find { |line| line.id == "#{mode}-1" }.cautions }
    expect([cautions.call(30.0, "cool"), cautions.call(95.0, "heat")]).to all(include("out_of_season"))
    expect([cautions.call(75.0, "cool"), cautions.call(40.0, "heat")]).to all(eq([]))
  end

  it "keeps the changeover lit between calls where its school keeps it, and dark where not" do
    idle = ->(school) { expects(75.0, changeover_school: school)["cool-off"] }
    expect([idle.call("by_call"), idle.call("by_mode"), idle.call("latched")]).to eq([[], ["O"], ["O"]])
  end

  it "lights no compressor in emergency, on any sort of unit, and has no such line without backup" do
    [
      {},
      { backup: "gas" },
      { changeover: "B", changeover_terminal: "single", changeover_setup: "B" },
      { compressor_stages: 2, stage_2: "solenoid", y_path: "delay" }
    ].each { |facts| expect([facts, expects(**facts)["emergency"] & %w[Y Y1 Y2]]).to eq([facts, []]) }
    expect(expects(backup: "none").keys).not_to include("emergency")
  end

  it "keeps its ids when nothing but lengths of time change, so that a tick stays with its line" do
    usual = lines(compressor_stages: 2, stage_2: "solenoid").map(&:id)
    expect(lines(compressor_stages: 2, stage_2: "solenoid", stage_delay_minutes: 25).map(&:id)).to eq(usual)
    expect(usual.uniq).to eq(usual)
  end

  describe Gorvant::Target do
    it "puts each electrical setting right for what is fitted, whatever it was left at" do
      [
        {},
        { backup: "gas" },
        { backup: "none" },
        { changeover: "B" },
        { compressor_stages: 2, stage_2: "contactor" }
      ].each do |facts|
        rig = rig_with(changeover_terminal: "single", **facts)
        described_class
          .fitting(rig)
          .each_key do |key|
            Gorvant::Catalogue.facts.fetch(key)["of"].each_key do |value|
              right = described_class.rig(rig.set(key => value))
              expect(described_class.fitting(rig)[key]).to include(right[key]),
              "#{facts} #{key}=#{value}: #{right[key]}"
            end
          end
      end
    end

    it "leaves a right setting as it was, and touches no other fact" do
      rig = rig_with(stage_delay_minutes: 7)
      expect(described_class.rig(rig)).to equal(rig)
      wrong = rig.set("system_setup" => "conventional")
      expect(Gorvant::Comparison.of(wrong, described_class.rig(wrong)).map(&:field)).to eq(["/facts/system_setup"])
    end

    # [facts, codes]
    [
      [{}, []],
      [{ outdoor_thermostat: true }, []],
      [{ outdoor_thermostat: true, emergency_path: "jumper" }, ["emergency_held_off"]],
      [{ outdoor_thermostat: true, emergency_path: "both" }, ["jumper_forbidden_declared"]],
      [{ w2_out_run: false }, ["w2_out_not_run"]],
      [{ w2_out_run: false, backup: "none" }, []],
      [{ outdoor_thermostat: true, emergency_path: "jumper", backup: "none" }, []],
      [{ outdoor_thermostat: true, emergency_path: "jumper", w2_out_run: false }, %w[emergency_held_off w2_out_not_run]]
    ].each do |facts, codes|
      it "declares #{codes.empty? ? "nothing" : codes.join(", ")} wrong in #{facts}, and its sound rig has none of it" do
        rig = rig_with(**facts)
        expect(described_class.declared(rig).map(&:code)).to eq(codes)
        expect(described_class.declared(described_class.sound(rig))).to eq([])
      end
    end

    it "refuses points that cross, and points without their sensor, and takes those that meet" do
      points = ->(compressor, auxiliary, sensor) do
        rig_with(
          outdoor_sensor: sensor,
          balance_points: true,
          compressor_balance_degrees_f: compressor,
          auxiliary_balance_degrees_f: auxiliary
        )
      end
      expect { described_class.refuse!(points.call(50, 49, true)) }.to raise_error(Gorvant::RefusedSetUp) { |error|
        expect(error.message).to start_with("/facts/compressor_balance_degrees_f/value")
      }
      expect { described_class.refuse!(points.call(30, 50, false)) }.to raise_error(Gorvant::RefusedSetUp) { |error|
        expect(error.message).to start_with("/facts/outdoor_sensor/value")
      }
      expect(described_class.refuse!(points.call(50, 50, true))).to be_nil
    end

    [ # facts => what is said, at which of them; nil: taken
      [
        { coil_switch_closes_degrees_f: 42, coil_switch_opens_degrees_f: 41 },
        "coil_switch_opens_degrees_f",
        /above 42/
      ],
      [{ coil_switch_closes_degrees_f: 42, coil_switch_opens_degrees_f: 42 }, "coil_switch_opens_degrees_f", /at 42/],
      [{ coil_switch_closes_degrees_f: 42, coil_switch_opens_degrees_f: 42.5 }, nil, nil],
      [{ coil_switch_opens_degrees_f: 41 }, nil, nil], # closes at the usual 30
      [
        { sensing: "thermistors", coil_sensor_starts_degrees_f: 40, coil_sensor_ends_degrees_f: 38 },
        "coil_sensor_ends_degrees_f",
        /above 40/
      ],
      [{ coil_sensor_starts_degrees_f: 40, coil_sensor_ends_degrees_f: 38 }, nil, nil], # no sensor is asked of
      [
        { defrost_clock: "demand", demand_minimum_minutes: 90, demand_maximum_minutes: 60 },
        "demand_maximum_minutes",
        /below 90 min/
      ],
      [{ defrost_clock: "demand", demand_minimum_minutes: 90, demand_maximum_minutes: 90 }, nil, nil]
    ].each do |facts, at, says|
      it "#{at ? "refuses" : "takes"} #{facts}" do
        judged = -> { described_class.refuse!(rig_with(**facts)) }
        if at
          expect(&judged).to raise_error(Gorvant::RefusedSetUp, %r{\A/facts/#{at}/value: .*#{says.source}})
        else
          expect(judged.call).to be_nil
        end
      end
    end
  end
end
