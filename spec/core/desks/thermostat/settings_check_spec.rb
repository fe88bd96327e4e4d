# frozen_string_literal: true

require_relative "../../../support/core"

# A thermostat's settings against the equipment, and what to expect at its terminals.
RSpec.describe Gorvant::SettingsCheck do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Bench", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def check(rig, **settings) =
    described_class.new(
      rig,
      Gorvant::AsFound.parse({ "settings" => settings.transform_keys(&:to_s) }, rig),
      set_point_degrees_f: 72.0
    )

  # [facts, settings as found, code, severity, evidence]
  [
    [
      { outdoor_sensor: true },
      { balance_points: true, compressor_balance_degrees_f: 52, auxiliary_balance_degrees_f: 46 },
      "balance_points_crossed",
      "fault",
      "nothing heats from 48 to 50"
    ],
    [{}, { balance_points: true }, "balance_points_blind", "fault", "at 30 °F outside: the compressor and backup"],
    [{}, { system_setup: "conventional" }, "setting_system_setup", "fault", "Cool: the heat pump heats"],
    [
      { changeover_terminal: "single" },
      { changeover_setup: "B" },
      "setting_changeover_setup",
      "fault",
      "Heat: the heat pump cools"
    ],
    [
      { compressor_stages: 2, stage_2: "solenoid" },
      { stages_setup: 1 },
      "setting_stages_setup",
      "fault",
      "Heat 2: stage solenoid off"
    ],
    [{}, { backup_setup: "gas" }, "setting_backup_setup", "fault", "Heat + aux: strips heat, without blower"],
    [
      { backup: "gas" },
      { backup_setup: "electric" },
      "setting_backup_setup",
      "fault",
      "Heat + aux: the heat pump heats, the furnace heats"
    ],
    [{}, { blower_setup: "furnace" }, "setting_blower_setup", "fault", "Emergency: strips heat, without blower"],
    [{}, { emergency_setup: "gas" }, "setting_emergency_setup", "fault", "Emergency: strips heat, without blower"],
    [{}, { blower_setup: "furnace" }, "strips_without_blower", "fault", "in: Emergency"],
    [
      { sequencer_off_seconds: 90, blower_off_delay_seconds: 30 },
      {},
      "strips_without_blower",
      "fault",
      "from 30 to 90 s after the call ends"
    ],
    [{}, { thermostat_minimum_off_seconds: 0 }, "short_cycling", "warning", "6 s after the stop"],
    [{ board_family: "osier" }, {}, "two_holds", "note", "30"],
    [
      { outdoor_sensor: true, balance_points: true },
      { compressor_lockout: "off_for_test" },
      "lockout_left_off",
      "warning",
      "at 30 °F outside: the compressor and backup"
    ],
    [{}, { fast_heating: "push" }, "fast_recovery_on", "note", ""],
    [{}, { sensor_offset_degrees_f: -3 }, "sensor_offset", "note", ""],
    [{}, { heat_limit_degrees_f: 65 }, "set_point_limited", "warning", ""]
  ].each do |facts, settings, code, severity, evidence|
    it "reports #{code} of #{facts.merge(settings)}" do
      one = check(rig_with(**facts), **settings)
      finding = one.findings.find { |found| found.code == code } or raise one.findings.map(&:code).join(" ")
      expect(finding.severity).to eq(severity)
      expect([finding.says, *finding.evidence].join(" ")).to include(evidence)
      right = check(rig_with(**facts))
      expect(right.findings.map(&:code)).not_to include(code) unless settings.empty?
    end
  end

  it "does not take the blower's own delay at the start of a call for a fault" do
    late = rig_with(strip_switch: "relay", blower_on_delay_seconds: 20)
    expect(check(late).findings.map(&:code)).to eq([])
  end

  it "marks each setting: agreed, wrong, worth a look, or only assumed" do
    one =
      check(
        rig_with(changeover_terminal: "single"),
        changeover_setup: "B",
        system_setup: "heat_pump",
        fast_heating: "error"
      )
    verdicts = one.items.to_h { |item| [item.key, item.verdict] }
    expect(verdicts).to include(
      "changeover_setup" => "disagrees",
      "system_setup" => "agrees",
      "fast_heating" => "look",
      "stages_setup" => "assumed"
    )
  end

  it "refuses as a target what it records as found" do
    rig = rig_with(outdoor_sensor: true)
    crossed = { "balance_points" => true, "compressor_balance_degrees_f" => 52, "auxiliary_balance_degrees_f" => 46 }
    expect { Gorvant::Target.refuse!(rig.set(crossed)) }.to raise_error(
      Gorvant::RefusedSetUp,
      /between 46 and 52 °F nothing may heat/
    )
    expect { Gorvant::Target.refuse!(rig_with.set("balance_points" => true)) }.to raise_error(
      Gorvant::RefusedSetUp,
      /outdoor sensor/
    )
    expect(Gorvant::Target.refuse!(rig.set("balance_points" => true))).to be_nil
  end

  it "lists what to do at the thermostat and what to expect, as the run has it" do
    lines =
      Gorvant::BenchList.new(
        rig_with(compressor_stages: 2, stage_2: "solenoid", changeover_school: "latched"),
        outdoor_degrees_f: 40.0
      ).lines
    expect(lines.to_h { |line| [line.id, [line.after_seconds, line.expect.join(" ")]] }).to eq(
      "fan" => [0, "G"],
      "heat-1" => [1, "B G Y1"],
      "heat-2" => [600, "B G Y1 Y2"],
      "heat-3" => [1200, "B E G W2 Y1 Y2"],
      "heat-off" => [0, "B"],
      "cool-1" => [1, "G O Y1"],
      "cool-2" => [600, "G O Y1 Y2"],
      "cool-off" => [0, "O"],
      "emergency" => [0, "E G W2"]
    )
    expect(lines.find { |line| line.id == "cool-1" }.cautions).to include("out_of_season")
    steps = Gorvant::BenchList.new(rig_with(staging_school: "per_stage", backup: "gas")).lines
    expect(
      steps
        .select { |line| line.id.start_with?("heat") }
        .map { |line| [line.does.delete(Gorvant::Measures::MARK), line.expect.join(" ")] }
        .first(3)
    ).to eq(
      [
        ["HEAT, set point 1 °F above the room", "B G Y"],
        ["Raise it to 3.5 °F above the room", "B E G W2 Y"],
        ["Wait, the error held", "B E W2"]
      ]
    )
  end
end
