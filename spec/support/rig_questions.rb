# frozen_string_literal: true

require_relative "core"

# Requests of one rig, drawn from what it has.
class RigQuestions
  VIEWS = %w[loops ladder connections focus].freeze

  def initialize(rig, random)
    @rig = rig
    @random = random
    @netlist = Gorvant::Assembly.netlist(rig)
    @faults = Gorvant::Faults::Library.everything(rig, @netlist)
    @nodes = @netlist.sections.flat_map(&:nodes)
  end

  # [route, body]
  def all
    [
      ["trace", { condition: condition, drawing: drawing }],
      ["expected", { condition: condition, instrument: instrument }],
      *Array.new(3) { ["measurement", { condition: condition, **points, instrument: instrument }] },
      ["measurement", { condition: condition, **points, function: "ohms", isolated: one([true, false]) }],
      *Array.new(2) { ["drawing", { condition: condition, **drawing }] },
      ["legend", { condition: condition }],
      ["way", { condition: condition, to_node: one(@nodes) }],
      ["timeline", run]
    ]
  end

  private

  def one(list) = list.sample(random: @random)
  def maybe(share) = @random.rand < share ? yield : {}
  def points = { from_node: one(@nodes), to_node: one(@nodes) }
  def instrument = one(%w[high_impedance low_impedance])
  def calls = Gorvant::Outputs.calls(@rig)

  def condition
    switch = one(Gorvant::Assembly::Positions.movable(@rig))
    {
      call: one(calls),
      **maybe(0.5) { { outdoor_degrees_f: @random.rand(-20..115) } },
      **maybe(0.4) { { coil_degrees_f: @random.rand(-10..120) } },
      **maybe(0.6) { { faults: @faults.sample(@random.rand(1..2), random: @random) } },
      **maybe(0.3) { { switches: { switch => one(%w[open closed]) } } }
    }
  end

  def drawing
    view = one(VIEWS)
    { view: view, **(view == "focus" ? { load: one(@netlist.branches.select(&:load?)).id } : {}) }
  end

  def run
    moves = Array.new(@random.rand(0..3)) { |i| { at_seconds: 200 * (i + 1), what: "call", value: one(calls) } }
    start = { call: one(calls), outdoor_degrees_f: @random.rand(-10..100) }
    { script: { start: start, moves: moves }, duration_seconds: @random.rand(60..7200) }
  end
end
