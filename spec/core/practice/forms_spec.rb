# frozen_string_literal: true

require_relative "../../support/random_rigs"

RSpec.describe "Drills that ask" do
  practice = Gorvant::Practice
  quiz = practice::Quiz

  def rigs
    %w[boathouse_north heron_loft lantern_kiln bakery_shop mossgate_roof clinic_waiting].map { |name| rig(name) }
  end

  describe "Predict first" do
    it "judges every load and point against the solver: 14 rigs, every call" do
      judged = 0
      Array
        .new(14) { |seed| Gorvant::Target.rig(RandomRigs.rig(seed)) }
        .each do |rig|
          form = practice::Predict.new(rig)
          (Gorvant::Outputs.calls(rig) - %w[off]).each do |call|
            trace = Gorvant::Trace.new(rig, Gorvant::Condition.new(call: call))
            nodes = trace.netlist.nodes.select { |node| trace.low_voltage?(node) && node.count(".") == 1 }
            pairs = nodes.reject { |node| node == "outdoor.C" }.first(12).map { |node| ["outdoor.C", node] }
            pairs.each_slice(3) do |points|
              right = points.map { |pair| klass(trace.reading(*pair).first) }
              on = trace.load_codes.to_h { |code| [code, trace.works?(code)] }
              ask = { "call" => call, "supposed" => [], "points" => points }
              said = { "loads" => on, "points" => right.map { |one| one || "ghost" } }
              expect(form.judge(ask, said)["share"]).to eq(1.0), "#{rig.name} #{call} #{points}"
              wrong = {
                "loads" => on.transform_values(&:!),
                "points" => right.map { |one| one == "between" ? "line" : "between" }
              }
              open = right.count(&:nil?)
              expect(form.judge(ask, wrong)["share"]).to be_within(0.001).of(open.to_f / (on.size + points.size))
              judged += on.size + points.size
            end
          end
        end
      expect(judged).to be > 3_000
    end

    # Written apart from the form: a class of a meter in a learner's words; nil where nobody has read what it hangs on.
    def klass(expected)
      case expected.klass
      when "about_120", "about_208", "about_240"
        "line"
      when "unsteady"
        "between"
      when "undetermined"
        nil
      else
        expected.klass
      end
    end

    it "names the misconception that a wrong answer shows" do
      form = practice::Predict.new(rig)
      ask = { "call" => "defrost", "supposed" => [], "points" => [%w[outdoor.HPS.1 outdoor.HPS.2]] }
      on = form.shown(ask)["loads"].to_h { |load| [load["code"], true] }
      lines = form.judge(ask, { "loads" => on, "points" => %w[about_24] })["lines"]
      expect(lines.find { |line| line["code"] == "OFM" }["trap"]["id"]).to eq("contacts_at_rest")
      expect(lines.last["trap"]["id"]).to eq("across_closed")
      expect(lines.find { |line| line["code"] == "COMP" }).not_to include("trap")
      off = on.transform_values { false }
      lines = form.judge(ask, { "loads" => off, "points" => %w[about_0] })["lines"]
      expect(lines.find { |line| line["code"] == "COMP" }["trap"]["id"]).to eq("defrost_runs_compressor")
      expect(lines.find { |line| line["code"] == "HTR" }["trap"]["id"]).to eq("strips_in_defrost")
    end

    it "calls no answer wrong where nobody has read what it hangs on" do
      apart = Gorvant::Composer.compose(name: "Nobody knows", facts: { "c_bonded" => "unknown" })
      form = practice::Predict.new(apart)
      ask = { "call" => "heat", "supposed" => [], "points" => [%w[outdoor.C outdoor.L1]] }
      on = form.shown(ask)["loads"].to_h { |load| [load["code"], true] }
      practice::Predict::CLASSES.each do |klass|
        line = form.judge(ask, { "loads" => on, "points" => [klass] })["lines"].last
        expect([line["right"], line["is"]]).to match([true, /either|cannot be told/])
      end
    end

    it "tells at level 3 what is supposed broken, and judges by it" do
      drill = quiz.drill("predict", "sequence", 3, 8, rig)
      drill.asks.each_index do |number|
        shown = quiz.shown(drill, number)
        told = drill.asks[number]["supposed"]
        expect(shown["supposed"].size).to eq(told.size)
      end
      expect(drill.asks.sum { |ask| ask["supposed"].size }).to be >= 1
    end

    it "refuses half an answer by its field" do
      drill = quiz.drill("predict", "sequence", 1, 8, rig)
      expect { quiz.judge(drill, 0, { "loads" => {}, "points" => [] }) }.to raise_error(
        practice::BadAct,
        %r{/answer/loads}
      )
      loads = quiz.shown(drill, 0)["loads"].to_h { |load| [load["code"], true] }
      expect { quiz.judge(drill, 0, { "loads" => loads, "points" => %w[x] }) }.to raise_error(%r{/answer/points})
      expect { quiz.judge(drill, 99, {}) }.to raise_error(practice::BadAct, %r{/number})
    end
  end

  describe "Trace it" do
    it "has the stations of a loop in order, from R through the load to C" do
      rigs.each do |rig|
        drill = quiz.drill("trace", "sequence", 2, 3, rig)
        ask = drill.asks.first
        string =
          Gorvant::LoopString.of(Gorvant::Trace.new(drill.rig, Gorvant::Condition.new(call: ask["call"])), ask["load"])
        ids = quiz.shown(drill, 0)["stations"].map { |one| one["id"] }
        drawn = string.beads.map(&:id).select { |id| ids.include?(id) }
        order = ids.sort_by { |id| drawn.index(id) || 0 }
        best = quiz.judge(drill, 0, { "order" => order })
        expect(best["share"]).to be > 0.8
        whole = best["lines"].map { |line| line["is"] }
        exact = whole.map { |label| quiz.shown(drill, 0)["stations"].find { |one| one["label"] == label }["id"] }
        expect(quiz.judge(drill, 0, { "order" => exact })["share"]).to eq(1.0)
        expect(quiz.judge(drill, 0, { "order" => exact.reverse })["share"]).to eq(0.0)
        neighbors = [exact[1], exact[0], *exact.drop(2)]
        expect(quiz.judge(drill, 0, { "order" => neighbors })["share"]).to be_between(0.5, 0.9)
      end
    end

    it "names the first missing link by readings that show it" do
      drill = quiz.drill("trace", "sequence", 2, 3, rig)
      shown = quiz.shown(drill, 1)
      volts = shown["readings"].map { |one| one["volts_ac"] }
      expect(volts.first).to be > 20
      expect(volts.last).to be < 2
      right = shown["links"].count { |link| quiz.judge(drill, 1, { "link" => link["id"] })["share"].positive? }
      expect(right).to eq(1)
      expect { quiz.judge(drill, 1, { "link" => "moon" }) }.to raise_error(practice::BadAct, %r{/answer/link})
      expect { quiz.judge(drill, 0, { "order" => %w[FU] }) }.to raise_error(practice::BadAct, %r{/answer/order})
    end
  end

  describe "Read the panel" do
    it "strikes out what the plate does not have, by the circuit itself" do
      rigs.each do |rig|
        drill = quiz.drill("panel", "wiring", 1, 6, rig)
        codes = quiz.shown(drill, 0)["codes"].map { |one| one["code"] }
        there = Gorvant::Assembly.netlist(drill.rig).branches.map { |branch| branch.component.to_s }
        right = codes.reject { |code| there.include?(code) }
        expect(quiz.judge(drill, 0, { "struck" => right })["share"]).to eq(1.0)
        expect(quiz.judge(drill, 0, { "struck" => codes - right })["share"]).to eq(0.0)
      end
    end

    it "shows on its diagram all that may be fitted, each once, and no option that takes something away" do
      drill = quiz.drill("panel", "wiring", 1, 6, rig)
      whole = practice::Panel.new(drill.rig).diagram(drill.asks)
      there = Gorvant::Assembly.netlist(whole).branches.map { |branch| branch.component.to_s }
      codes = quiz.shown(drill, 0)["codes"].map { |one| one["code"] }
      expect(codes - there).to eq([])
      expect(quiz.judge(drill, 0, { "struck" => [] })["lines"].count { |line| !line["right"] }).to be >= 2
    end

    it "names codes by their titles, and wires by their colors" do
      drill = quiz.drill("panel", "wiring", 1, 6, rig)
      codes = quiz.shown(drill, 1)["codes"].map { |one| one["code"] }
      titles = codes.to_h { |code| [code, Gorvant::Catalogue.components[code]["title"]] }
      expect(quiz.judge(drill, 1, { "names" => titles })["share"]).to eq(1.0)
      shown = quiz.shown(drill, 2)
      expect(shown["terminals"]).to include("Y", "C")
      wrong = shown["terminals"].to_h { |terminal| [terminal, "pink"] }
      expect(quiz.judge(drill, 2, { "wires" => wrong })["share"]).to eq(0.0)
      yellow = quiz.judge(drill, 2, { "wires" => wrong.merge("Y" => "yellow") })
      expect(yellow["lines"].find { |line| line["what"] == "Y" }["right"]).to be(true)
    end
  end

  describe "Time it" do
    # By the facts alone, in the head: what a technician reckons.
    it "is what the facts of the board come to" do
      reckoned = {
        "defrost" => ->(rig) { rig[:defrost_interval_minutes] },
        "end" => ->(rig) { rig[:defrost_limit_minutes] }
      }
      simple = Gorvant::Composer.compose(name: "Simple", facts: { "defrost_clock" => "run_time" })
      form = practice::Timing.new(simple)
      form
        .asks(1, Random.new(1))
        .select { |ask| reckoned.key?(ask["of"]) }
        .each do |ask|
          expect(form.answer(ask)).to be_within(0.1).of(reckoned.fetch(ask["of"]).call(simple))
          expect(form.judge(ask, { "minutes" => reckoned.fetch(ask["of"]).call(simple) })["share"]).to eq(1.0)
          early = form.judge(ask, { "minutes" => 1 })["lines"].first
          expect([early["right"], early["trap"]["id"]]).to eq([false, "run_time"])
          expect(form.judge(ask, { "never" => true })["lines"].first["trap"]["id"]).to eq("dft_in_cold")
        end
    end

    it "adds a wall's hold to a board's as each counts" do
      rig =
        Gorvant::Composer.compose(
          name: "Two holds",
          facts: {
            "y_path" => "delay",
            "board_hold_seconds" => 180,
            "board_hold_kind" => "on_make",
            "thermostat_minimum_off_seconds" => 240
          }
        )
      ask = { "of" => "hold", "ran" => 10, "rested" => 1, "outdoor" => 45.0 }
      expect(practice::Timing.new(rig).answer(ask)).to be_within(0.05).of(6.0) # 4 from the stop, less 1, and 3 more
    end

    it "has stage 2 after its delay" do
      rig = Gorvant::Composer.compose(name: "Two", facts: { "compressor_stages" => 2, "stage_delay_minutes" => 12 })
      ask = { "of" => "stage_2", "room" => 67.0, "outdoor" => 40.0 }
      expect(practice::Timing.new(rig).answer(ask)).to be_within(0.1).of(12)
      expect { practice::Timing.new(rig).judge(ask, { "minutes" => -1 }) }.to raise_error(
        practice::BadAct,
        /from 0 to 600/
      )
    end
  end

  it "the data are whole: what has a title has nothing beside that nobody reads" do
    numbers = practice.numbers
    expect(numbers["levels"].values.flat_map(&:keys).uniq).to match_array(%w[title kinds most spells pair])
    expect(numbers["subjects"].values.flat_map(&:keys).uniq).to match_array(%w[title symptoms parts kinds forms])
    forms = numbers["subjects"].values.flat_map { |about| about["forms"] }.uniq
    expect(forms - numbers["forms"].keys).to eq([])
    symptoms = numbers["subjects"].values.flat_map { |about| about["symptoms"] }.uniq
    expect(symptoms - Gorvant::Catalogue.symptoms.keys).to eq([])
    expect(numbers["unsafe"].values.map { |about| about["caution"] } - Gorvant::Catalogue.cautions.keys).to eq([])
  end

  it "every trap says something, of something that can be asked" do
    practice.numbers["traps"].each_value do |trap|
      expect(trap.values_at("title", "says")).to all(match(/\w{3}/))
      expect(trap["about"]).to match(/\A(load|points|timing)\z/)
      loads = Array(trap["loads"])
      expect(loads - Gorvant::Catalogue.components.keys).to eq([])
    end
  end
end
