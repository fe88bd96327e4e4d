# frozen_string_literal: true

require_relative "../../../support/forced_tests"

# What each observation of the forced test proves, and what it does not.
RSpec.describe Gorvant::ForcedTest do
  include ForcedTests

  it "finds the selector on 90 and not on 60, and the fan that still draws first of all" do
    found =
      test(
        rig_with,
        {
          jumper_on: 2,
          bridge_on: 10,
          valve_heard: 32,
          strips_on: 58,
          bridge_off: 33,
          jumper_off: 200,
          strips_off: 215
        },
        answers: {
          "fan" => false
        },
        readings: {
          "fan_amps" => 1.1
        },
        counted_minutes: 0,
        tally: {
          "coil_jumper" => "off",
          "bridge" => "off",
          "sensor_plug" => "on"
        }
      )
    expect(found.verdicts.map(&:code)).to eq(%w[fan_runs interval_other valve_shifted strips_on end_unclear])
    expect(found.verdicts.first).to have_attributes(
      look_first: true,
      title: "The fan still draws in defrost",
      says: include("1.1 A")
    )
    expect(found.verdicts[1]).to have_attributes(
      title: "The selector is on 90 min, not on 60",
      says: include("15 s at most")
    )
  end

  { # seconds seen => [counted before, fresh] => code
    [15.0, 0, false] => "interval_as_set",
    [22.0, 0, false] => "interval_other",
    [22.0, nil, true] => "interval_other",
    [22.0, nil, false] => "interval_not_set",
    [40.0, nil, false] => "interval_none",
    [9.0, nil, false] => "interval_counted",
    [8.75, 25, false] => "interval_counted",
    [7.5, nil, false] => "interval_several"
  }.each do |(seen, counted, fresh), code|
    it "says #{code} of #{seen} s, #{counted.inspect} min counted#{", just reset" if fresh}" do
      expect(codes(rig_with, { bridge_on: 0, fan_off: seen }, counted_minutes: counted, fresh: fresh).first).to eq(code)
    end
  end

  it "is as sure as the clocks of two devices that marked it are close, and says by how much" do
    judged = ->(apart) do
      given = { bridge_on: 0, fan_off: 22.0 }
      test(rig_with, given, counted_minutes: 0, clock_apart_seconds: apart).verdicts.first
    end
    expect([0.0, 1.0, 8.0].map { |apart| judged.call(apart).code }).to eq(
      %w[interval_other interval_other interval_several]
    )
    widths = [0.0, 8.0].map { |apart| judged.call(apart).assumed.last[/[\d.]+ s/].to_f }
    expect(widths.last - widths.first).to be_within(0.01).of(8.0)
    expect { described_class.parse("clock_apart_seconds" => 90) }.to raise_error(Gorvant::BadHistory, /from 0 to 60/)
  end

  it "expects the whole interval where unplugging the switch has reset the clock" do
    rig = rig_with(defrost_clock: "run_time_cold")
    one = test(rig, { bridge_on: 0, fan_off: 15 }, counted_minutes: 25)
    expect(one.expected_seconds).to eq(15.0)
    expect(one.verdicts.first.code).to eq("interval_as_set")
    expect(one.steps.map(&:id)).to include("resets", "jumper")
    expect(test(rig_with, { bridge_on: 0 }, counted_minutes: 25).expected_seconds).to eq(8.75)
  end

  it "calls entry by the pins on a warm coil as designed, and no bad board" do
    pins = rig_with(forced_entry: "held_pins", forced_entry_hold_seconds: 6)
    one = test(pins, { bridge_on: 0, fan_off: 6, fan_back: 7 }, coil_degrees_f: 82)
    expect(one.verdicts.first).to have_attributes(
      code: "entry_warm",
      verdict: "as_designed",
      says: start_with("Entry works; each output only as seen; the coil is warm")
    )
    expect(one.verdicts.map(&:says).join(" ")).not_to include("bad board")
    expect(codes(pins, { bridge_on: 0, fan_off: 6 }, coil_degrees_f: 20).first).to eq("entry_held")
  end

  it "reads valve, strips, end and return from what was seen" do
    at = { bridge_on: 0, fan_off: 15, bridge_off: 14.9 }
    gauges = ->(suction, port) { { "true_suction_psi" => suction, "vapour_port_psi" => port } }
    apart = { "true_suction_before_psi" => 60, "vapour_port_before_psi" => 300 }
    expect(codes(rig_with, at, readings: gauges.call(70, 75).merge(apart))).to include("valve_shifted")
    # Alike proves nothing where nobody looked before, or where they were alike before.
    expect(codes(rig_with, at, readings: gauges.call(70, 75))).to include("valve_gauges_alike")
    expect(codes(rig_with, at, readings: gauges.call(70, 75).merge(apart, "vapour_port_before_psi" => 62))).to include(
      "valve_gauges_alike"
    )
    expect(codes(rig_with, at, readings: gauges.call(70, 280))).to include("valve_not")
    expect(codes(rig_with, at, readings: gauges.call(70, 110))).to include("valve_unclear")
    expect(
      codes(rig_with, at, readings: { "vapour_before_degrees_f" => 120, "vapour_after_degrees_f" => 118 })
    ).to include("valve_not")
    expect(codes(rig_with(defrost_method: "hot_gas"), at).grep(/valve/)).to eq([])
    expect(codes(rig_with, at, answers: { "strips" => false })).to include("strips_missing")
    expect(codes(rig_with(backup: "none"), at).grep(/strips/)).to eq([])
    expect(codes(rig_with, at.merge(fan_back: 315))).to include("ended_by_temperature")
    expect(codes(rig_with, at.merge(fan_back: 616))).to include("ended_by_time")
    expect(codes(rig_with, at.merge(jumper_on: 0, fan_back: 616), tally: { "coil_jumper" => "on" })).to include(
      "ended_by_time_jumpered"
    )
    expect(codes(rig_with, at.merge(jumper_on: 0, fan_back: 315))).to include("ended_early")
    expect(codes(rig_with, at.merge(jumper_on: 0, jumper_off: 200, strips_off: 260))).to include("ended_by_hand")
    expect(codes(rig_with, at.merge(jumper_on: 0, jumper_off: 608, fan_back: 610))).to include("end_unclear")
    expect(codes(rig_with, at.merge(bridge_off: 40, fan_back: 17.6))).to include("ended_hurried")
    expect(
      codes(rig_with, at.merge(bridge_off: 40, fan_back: 17.6), readings: { "coil_at_end_degrees_f" => 20 })
    ).to include("ended_hurried")
    expect(codes(rig_with, at, answers: { "fan_back" => false, "strips_off" => false })).to include(
      "fan_not_back",
      "strips_stay"
    )
    expect(codes(rig_with, { bridge_on: 0 }, answers: { "went_in" => false })).to eq(["entry_none_unread"])
    denied = { "fan" => false, "valve" => false, "strips" => false }
    expect(codes(rig_with, { jumper_on: 0, bridge_on: 0, bridge_off: 40 }, answers: denied)).to eq(["entry_none"])
    nothing = test(rig_with, { jumper_on: 0, bridge_on: 0, bridge_off: 40 }, answers: denied).verdicts.first
    expect(nothing.evidence.join(" ")).to include("the fan stopped", "heat came on").and(
      satisfy { |words| !words.include?("it went into defrost") }
    )
    expect([codes(rig_with, { bridge_on: 0 }), codes(rig_with, { bridge_on: 0, bridge_off: 40 })]).to eq(
      [[], ["entry_unmarked"]]
    )
  end

  # A second of the bridge takes four minutes of the limit, and heat indoors goes up to two minutes late.
  it "does not say what ended it where the watch cannot know, unless the coil does" do
    at = { bridge_on: 0, fan_off: 15, bridge_off: 16, fan_back: 315 }
    ends = ->(marks, coil = nil) do
      codes(rig_with, marks, readings: { "coil_at_end_degrees_f" => coil }.compact).grep(/\Aend/)
    end
    expect([ends.call(at), ends.call(at, 78), ends.call(at, 60), ends.call(at, 50)]).to eq(
      [%w[end_unclear], %w[ended_by_temperature], %w[end_unclear], %w[ended_by_time]]
    )
    late = at.except(:fan_back).merge(bridge_off: 14.9)
    expect(
      [
        ends.call(late.merge(strips_off: 400)),
        ends.call(late.merge(strips_off: 660)),
        ends.call(late.merge(strips_off: 730))
      ]
    ).to eq([%w[ended_by_temperature], %w[end_unclear], %w[ended_by_time]])
    unhurried = { speed_up_hurries_limit: false }
    expect(codes(rig_with(**unhurried), at.transform_keys(&:to_sym))).to include("ended_by_temperature")
    told = test(rig_with, at).verdicts.find { |verdict| verdict.code == "end_unclear" }
    expect(told.evidence).to include("the bridge, on for part of it, leaves a limit of 4:01 to 8:00")
  end

  it "does not time the clock by what follows late" do
    expect(codes(rig_with, { bridge_on: 0, strips_on: 47 }).first).to eq("entry_untimed")
    # Heat comes up to a minute late and goes up to 1:50 late: it lasted at most a minute longer than was seen.
    by_heat = ->(seconds) { test(rig_with, { bridge_on: 0, strips_on: 60, strips_off: 60 + seconds }).verdicts.last }
    expect(by_heat.call(500).says).to include("at most 9:20")
    expect(by_heat.call(560).code).to eq("end_unclear")
    expect(by_heat.call(720).code).to eq("ended_by_time")
    heard = ->(seconds) { codes(rig_with, { bridge_on: 0, valve_heard: seconds }, counted_minutes: 0).first }
    expect([heard.call(15), heard.call(16.5), heard.call(22)]).to eq(%w[interval_as_set interval_as_set interval_other])
  end

  it "names of the board's profile what it leans on, until that is read" do
    assumed = ->(rig) { test(rig, { bridge_on: 0, fan_off: 15 }, counted_minutes: 0).verdicts.first.assumed.join(" ") }
    expect(assumed.call(Gorvant::Composer.compose(name: "Bench", facts: {}))).to include(
      "defrost interval",
      "speed-up factor"
    ).and(satisfy { |words| !words.include?("Y lost") })
    read =
      rig_with.set(
        { "speed_up_factor" => 240, "defrost_clock" => "run_time", "defrost_interval_minutes" => 60 },
        "measured"
      )
    expect(assumed.call(read)).not_to include("speed-up factor")
  end

  it "ends a thermistor board by its sensor's own point, or by the one that an older rig has under the switch" do
    sensed = ->(**facts) do
      Gorvant::Composer.compose(
        name: "Bench",
        facts: { sensing: "thermistors", forced_entry: "held_pins", **facts }.transform_keys(&:to_s)
      )
    end
    ends =
      [{}, { coil_sensor_ends_degrees_f: 55 }, { coil_switch_opens_degrees_f: 70 }].map do |facts|
        Gorvant::ClockProfile.of(sensed.call(**facts)).ends_degrees_f
      end
    expect(ends).to eq([40, 55, 70])
    expect(codes(sensed.call, { bridge_on: 0, fan_off: 6, fan_back: 8 }, coil_degrees_f: 45).first).to eq("entry_warm")
    expect(
      codes(rig_with(forced_entry: "held_pins"), { bridge_on: 0, fan_off: 6, fan_back: 8 }, coil_degrees_f: 45).first
    ).to eq("entry_held")
  end

  # What was answered, marked and measured => what follows of "it did not go in".
  [
    [
      { forced_entry: "held_pins", forced_entry_hold_seconds: 9 },
      { bridge_on: 0, bridge_off: 6 },
      { coil_degrees_f: 20 },
      "entry_let_go"
    ],
    [
      { forced_entry: "held_pins", forced_entry_hold_seconds: 9 },
      { bridge_on: 0, bridge_off: 12 },
      { coil_degrees_f: 20 },
      "entry_none"
    ],
    [
      { forced_entry: "held_pins", forced_entry_hold_seconds: 9 },
      { bridge_on: 0, bridge_off: 12 },
      { coil_degrees_f: 75 },
      "entry_none_warm"
    ],
    [{}, { bridge_on: 0, bridge_off: 9 }, { coil_degrees_f: 20 }, "entry_bridged_short"],
    [{}, { bridge_on: 0, bridge_off: 9 }, { coil_degrees_f: 20, counted_minutes: 40 }, "entry_none"],
    [{}, { bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 20 }, "entry_none"],
    [{}, { bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 70 }, "entry_none_warm"],
    [{}, { bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 50 }, "entry_none_between"],
    [{}, { bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 28 }, "entry_none"],
    [{}, { jumper_on: 0, bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 70 }, "entry_none"],
    [{}, { bridge_on: 0, bridge_off: 40 }, {}, "entry_none_unread"],
    [{ sensing: "thermistors" }, { bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 36 }, "entry_none_warm"],
    [{ sensing: "thermistors" }, { bridge_on: 0, bridge_off: 40 }, { coil_degrees_f: 25 }, "entry_none"]
  ].each do |facts, marks, more, code|
    it "says #{code} of no entry with #{facts}, #{marks}, #{more}" do
      expect(codes(rig_with(**facts), marks, answers: { "went_in" => false }, **more)).to eq([code])
    end
  end

  it "reads the switch's history where the coil lies between its points: closed and no entry is a finding" do
    at = [rig_with, { bridge_on: 0, bridge_off: 40 }]
    found =
      { true => "entry_none", false => "entry_none_warm" }.to_h do |closed, code|
        [codes(*at, answers: { "went_in" => false, "switch_closed" => closed }, coil_degrees_f: 50), [code]]
      end
    expect(found.keys).to eq(found.values)
  end

  # 60 set, ×256: 14.1 s from zero.
  {
    14.1 => "interval_several",
    15.0 => "interval_several",
    15.3 => "interval_longer",
    17.0 => "interval_longer",
    24.0 => "interval_longer",
    31.0 => "interval_none"
  }.each do |seen, code|
    it "says #{code} of #{seen} s at ×256 with 60 min set, and never that a longer one is over sooner than it is" do
      one = test(rig_with(speed_up_factor: 256), { bridge_on: 0, fan_off: seen }).verdicts.first
      expect(one.code).to eq(code)
      expect(one.says).not_to match(/over in (14|21)/)
      expect(one.says).to include("14.1 s from zero", "bridge", "factor", "did not count").or(
        satisfy { code != "interval_longer" }
      )
    end
  end

  it "excludes nothing by a fan seen standing that its coasting explains, and says how the mark was taken" do
    late = ->(how) do
      test(
        rig_with(speed_up_factor: 256),
        { bridge_on: 0, fan_off: 24 },
        marked_by: { "fan_off" => how }.compact
      ).verdicts.first
    end
    expect([late.call("click").code, late.call("clamp").code, late.call(nil).code]).to all(eq("interval_longer"))
    expect(late.call("standing").code).not_to eq("interval_longer")
    expect(
      [late.call(nil).assumed.join, late.call("click").assumed.join].map { |words| words.include?("5 to 15 s late") }
    ).to eq([true, false])
  end

  it "knows the interval that is set, whatever selectors usually offer, and holds nothing against “auto”" do
    expect(
      codes(rig_with(defrost_interval_minutes: 45), { bridge_on: 0, fan_off: 11.25 }, counted_minutes: 0).first
    ).to eq("interval_as_set")
    expect(codes(rig_with(interval_auto: true), { bridge_on: 0, fan_off: 22 }, counted_minutes: 0).first).to eq(
      "interval_auto"
    )
    expect(codes(rig_with, { bridge_on: 0, fan_off: 10 }, fresh: true).first).to eq("interval_short")
  end

  {
    2 => "entry_held_early",
    6.4 => "entry_held_early",
    7 => "entry_held",
    9 => "entry_held",
    12 => "entry_held",
    13.5 => "entry_held_late"
  }.each do |seen, code|
    it "says #{code} of #{seen} s at pins that are held for 9" do
      expect(
        codes(
          rig_with(forced_entry: "held_pins", forced_entry_hold_seconds: 9),
          { bridge_on: 0, fan_off: seen },
          coil_degrees_f: 20
        ).first
      ).to eq(code)
    end
  end

  it "asks no heat of a defrost that was out again before a sequencer could bring it" do
    short =
      lambda do |**facts|
        codes(
          rig_with(forced_entry: "held_pins", **facts),
          { bridge_on: 0, fan_off: 6, fan_back: 9 },
          answers: {
            "strips" => false
          },
          coil_degrees_f: 82
        ).grep(/strips/)
      end
    expect(short.call).to eq(%w[strips_no_time])
    expect(
      codes(rig_with, { bridge_on: 0, fan_off: 15, fan_back: 300 }, answers: { "strips" => false }).grep(/strips/)
    ).to eq(%w[strips_missing])
  end

  it "judges each end by what the board knows: time alone, temperature alone, either" do
    at = { bridge_on: 0, fan_off: 15, bridge_off: 14.9 }
    ends = ->(by, back, **marks) do
      codes(rig_with(defrost_ends_by: by), at.merge(fan_back: back, **marks)).grep(/\Aend/)
    end
    expect([ends.call("time", 616), ends.call("time", 315)]).to eq([%w[ended_by_its_time], %w[ended_before_its_time]])
    expect([ends.call("temperature", 315), ends.call("temperature", 2000)]).to all(eq(%w[ended_only_temperature]))
    expect(ends.call("temperature", 315, jumper_on: 0)).to eq(%w[ended_early_no_limit])
    told = test(rig_with(defrost_ends_by: "temperature"), at.merge(fan_back: 2000))
    expect(told.warnings.join).to include("no time limit")
    expect(
      (
        told.warnings + told.verdicts.flat_map { |one| [one.says, *one.evidence] } +
          told.steps.map { |step| "#{step.does} #{step.note}" }
      ).grep(/10:00|the limit of|only the time limit/)
    ).to eq([])
  end

  it "says what nobody looked at, and ends what nobody saw end, as undetermined" do
    entered = test(rig_with, { bridge_on: 0, fan_off: 15, bridge_off: 15.5 }, counted_minutes: 0).verdicts
    by_code = entered.to_h { |one| [one.code, one.verdict] }
    expect(by_code).to include(
      "strips_unclear" => "undetermined",
      "end_not_seen" => "undetermined",
      "valve_unclear" => "undetermined"
    )
    expect(codes(rig_with(backup: "none"), { bridge_on: 0, fan_off: 15, bridge_off: 15.5 }).grep(/strips/)).to eq([])
  end

  it "tells a jumper's coming off from a switch that was plugged in all along" do
    at = { jumper_on: 0, bridge_on: 0, fan_off: 15, bridge_off: 14.9, jumper_off: 200, fan_back: 201 }
    ends =
      [true, nil, false].map do |unplugged|
        codes(rig_with, at, answers: { "unplugged" => unplugged }.compact).grep(/\Aend/)
      end
    expect(ends).to eq([%w[ended_by_hand], %w[ended_by_hand], %w[ended_by_hand_plugged]])
  end

  it "holds nothing against a selector on “auto” that fits no usual interval either" do
    auto = test(rig_with(interval_auto: true), { bridge_on: 0, fan_off: 44 }, fresh: true).verdicts.first
    expect([auto.code, auto.verdict]).to eq(%w[interval_none_auto undetermined])
  end

  it "takes the tally from the marks and asks what they leave open" do
    at = { jumper_on: 1, bridge_on: 4, fan_off: 19 }
    one = test(rig_with, at, closed: true)
    expect([one.tally, one.questions.keys]).to eq(
      [{ "coil_jumper" => "on", "bridge" => "on", "sensor_plug" => nil }, %w[sensor_plug]]
    )
    expect { one.refuse_close! }.to raise_error(
      Gorvant::BadHistory,
      /jumper .* still on; the bridge is still on; nobody said whether the coil switch was unplugged/
    )
    off = at.merge(bridge_off: 20, jumper_off: 200)
    expect { test(rig_with, off, closed: true).refuse_close! }.to raise_error(Gorvant::BadHistory, /unplugged/)
    expect { test(rig_with, off, closed: true, tally: { "sensor_plug" => "on" }).refuse_close! }.not_to raise_error
    expect(test(rig_with, { bridge_on: 0, bridge_off: 9 }).questions.keys).to eq(%w[coil_jumper sensor_plug])
    expect(
      test(rig_with(sensing: "thermistors", forced_entry: "held_pins"), { bridge_on: 0, bridge_off: 9 }).questions
    ).to eq({})
  end

  it "closes only with nothing left behind" do
    left = test(rig_with, {}, tally: { "coil_jumper" => "on", "sensor_plug" => "off" }, closed: true)
    expect { left.refuse_close! }.to raise_error(
      Gorvant::BadHistory,
      /jumper on the coil switch pins is still on; the coil switch plug is still off/
    )
    expect { test(rig_with, {}, tally: { "coil_jumper" => "off" }, closed: true).refuse_close! }.not_to raise_error
    expect {
      described_class.parse({ "marks" => { "fan_of" => 2, "fan_off" => "soon" }, "tally" => { "bridge" => 1 } })
    }.to raise_error(Gorvant::BadHistory) { |error| expect(error.problems.size).to eq(3) }
  end
end
