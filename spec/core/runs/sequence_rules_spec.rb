# frozen_string_literal: true

require_relative "../../support/core"

# Every rule of sequence.yml, met on the tape as a technician would meet it: what happened, on which signal, when.
RSpec.describe "The rules of the sequence" do
  usual = {
    **Bench::APART,
    thermostat_minimum_off_seconds: 0,
    defrost_interval_minutes: 30,
    coil_switch_closes_degrees_f: 30,
    coil_switch_opens_degrees_f: 60
  }
  heat = [[0, "call", "heat"]]
  cold = { outdoor_degrees_f: 20, coil_degrees_f: 20 }
  by_room = { mode: "heat", set_point_degrees_f: 70, room_degrees_f: 70, outdoor_degrees_f: 40 }
  delay = { board_family: "osier", board_hold_seconds: 180 }
  due = cold.merge(defrost_counted_minutes: 29)
  pins = { forced_entry: "held_pins", forced_entry_hold_seconds: 6 }
  demand = {
    board_family: "larch",
    defrost_clock: "demand",
    **pins,
    demand_minimum_minutes: 30,
    demand_maximum_minutes: 60
  }
  trip = ->(at) { [[at, "switch", "open", { of: "HPS" }], [at + 10, "switch", "closed", { of: "HPS" }]] }

  # rule => [facts, start, moves, signal, seconds at which the rule first holds for it, value then]
  table = {
    "script" => [{}, cold, [[7, "call", "heat"]], "call", 7, "heat"],
    "call" => [{}, cold, [[7, "call", "fan"]], "THERMOSTAT.G", 7, true],
    "call_over" => [{}, cold, [*heat, [60, "call", "off"]], "THERMOSTAT.Y", 60, false],
    "room" => [{}, by_room, [[60, "room", 68]], "call", 60, "heat"],
    "minimum_off" => [
      { thermostat_minimum_off_seconds: 240 },
      cold,
      [*heat, [60, "call", "off"], [90, "call", "heat"]],
      "THERMOSTAT.Y",
      200,
      false
    ],
    "changeover_first" => [{}, cold, [[60, "call", "cool"]], "THERMOSTAT.Y", 59.5, nil],
    "mode" => [{ changeover_school: "by_mode" }, cold, [[9, "mode", "cool"]], "THERMOSTAT.O", 9, true],
    "latched" => [
      { changeover_school: "latched" },
      cold,
      [[9, "mode", "cool"], [30, "mode", "off"]],
      "THERMOSTAT.O",
      9,
      true
    ],
    "gas_cut" => [
      { backup: "gas", gas_cut_seconds: 90 },
      cold,
      [*heat, [100, "call", "heat_aux"]],
      "THERMOSTAT.Y",
      190,
      false
    ],
    "blower_on_delay" => [{ blower_on_delay_seconds: 20 }, cold, [[10, "call", "fan"]], "IFR.line", 30, true],
    "blower_off_delay" => [
      { blower_off_delay_seconds: 60 },
      cold,
      [[10, "call", "fan"], [100, "call", "off"]],
      "IFR.line",
      160,
      false
    ],
    "sequencer_on_delay" => [{ sequencer_on_seconds: 25 }, cold, [[10, "call", "emergency"]], "SEQ.line", 35, true],
    "sequencer_off_delay" => [
      { sequencer_off_seconds: 50 },
      cold,
      [[10, "call", "emergency"], [100, "call", "off"]],
      "SEQ.line",
      150,
      false
    ],
    "short_cycle_hold" => [
      { **delay, hold_on_power: false },
      cold,
      [*heat, [60, "call", "off"], [100, "call", "heat"]],
      "hold",
      60,
      true
    ],
    "hold_on_make" => [
      { **delay, hold_on_power: false, board_hold_kind: "on_make" },
      cold,
      [[10, "call", "heat"]],
      "hold",
      10,
      true
    ],
    "hold_after_power" => [
      delay,
      cold,
      [*heat, [20, "supply", "off", { of: "air_handler" }], [30, "supply", "on", { of: "air_handler" }]],
      "hold",
      30,
      true
    ],
    "hold_over" => [{ **delay, hold_on_power: false }, cold, [*heat, [60, "call", "off"]], "hold", 240, false],
    "trip" => [{ **delay, hold_on_power: false }, cold, [*heat, *trip.call(400)], "trips", 400, nil],
    "lockout" => [
      { **delay, hold_on_power: false, lockout_trips: 1 },
      cold,
      [*heat, *trip.call(400)],
      "lockout",
      400,
      true
    ],
    "lockout_cleared" => [
      { **delay, hold_on_power: false, lockout_trips: 1 },
      cold,
      [*heat, *trip.call(400), [500, "call", "off"]],
      "lockout",
      500,
      false
    ],
    "cold_outside" => [{ outdoor_thermostat: true }, { outdoor_degrees_f: 60 }, [[10, "outdoor", 30]], "ODT", 10, true],
    "warm_outside" => [
      { outdoor_thermostat: true },
      { outdoor_degrees_f: 30 },
      [[10, "outdoor", 60]],
      "ODT",
      10,
      false
    ],
    "coil_cold" => [{}, { outdoor_degrees_f: 40, coil_degrees_f: 65 }, [[10, "coil", 20]], "DFT", 10, true],
    "coil_warm" => [{}, cold, [[0, "coil", 20], [10, "coil", 65]], "DFT", 10, false],
    "air_blocked" => [{ air_pressure_switch: true }, cold.merge(frost_kg: 4), heat, "APS", 0, true],
    "air_free" => [{ air_pressure_switch: true }, cold.merge(frost_kg: 1), heat, "APS", 30, false],
    "air_stands" => [
      { air_pressure_switch: true },
      cold.merge(frost_kg: 4),
      [*heat, [60, "call", "off"]],
      "APS",
      60,
      false
    ],
    "defrost_due_air" => [
      { air_pressure_switch: true },
      due.merge(frost_kg: 4),
      [*heat, [0, "coil", 20]],
      "defrost",
      60,
      true
    ],
    "defrost_due" => [{}, due, [*heat, [0, "coil", 20]], "defrost", 60, true],
    "defrost_waits" => [{}, due.merge(coil_degrees_f: 65), [*heat, [0, "coil", 65]], "defrost", 60, nil],
    "defrost_missed" => [
      { defrost_clock: "free" },
      due.merge(coil_degrees_f: 65),
      [*heat, [0, "coil", 65]],
      "defrost",
      60,
      nil
    ],
    "defrost_by_temperature" => [{}, due, [*heat, [0, "coil", 20], [120, "coil", 65]], "defrost", 120, false],
    "defrost_by_time" => [{ defrost_limit_minutes: 10 }, due, [*heat, [0, "coil", 20]], "defrost", 660, false],
    "defrost_paused" => [{}, due, [*heat, [0, "coil", 20], [120, "call", "off"]], "defrost", 120, false],
    "defrost_paused_in_call" => [
      { backup: "gas", gas_cut_seconds: 60 },
      due,
      [*heat, [0, "coil", 20], [90, "call", "heat_aux"]],
      "defrost",
      150,
      false
    ],
    "defrost_backstop" => [
      demand,
      { outdoor_degrees_f: 35, coil_degrees_f: 31, defrost_counted_minutes: 59 },
      [*heat, [0, "coil", 31]],
      "defrost",
      60,
      true
    ],
    "defrost_came_round" => [{ defrost_clock: "clock_motor" }, due, [*heat, [0, "coil", 20]], "defrost", 60, true],
    "defrost_counts" => [{}, due.merge(defrost_counted_minutes: 5), [*heat, [0, "coil", 20]], "defrost", 10, nil],
    "defrost_turn" => [
      { **delay, board_hold_seconds: 0, defrost_turn: "drops", defrost_turn_seconds: 30 },
      due,
      [*heat, [0, "coil", 20]],
      "hold",
      60,
      true
    ],
    "turn_over" => [
      { **delay, board_hold_seconds: 0, defrost_turn: "drops", defrost_turn_seconds: 30 },
      due,
      [*heat, [0, "coil", 20]],
      "turn",
      90,
      false
    ],
    "board_unfed" => [
      {},
      due,
      [*heat, [0, "coil", 20], [120, "fault", "begins", { of: { "kind" => "lifted", "at" => "cable_b.red@outdoor" } }]],
      "defrost",
      120,
      false
    ],
    "pressure_shifts" => [
      {},
      { outdoor_degrees_f: 80, room_degrees_f: 80 },
      [[10, "call", "cool"]],
      "valve",
      nil,
      "cooling"
    ],
    "no_pressure" => [
      {},
      { outdoor_degrees_f: 80, room_degrees_f: 80 },
      [[0, "fault", "begins", { of: { "kind" => "not_pumping", "at" => "COMP" } }], [10, "call", "cool"]],
      "valve",
      100,
      nil
    ],
    "valve_stuck" => [
      {},
      { outdoor_degrees_f: 80 },
      [[0, "fault", "begins", { of: { "kind" => "valve_stuck", "at" => "RVS" } }], [10, "call", "cool"]],
      "valve",
      300,
      nil
    ],
    "stage_delay" => [
      { compressor_stages: 2, stage_2: "solenoid", stage_delay_minutes: 10 },
      by_room,
      [[60, "room", 67]],
      "THERMOSTAT.Y2",
      400,
      nil
    ],
    "stage_error_small" => [
      { compressor_stages: 2, stage_2: "solenoid", stage_error_degrees_f: 3, stage_delay_minutes: 1 },
      by_room,
      [[60, "room", 68]],
      "THERMOSTAT.Y2",
      600,
      nil
    ],
    "above_auxiliary_balance" => [
      {
        outdoor_sensor: true,
        balance_points: true,
        auxiliary_balance_degrees_f: 36,
        compressor_balance_degrees_f: 10,
        stage_delay_minutes: 1
      },
      by_room,
      [[60, "room", 60]],
      "THERMOSTAT.W2",
      600,
      nil
    ],
    "below_compressor_balance" => [
      { outdoor_sensor: true, balance_points: true, compressor_balance_degrees_f: 45, auxiliary_balance_degrees_f: 60 },
      by_room,
      [[60, "room", 67]],
      "THERMOSTAT.Y",
      600,
      nil
    ],
    "balance_points_crossed" => [
      { outdoor_sensor: true, balance_points: true, compressor_balance_degrees_f: 52, auxiliary_balance_degrees_f: 36 },
      by_room,
      [[60, "room", 60]],
      "THERMOSTAT.Y",
      600,
      nil
    ],
    "gas_stays_out" => [
      { backup: "gas", gas_cut_seconds: 60 },
      cold,
      [*heat, [60, "call", "heat_aux"], [300, "call", "heat"]],
      "THERMOSTAT.Y",
      400,
      nil
    ],
    "defrost_forced" => [pins, cold, [*heat, [0, "coil", 20], [60, "bridge", "on"]], "defrost", 66, true],
    "defrost_demanded" => [
      demand,
      { outdoor_degrees_f: 35, coil_degrees_f: 5, defrost_counted_minutes: 29 },
      [*heat, [0, "coil", 5]],
      "defrost",
      60,
      true
    ],
    "defrost_by_time_alone" => [
      { defrost_clock: "time_only" },
      due.merge(coil_degrees_f: 65),
      [*heat, [0, "coil", 65]],
      "defrost",
      60,
      nil
    ],
    "defrost_given_up" => [
      { y_lost_in_defrost: "abort" },
      due,
      [*heat, [0, "coil", 20], [120, "call", "off"]],
      "defrost",
      120,
      false
    ],
    "delay_called_off" => [
      { sequencer_on_seconds: 25 },
      cold,
      [[10, "call", "emergency"], [20, "call", "off"]],
      "SEQ.line",
      20,
      nil
    ]
  }

  def run(facts, start, moves)
    rig = Gorvant::Composer.compose(name: "Rules", facts: facts.transform_keys(&:to_s))
    list =
      moves.map do |at, what, value, more|
        { "at_seconds" => at, "what" => what, "value" => value }.merge((more || {}).transform_keys(&:to_s))
      end
    Gorvant::Run.of(rig, Gorvant::Script.parse({ "start" => start.transform_keys(&:to_s), "moves" => list }, 1500.0))
  end

  table.each do |rule, (facts, start, moves, signal, seconds, value)|
    it "meets #{rule}" do
      timeline = run(usual.merge(facts), start, moves)
      begun =
        timeline.events.find do |event|
          event.rule == rule && event.signal == signal && (seconds.nil? || (event.seconds - seconds).abs < 1.5)
        end
      standing = seconds && timeline.standing_reason(signal, seconds + 1)&.rule
      told =
        timeline
          .events
          .map { |event| [event.seconds, event.signal, event.value, event.rule] if event.signal == signal }
          .compact
      expect(begun ? rule : standing).to eq(rule), "#{signal}: #{told.inspect}; standing #{standing.inspect}"
      expect(timeline.value_at(signal, seconds + 1.5)).to eq(value) if seconds && !value.nil?
    end
  end

  it "are all met above" do
    expect(table.keys.sort).to eq(Gorvant::Catalogue.sequence.keys.sort)
  end
end
