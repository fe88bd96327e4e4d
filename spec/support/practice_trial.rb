# frozen_string_literal: true

require_relative "finding"

# Drills for specs, and who plays them: Find itself at the bench, and somebody who guesses.
class PracticeTrial
  Practice = Gorvant::Practice

  class << self
    # A DrillMaker of a demo rig in a weather, with its library made once for all examples.
    def maker(rig, outdoor_degrees_f)
      (@makers ||= {})[[rig.name, outdoor_degrees_f]] ||= Practice::DrillMaker.new(library(rig, outdoor_degrees_f))
    end

    def library(rig, outdoor_degrees_f) =
      Finding.library("practice #{rig.name} #{outdoor_degrees_f}", rig, outdoor_degrees_f)

    # A drill with a truth that is named: ids of hypotheses.
    def hidden(library, ids, symptoms: %w[no_heat], spells: nil)
      truth = Practice::Truth.new(hypotheses: ids.map { |id| library.hypotheses[library.index(id)] }, spells: spells)
      Practice::Drill.new(
        form: "find",
        subject: "sequence",
        level: 1,
        seed: 1,
        rig: library.situation.rig,
        symptoms: symptoms,
        outdoor_degrees_f: library.situation.outdoor_degrees_f,
        truth: truth,
        par: Practice::Drill::Par.new(tests: 5, minutes: 15.0, walks: 1)
      )
    end
  end

  attr_reader :drill, :weighing, :outcomes

  def initialize(drill, library)
    @drill = drill
    @weighing = Practice::Weighing.new(drill, library)
    @bench = Practice::Bench.new(drill)
    @standing = @bench.start
    @outcomes = []
  end

  # Takes an act and answers with its Outcome: act("call", value: "heat").
  def act(kind, **given) = take({ "act" => kind }.merge(given.transform_keys(&:to_s)))

  def take(given)
    act = Practice::Act.parse(given, drill)
    outcome = @bench.take(@standing, act)
    @standing = outcome.standing
    @outcomes << [act, outcome]
    outcome
  end

  def volts(from, to, **more) = act("volts", from: from, to: to, **more).data[:value]
  def unit = @bench.unit(@standing)
  def score(decision) = Practice::Score.of(weighing, outcomes, decision)

  # As Find plays it.
  def perfect
    played = Practice::Yardstick.new(weighing).play
    played.acts.each { |given| take(given) }
    score(played.decision)
  end

  # Four readings anywhere, then anything.
  def guess(random)
    nodes = @weighing.library.situation.netlist.nodes.select { |node| node.count(".") == 1 }
    4.times { nodes.sample(2, random: random).then { |from, to| act("volts", from: from, to: to) } }
    score([@weighing.library.hypotheses.sample(random: random).id])
  end
end
