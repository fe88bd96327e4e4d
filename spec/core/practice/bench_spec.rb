# frozen_string_literal: true

require_relative "../../support/practice_trial"

RSpec.describe Gorvant::Practice::Bench do
  let(:library) { PracticeTrial.library(rig, 34.0) }
  let(:delayed) do
    Gorvant::Composer.compose(name: "Delay board", facts: { "y_path" => "delay", "board_hold_seconds" => 300 })
  end

  def trial(*ids, on: library, **more) = PracticeTrial.new(PracticeTrial.hidden(on, ids, **more), on)

  describe "what a meter shows" do
    it "is what the hidden circuit gives, within the meter's own noise" do
      bench = trial("stuck_open:HPS")
      bench.act("call", value: "heat")
      expect(bench.volts("outdoor.DTS.1", "outdoor.C")).to be_within(0.8).of(25)
      expect(bench.volts("outdoor.HPS.1", "outdoor.HPS.2")).to be_within(0.8).of(25)
      expect(bench.volts("outdoor.LPS.1", "outdoor.LPS.2")).to be_within(0.1).of(0)
      expect(bench.act("look", place: "contactor").data[:choice]).to eq("out")
    end

    it "is the sound circuit's where the fault is elsewhere" do
      bench = trial("open:SEQ", symptoms: %w[no_auxiliary_heat])
      bench.act("call", value: "heat")
      expect(bench.act("look", place: "contactor").data[:choice]).to eq("in")
      bench.act("call", value: "heat_aux")
      expect(bench.volts("air_handler.C", "air_handler.W")).to be > 20
      bench.act("wait", minutes: 3)
      expect(bench.act("look", place: "strips").data[:choice]).to eq("off")
    end

    it "is alike for whoever reads twice the same drill" do
      readings = Array.new(2) { trial("stuck_open:HPS").volts("outdoor.C", "outdoor.Y") }
      expect(readings.uniq.size).to eq(1)
    end

    it "tells a wire that is off by the wires of its place, and by nothing else's" do
      bench = trial("lifted:cable_a.yellow@air_handler")
      here = bench.act("landings", place: "air_handler")
      expect(here.data[:rows]).to include({ "joint" => "cable_a.yellow@air_handler", "on" => nil })
      expect(here.data[:rows].size).to eq(11) # seven of the wall's cable, and five less one of the outdoor unit's
      expect(bench.act("landings", place: "outdoor").data[:rows].map { |row| row["on"] }).to all(be_a(String))
      expect([here.observation.choice, bench.outcomes.last[1].observation.choice]).to eq(%w[otherwise as_drawn])
    end

    it "tells two screws that something joins" do
      landings = trial("short:air_handler.Y~air_handler.O").act("landings", place: "air_handler")
      expect(landings.data[:touching]).to eq([["air handler Y", "air handler O"]])
      expect(landings.observation.choice).to eq("otherwise")
    end

    it "measures a part by itself once both supplies are off and proved" do
      bench = trial("open:CC")
      coil = library.situation.netlist["CC"]
      refused = bench.act("ohms", from: coil.from, to: coil.to, isolated: true)
      expect(refused.stopped.code).to eq("ohms_live")
      %w[outdoor air_handler].each { |supply| bench.act("supply", of: supply, value: "off") }
      expect(bench.act("ohms", from: coil.from, to: coil.to, isolated: true).stopped.code).to eq("not_proved")
      expect(bench.act("prove_dead").data[:dead]).to be(true)
      expect(bench.act("ohms", from: coil.from, to: coil.to, isolated: true).says).to match(/OL|\d+ Ω/)
    end

    it "does not prove dead with one of two supplies off" do
      bench = trial("open:CC")
      bench.act("supply", of: "outdoor", value: "off")
      expect(bench.act("prove_dead").data[:dead]).to be(false)
    end
  end

  describe "its clock" do
    let(:held) { PracticeTrial.library(delayed, 34.0) }

    it "waits out a hold in bench minutes, as the tape has it" do
      bench = trial("hold", on: held, symptoms: %w[contactor_silent])
      expect(bench.volts("outdoor.C", "outdoor.Y")).to be > 20
      expect(bench.act("look", place: "contactor").data[:choice]).to eq("out")
      expect(bench.act("since_stop").data[:value]).to be_between(0.75, 5)
      bench.act("wait", minutes: 5)
      expect(bench.act("look", place: "contactor").data[:choice]).to eq("in")
      # What is seen once the hold is over speaks for the wait as well; before, it does not.
      told = bench.outcomes.select { |act, _outcome| act["place"] == "contactor" }.map { |_act, outcome| outcome.also }
      expect(told).to eq([nil, %w[after_the_wait in]])
      tape = bench.unit.timeline
      pulled = tape.next_event("CC", Gorvant::Practice.numbers["lead_seconds"], true).seconds
      stopped =
        tape.events.reverse.find { |event| event.signal == "CC" && event.value == false && event.seconds < pulled }
      expect(pulled - stopped.seconds).to be_within(0.5).of(delayed[:board_hold_seconds])
    end

    it "runs through a defrost that is forced, and ends it" do
      bench = trial("nothing", symptoms: %w[cold_air_in_heating])
      expect(bench.act("force").data[:choice]).to eq("goes_in_right")
      expect(bench.act("look", place: "outdoor_fan").data[:choice]).to eq("stands")
      bench.act("unforce")
      bench.act("wait", minutes: 15)
      expect(bench.act("look", place: "outdoor_fan").data[:choice]).to eq("turns")
    end

    it "shows what fan and valve do in a forced defrost, and a switch that flickers only to who watches it" do
      wrong = { "stuck_closed:DFR.fan" => "goes_in_fan", "valve_stuck:RVS_heating" => "goes_in_hot" }
      wrong.each do |truth, choice|
        bench = trial(truth, symptoms: %w[iced_outdoor_unit])
        bench.act("call", value: "heat")
        expect(bench.act("force").data[:choice]).to eq(choice)
      end
      counting = Gorvant::Composer.compose(name: "Counting", facts: { "defrost_clock" => "run_time_cold" })
      bench = trial("flickers", on: PracticeTrial.library(counting, 34.0), symptoms: %w[iced_outdoor_unit])
      bench.act("call", value: "heat")
      expect(bench.act("look", place: "coil_switch_watched").data[:choice]).to eq("flickers")
      expect { trial("open:CC").act("look", place: "coil_switch_watched") }.to raise_error(Gorvant::Practice::BadAct)
    end

    it "lets strips speak only when W has been live for as long as a sequencer may take" do
      bench = trial("open:HTR", symptoms: %w[emergency_heat_dead])
      bench.act("call", value: "heat")
      bench.act("call", value: "heat_aux")
      bench.act("wait", minutes: 0.1)
      early = bench.act("look", place: "strips") # with the walk it is late enough
      expect(early.also).to eq(%w[after_a_minute off])
      bench.act("call", value: "heat")
      bench.act("wait", minutes: 3)
      expect(bench.act("look", place: "strips").also).to be_nil
    end

    it "hides what comes and goes, and shows it in its time" do
      bench = trial("stuck_open:HPS", spells: [[0, 600], [1200, 9000]])
      bench.act("call", value: "heat")
      seen =
        Array.new(8) do
          bench.act("wait", minutes: 3)
          bench.act("look", place: "contactor").data[:choice]
        end
      expect(seen.uniq.sort).to eq(%w[in out])
      expect(seen.last).to eq("out")
    end

    it "shows to eye and gauge what comes and goes, only while it is so" do
      spells = [[0, 900], [1800, 9000]]
      looked = ->(id, place, waits) do
        bench = trial(id, spells: spells)
        waits.map do |minutes|
          bench.act("wait", minutes: minutes)
          bench.act("look", place: place).data[:choice]
        end
      end
      expect(looked.call("motor_dead:OFM", "outdoor_fan", [1, 16, 16])).to eq(%w[stands turns stands])
      # A gauge takes twelve minutes.
      expect(looked.call("opened_HPS", "liquid_side", [1, 4, 5])).to eq(%w[past inside past])
    end

    it "keeps a blown fuse blown, whatever is called afterwards" do
      bench = trial("short:air_handler.cable_a.yellow~air_handler.C")
      expect(bench.volts("outdoor.C", "outdoor.R")).to be < 2
      bench.act("call", value: "off")
      expect(bench.volts("outdoor.C", "outdoor.R")).to be < 2
    end

    it "charges what an act takes, and the walk" do
      bench = trial("open:CC")
      bench.act("look", place: "display")
      standing = bench.act("look", place: "outdoor_fan").standing
      costs = Gorvant::Diagnosis.numbers["minutes"]
      expect(standing.seconds / 60).to be_within(0.001).of((2 * costs["seen"]) + costs["walk"])
      expect(standing.walks).to eq(1)
    end
  end

  describe "what is stopped" do
    let(:bench) { trial("open:CC") }

    before do
      bench.act("call", value: "off")
      bench.act("wait", minutes: 3)
    end

    {
      "safety_bridged" => %w[outdoor.HPS.1 outdoor.HPS.2],
      "r_to_c" => %w[outdoor.R outdoor.C],
      "strips_without_air" => %w[air_handler.R air_handler.W],
      "line_jumper" => %w[outdoor.L1 outdoor.L2]
    }.each do |code, (from, to)|
      it "#{code}: nothing happens but that it is said, and counted" do
        outcome = bench.act("jumper", from: from, to: to)
        expect(outcome.stopped.code).to eq(code)
        expect(outcome.standing.jumpers).to eq([])
        expect(Gorvant::Catalogue.cautions).to include(outcome.stopped.caution)
        expect(bench.score([]).unsafe).to eq(1)
      end
    end

    it "is not R to Y, nor R to G at the strip: ordinary tests" do
      expect(bench.act("jumper", from: "air_handler.R", to: "air_handler.Y").stopped).to be_nil
      bench.act("unjumper", from: "air_handler.R", to: "air_handler.Y")
      expect(bench.act("jumper", from: "air_handler.R", to: "air_handler.G").stopped).to be_nil
      expect(bench.act("jumper", from: "air_handler.R", to: "air_handler.W").stopped).to be_nil # air moves now
    end

    it "is cooling in frost, but not with the outdoor disconnect off" do
      expect(bench.act("call", value: "cool").stopped.code).to eq("cooling_in_frost")
      bench.act("supply", of: "outdoor", value: "off")
      expect(bench.act("call", value: "cool").stopped).to be_nil
    end

    it "is heating in summer" do
      warm = PracticeTrial.hidden(library, %w[open:CC]).with(outdoor_degrees_f: 90.0)
      expect(PracticeTrial.new(warm, library).act("call", value: "heat").stopped.code).to eq("heating_in_summer")
    end

    it "is R to Y within the hold" do
      bench = trial("hold", on: PracticeTrial.library(delayed, 34.0))
      expect(bench.act("jumper", from: "air_handler.R", to: "air_handler.Y").stopped.code).to eq("held_off")
    end
  end

  it "changes a bad part, and a sound one for nothing" do
    bench = trial("open:RVS")
    %w[air_handler outdoor].each { |supply| bench.act("supply", of: supply, value: "off") }
    bench.act("prove_dead")
    bench.act("swap", part: "CC")
    expect(bench.score([]).swapped).to eq(1)
    expect(bench.unit.condition.faults).to eq([{ "kind" => "open", "at" => "RVS" }])
    bench.act("swap", part: "RVS")
    expect(bench.score([]).swapped).to eq(1)
    expect(bench.unit.condition.faults).to eq([])
  end

  it "says what is wrong with an act, by its field" do
    bench = trial("open:CC")
    {
      { "act" => "fly" } => %r{/act: has to be one of call},
      { "act" => "call", "value" => "dance" } => %r{/act/value: has to be one of off},
      { "act" => "wait", "minutes" => 10_000 } => %r{/act/minutes: has to be from 0.1 to 180},
      { "act" => "volts", "from" => "outdoor.C", "to" => "outdoor.C" } => %r{/act/to: is the same point},
      { "act" => "volts", "from" => "outdoor.C", "to" => "moon" } => %r{/act/to: is no point},
      { "act" => "look", "place" => "ice", "minutes" => 3 } => %r{/act/minutes: is not for look},
      { "act" => "sensor", "of" => "COIL_T" } => %r{/act/of: is not on this unit},
      { "act" => "unjumper", "from" => "outdoor.R", "to" => "outdoor.Y" } => %r{/act/from: has no jumper}
    }.each { |given, says| expect { bench.take(given) }.to raise_error(Gorvant::Practice::BadAct, says) }
    expect { Gorvant::Practice::Act.parse("heat", bench.drill) }.to raise_error(Gorvant::Practice::BadAct, /object/)
  end

  it "closes after a day, and says so" do
    bench = trial("open:CC")
    8.times { bench.act("wait", minutes: 180) }
    expect { bench.act("wait", minutes: 1) }.to raise_error(Gorvant::Practice::BadAct, /the bench closes/)
  end
end
