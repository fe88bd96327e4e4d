# frozen_string_literal: true

module Gorvant
  # What a condition's faults change: the same call with and without them.
  class WhatIf
    # loads: codes that run otherwise. nodes: [{ id, label, before, after }] whose state differs.
    attr_reader :loads, :nodes

    # trace: with its faults and switches as supposed.
    def initialize(trace)
      usual = Trace.new(trace.rig, Condition.new(call: trace.condition.call))
      @loads =
        trace.load_codes.select { |code| usual.netlist.branch?(code) && trace.works?(code) != usual.works?(code) }
      @nodes =
        trace.netlist.nodes.filter_map do |node|
          next unless trace.low_voltage?(node) && usual.netlist.node?(node)

          states = [usual.state(node), trace.state(node)]
          { id: node, label: trace.netlist.label(node), before: states[0], after: states[1] } if states.uniq.size > 1
        end
    end
  end
end
