# frozen_string_literal: true

require_relative "../../support/practice_trial"

RSpec.describe "Drills of a free bench" do
  practice = Gorvant::Practice
  libraries = { "boathouse_north" => 34.0, "heron_loft" => 62.0, "lantern_kiln" => 28.0 }

  def library(name, outdoor) = PracticeTrial.library(rig(name), outdoor)

  libraries.each do |name, outdoor|
    it "#{name}: are solvable; Find's own play has full marks and a guess has not; same seed, same drill" do
      maker = PracticeTrial.maker(rig(name), outdoor)
      random = Random.new(4)
      drills =
        practice.numbers["subjects"].keys.flat_map do |subject|
          [2 + (subject.size % 2)].filter_map { |level| maker.drill(subject, level, 100 + level) }
        end
      expect(drills.map(&:subject).uniq.size).to be >= 8
      drills.each do |drill|
        score = PracticeTrial.new(drill, library(name, outdoor)).perfect
        expect([score.marks, score.right, score.proved, score.unsafe]).to eq([100, true, true, 0]),
        drill.truth.titles.join
        expect(PracticeTrial.new(drill, library(name, outdoor)).guess(random).marks).to be < 60
        expect(drill.par.tests).to be <= practice.numbers.dig("levels", drill.level, "most")
      end
      again = maker.drill(drills[3].subject, drills[3].level, drills[3].seed)
      expect(again.to_json_hash).to eq(drills[3].to_json_hash)
    end
  end

  it "come back from their sealed form as they were" do
    drill = PracticeTrial.maker(rig, 34.0).drill("safeties", 3, 5)
    sealed = JSON.parse(JSON.generate(drill.to_json_hash))
    expect(practice::Drill.from(sealed, drill.rig).to_json_hash).to eq(drill.to_json_hash)
  end

  it "hide two things at once, or what comes and goes, where the level says so" do
    maker = PracticeTrial.maker(rig("heron_loft"), 62.0)
    comes = maker.drill("back_feed", 4, 15)
    expect(comes.truth.spells.first.first).to eq(0)
    expect(comes.truth.spells.flatten.each_cons(2)).to all(satisfy { |first, second| first < second })
    both = maker.drill("wiring", 5, 1)
    expect(both.truth.hypotheses.size).to eq(2)
    score = PracticeTrial.new(both, library("heron_loft", 62.0)).perfect
    expect([score.right, score.proved]).to eq([true, true])
  end

  it "are none where a rig has nothing of a subject" do
    expect(PracticeTrial.maker(rig, 34.0).drill("not_a_fault", 1, 1)).to be_nil
  end

  describe "Score" do
    let(:heat) { library("boathouse_north", 34.0) }
    let(:trial) { PracticeTrial.new(PracticeTrial.hidden(heat, %w[stuck_open:HPS]), heat) }

    def read
      trial.act("call", value: "heat")
      trial.volts("outdoor.C", "outdoor.Y")
      trial.volts("outdoor.HPS.1", "outdoor.HPS.2")
      trial.volts("outdoor.LPS.1", "outdoor.LPS.2")
    end

    it "gives a guess its half and no more: nothing read proved it" do
      score = trial.score(%w[stuck_open:HPS])
      expect([score.right, score.proved, score.marks]).to eq([true, false, 40])
    end

    it "gives nothing for a wrong decision, and a part of it for the right part" do
      read
      expect(trial.score(%w[open:SEQ]).marks).to eq(0)
      expect(trial.score(%w[opened_HPS]).marks).to eq(practice_points["same_part"])
      expect(trial.score([]).marks).to eq(0)
    end

    it "takes off for what had to be stopped" do
      read
      before = trial.score(%w[stuck_open:HPS]).marks
      trial.act("jumper", from: "outdoor.HPS.1", to: "outdoor.HPS.2")
      after = trial.score(%w[stuck_open:HPS])
      expect(before - after.marks).to be_within(1).of(practice_points["unsafe"])
      expect(after.lines.map { |line| line["says"] }).to include("1 acts that had to be stopped")
    end

    it "does not count the test that looked at the part before it was condemned, nor proving dead" do
      read
      trial.volts("outdoor.HPS.1", "outdoor.HPS.2")
      trial.act("prove_dead")
      expect(trial.score(%w[stuck_open:HPS]).tests).to eq(3)
      expect(trial.score(%w[open:SEQ]).tests).to eq(4)
    end

    def practice_points = Gorvant::Practice.numbers.dig("score", "find")
  end

  describe "Debrief" do
    it "tells of each act what it told, and what would have told more" do
      heat = library("boathouse_north", 34.0)
      trial = PracticeTrial.new(PracticeTrial.hidden(heat, %w[stuck_open:HPS]), heat)
      trial.act("call", value: "heat")
      trial.volts("wall.C", "outdoor.C")
      trial.volts("outdoor.C", "outdoor.Y")
      trial.volts("outdoor.HPS.1", "outdoor.HPS.2")
      trial.act("jumper", from: "outdoor.R", to: "outdoor.C")
      steps = Gorvant::Practice::Debrief.new(trial.weighing, trial.outcomes).steps
      expect(steps.map(&:bits).map(&:nil?)).to eq([true, false, false, false, true])
      expect(steps[3].bits).to be > 2
      expect(steps[1].better["bits"]).to be > steps[1].better["mine"]
      expect(steps[4].stopped).to eq("r_to_c")
      expect(steps.map(&:title)).to eq(
        [
          "set Heat",
          "V AC wall C – outdoor C",
          "V AC outdoor C – outdoor Y",
          "V AC before HPS – after HPS",
          "jumper outdoor R – outdoor C"
        ]
      )
      expect(steps.last(2).first.nodes).to eq(%w[outdoor.HPS.1 outdoor.HPS.2])
      whole = steps.sum { |step| step.bits.to_f }
      expect(whole).to be_within(0.1).of(
        Math.log2(trial.score([]).belief / trial.weighing.belief(trial.weighing.finder([]).beliefs))
      )
    end

    it "does not weigh what was read while things were still moving" do
      heat = PracticeTrial.library(Gorvant::Composer.compose(name: "Delay board", facts: { "y_path" => "delay" }), 34.0)
      trial = PracticeTrial.new(PracticeTrial.hidden(heat, %w[open:SEQ], symptoms: %w[no_auxiliary_heat]), heat)
      trial.act("call", value: "off")
      trial.act("call", value: "heat") # the compressor is held back now by the wall
      trial.volts("wall.C", "wall.Y")
      step = Gorvant::Practice::Debrief.new(trial.weighing, trial.outcomes).steps.last
      expect([trial.outcomes.last[1].data[:value], step.bits]).to match([be < 1, nil])
      expect(step.note).to include("still moving")
    end
  end

  describe "Decision" do
    let(:heat) { library("boathouse_north", 34.0) }

    {
      { "kind" => "open", "at" => "cable_a.red" } => "open:cable_a.red",
      { "kind" => "stuck_open", "at" => "HPS" } => "stuck_open:HPS",
      { "kind" => "opened", "at" => "HPS" } => "opened_HPS",
      { "kind" => "hidden", "at" => "clock_dead" } => "clock_dead",
      { "kind" => "as_designed", "at" => "nothing" } => "nothing",
      { "kind" => "set_up", "at" => "system_setup", "value" => "conventional" } => "set_up:system_setup:conventional",
      { "kind" => "valve_stuck", "value" => "cooling" } => "valve_stuck:RVS_cooling",
      {
        "kind" => "swapped",
        "at" => %w[cable_a.green@air_handler cable_a.blue@air_handler]
      } =>
        "swapped:cable_a.blue@air_handler~cable_a.green@air_handler",
      {
        "kind" => "landed",
        "at" => "cable_a.blue@air_handler",
        "value" => "air_handler.R"
      } =>
        "landed:cable_a.blue@air_handler:air_handler.R",
      # A short is the same wherever along plain wire one names it.
      {
        "kind" => "short",
        "at" => %w[air_handler.C wall.cable_a.yellow]
      } =>
        "short:air_handler.cable_a.yellow~air_handler.C"
    }.each do |given, id|
      it "means #{id} by #{given.values.join(" ")}" do
        expect(practice_decision.resolve(heat, given)).to eq(id)
      end
    end

    it "says where a unit can have no such thing" do
      expect { practice_decision.resolve(heat, { "kind" => "open", "at" => "moon" }) }.to raise_error(
        Gorvant::Practice::BadAct,
        %r{/decision/at: this unit cannot}
      )
      expect { practice_decision.resolve(heat, { "kind" => "magic" }) }.to raise_error(/has to be one of open/)
    end

    it "has words for every kind that a drill may hide" do
      kinds = heat.hypotheses.reject { |one| one.steady || %w[rig none].include?(one.kind) }.map(&:kind).uniq
      expect(kinds - practice_decision.kinds.keys).to eq([])
      expect(practice_decision.kinds.keys.map { |kind| practice_decision.title(kind) }).to all(match(/\w/))
    end

    def practice_decision = Gorvant::Practice::Decision
  end
end
