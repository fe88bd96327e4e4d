# frozen_string_literal: true

require_relative "../../support/practice_trial"

RSpec.describe "Acts of a bench" do
  practice = Gorvant::Practice
  let(:library) { PracticeTrial.library(rig, 34.0) }
  let(:bench) { PracticeTrial.new(PracticeTrial.hidden(library, %w[open:SEQ]), library) }
  let(:places) { practice_places(library.situation.rig) }

  def practice_places(rig) = Gorvant::Practice::UnitPlaces.new(rig).to_h
  def ids(kind) = places.fetch(kind).map { |one| one["id"] }

  # { kind of act => what it takes } of all that a page may offer.
  def offers
    points = ids("points").each_cons(2).to_a
    {
      "call" => ids("calls").map { |id| { "value" => id } },
      "look" => ids("looks").map { |id| { "place" => id } },
      "degrees" => ids("degrees").map { |id| { "place" => id } },
      "settings" => ids("facts").map { |id| { "fact" => id } },
      "landings" => ids("places").map { |id| { "place" => id } },
      "lift" => ids("joints").map { |id| { "joint" => id } },
      "swap" => ids("parts").map { |id| { "part" => id } },
      "volts" => points.map { |from, to| { "from" => from, "to" => to } },
      "ohms" => points.map { |from, to| { "from" => from, "to" => to, "isolated" => true } }
    }
  end

  it "that a page offers are all taken, on every demo rig, and tell no id" do
    %w[boathouse_north heron_loft lantern_kiln bakery_shop mossgate_roof].each do |name|
      drawn = Gorvant::Target.rig(rig(name))
      drill = PracticeTrial.hidden(library, %w[open:SEQ]).with(rig: drawn)
      netlist = Gorvant::Assembly.netlist(drawn)
      @places = practice_places(drawn)
      allow(self).to receive(:places).and_return(@places)
      titles =
        offers.flat_map do |kind, all|
          all.map { |given| practice::ActWords.title(practice::Act.parse({ "act" => kind, **given }, drill), netlist) }
        end
      expect(titles.grep(/[a-z]_[a-z]|cable_|@/)).to eq([]), name
      expect(titles.size).to be > 150
    end
  end

  it "each say something, take time or none, and never turn the clock back" do
    taken = {
      "call" => {
        value: "heat_aux"
      },
      "wait" => {
        minutes: 4
      },
      "volts" => {
        from: "air_handler.C",
        to: "air_handler.W"
      },
      "look" => {
        place: "strips"
      },
      "degrees" => {
        place: "outdoor_air"
      },
      "settings" => {
        fact: "defrost_interval_minutes"
      },
      "landings" => {
        place: "air_handler"
      },
      "since_stop" => {
      },
      "lift" => {
        joint: "cable_a.white@air_handler"
      },
      "land" => {
        joint: "cable_a.white@air_handler"
      },
      "jumper" => {
        from: "air_handler.R",
        to: "air_handler.G"
      },
      "unjumper" => {
        from: "air_handler.G",
        to: "air_handler.R"
      },
      "force" => {
      },
      "unforce" => {
      },
      "supply" => {
        of: "outdoor",
        value: "off"
      },
      "prove_dead" => {
      }
    }
    before = 0.0
    taken.each do |kind, given|
      outcome = bench.act(kind, **given)
      expect(outcome.stopped).to be_nil, kind
      expect(outcome.says).to match(/\w{2}|\d/), kind
      expect(outcome.standing.seconds).to be >= before, kind
      before = outcome.standing.seconds
    end
    expect(practice::Act::ASKS.keys - taken.keys - %w[ohms sensor swap]).to eq([]) # those have examples of their own
  end

  it "add up: minutes and walks by a reckoning of their own, whatever is done in whatever order" do
    random = Random.new(12)
    costs = Gorvant::Diagnosis.numbers["minutes"]
    offered =
      offers.slice("look", "settings", "landings", "volts").transform_values { |all| all.sample(12, random: random) }
    at = nil
    walks = 0
    40.times do
      kind = offered.keys.sample(random: random)
      outcome = bench.take({ "act" => kind, **offered[kind].sample(random: random) })
      there = outcome.standing.place
      walks += 1 if at && there != at
      at = there
      expect(outcome.standing.walks).to eq(walks)
    end
    spent = bench.outcomes.last[1].standing.seconds / 60
    expect(spent).to be > (walks * costs["walk"]) + (40 * costs["seen"])
    expect(bench.outcomes.last[1].standing.acts).to eq(40)
  end

  it "obey the circuit: what stands across a row of switches and its coil is what feeds it" do
    faults = [["stuck_open:HPS"], ["open:CC"], ["high_resistance:cable_b.yellow@outdoor"], ["nothing"]]
    faults.each do |hidden|
      trial = PracticeTrial.new(PracticeTrial.hidden(library, hidden), library)
      whole = trial.volts("outdoor.Y", "outdoor.C")
      pairs = %w[outdoor.Y outdoor.LPS.1 outdoor.LPS.2 outdoor.DTS.2 outdoor.HPS.2 outdoor.CC.1 outdoor.C].each_cons(2)
      parts = pairs.sum { |from, to| trial.volts(from, to) }
      expect(parts).to be_within(1.5).of(whole), hidden.first
      back = trial.volts("outdoor.C", "outdoor.Y")
      expect(back).to be_within(0.6).of(whole), hidden.first
    end
  end

  it "read nothing anywhere on low voltage once the air handler's supply is off" do
    bench.act("supply", of: "air_handler", value: "off")
    places["points"]
      .select { |one| one["id"].count(".") == 1 && one["place"] != "panel" }
      .each do |point|
        next unless library.situation.low?(point["id"]) && point["id"] != "air_handler.C"

        expect(bench.volts("air_handler.C", point["id"], instrument: "low_impedance")).to be < 0.5, point["id"]
      end
  end

  describe "a sensor in its plug" do
    let(:demand) { Gorvant::Composer.compose(name: "Demand board", facts: { "sensing" => "thermistors" }) }
    let(:sensed) { PracticeTrial.library(demand, 34.0) }

    {
      "sensor_open:COIL_T" => "OL in its own plug",
      "sensor_shorted:COIL_T" => "0 Ω in its own plug",
      "nothing" => /\d+ Ω in its own plug: -?\d+ °F/
    }.each do |hidden, says|
      it "tells #{hidden}" do
        trial = PracticeTrial.new(PracticeTrial.hidden(sensed, [hidden]), sensed)
        expect(trial.act("sensor", of: "COIL_T").stopped.code).to eq("not_proved")
        %w[outdoor air_handler].each { |supply| trial.act("supply", of: supply, value: "off") }
        trial.act("prove_dead")
        expect(trial.act("sensor", of: "COIL_T").says).to match(says)
      end
    end

    it "reads the air as it is, and too warm in the sun" do
      degrees =
        %w[nothing sensor_in_sun:AMB_T].map do |hidden|
          trial = PracticeTrial.new(PracticeTrial.hidden(sensed, [hidden]), sensed)
          %w[outdoor air_handler].each { |supply| trial.act("supply", of: supply, value: "off") }
          trial.act("prove_dead")
          trial.act("sensor", of: "AMB_T").says[/: (-?\d+) °F/, 1].to_i
        end
      expect(degrees.first).to eq(34)
      expect(degrees.last).to be > 40
    end
  end
end
