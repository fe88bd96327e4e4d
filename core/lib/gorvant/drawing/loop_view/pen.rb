# frozen_string_literal: true

module Gorvant
  class LoopView
    # Draws connections and stations of a trace, each with its state, and knows nothing of where they should stand.
    class Pen
      HALF_LOAD = 34
      HALF_HEIGHT = 16
      HALF_DEVICE = 28
      NO_DROP = 0.002 # volts: nothing worth an arrow flows

      attr_reader :stations

      def initialize(trace)
        @trace = trace
        @netlist = trace.netlist
        @solution = trace.solution
        @stations = []
        @runs = []
      end

      # Copper of one node, drawn from one point to another.
      def bus(node, from, to, way: "out")
        return if from == to

        @runs << { id: "bus.#{node}.#{@runs.size}", branches: [], nodes: [node, node], points: [from, to], way: way }
      end

      # A run of branches in series between two nodes.
      def run(branches, from, to, points, way: "out", color: nil)
        @runs << { id: branches.first || "#{from}-#{to}", branches: branches, nodes: [from, to], points: points, way: way, color: color }
      end

      # Ids of the wires that lead from one node to another, in order; empty when none do.
      def wires(from, to)
        steps = paths(from).to(to) || []
        steps.all? { |step| step.branch.kind == :wire } ? steps.map { |step| step.branch.id } : []
      end

      def terminal(node, label, x, y)
        state = @trace.state(node)
        add(id: node, kind: "terminal", label: label, x: x, y: y, width: 20, height: 20, nodes: [node], state: state, far_state: state,
            spoken: "#{@netlist.label(node)}, #{state}")
      end

      # A two-ended switch, contact or fuse.
      def device(id, x, y, label:, width: HALF_DEVICE * 2)
        branch = @netlist[id]
        closed = @solution.conducts?(branch)
        add(id: id, kind: branch.kind.to_s, label: label, x: x, y: y, width: width, height: HALF_HEIGHT * 2, nodes: [branch.from, branch.to], state: @trace.state(branch.from),
            far_state: @trace.state(branch.to), closed: closed, broken: broken?(branch, closed), component: branch.component, sub: closed ? nil : "open",
            spoken: "#{branch.label}, #{closed ? 'closed' : 'open'}")
      end

      def source(id, x, y, sub)
        branch = @netlist[id]
        add(id: id, kind: "source", label: id, sub: sub, x: x, y: y, width: 68, height: HALF_HEIGHT * 2, nodes: [branch.to, branch.from], state: @trace.state(branch.to),
            far_state: @trace.state(branch.from), working: @solution.volts_across(branch) > 2, component: id,
            spoken: "#{Naming.component(id)}, #{format('%.1f', @solution.volts_across(branch))} V")
      end

      # A load with its leads: from a point of its feed (node `feed`, or what leads to its tab) to a point of its way home.
      def load_row(id, from, to, x:, feed: nil, then_to: nil)
        branch = @netlist[id]
        y = from[1]
        start = feed || feeding_terminal(branch)
        run(wires(start, branch.from), start, branch.from, [from, [x - HALF_LOAD, y]])
        pill(branch, x, y)
        home = homing_terminal(branch)
        run(wires(branch.to, home), branch.to, home, [[x + HALF_LOAD, y], to, then_to].compact, way: "home")
      end

      # A load drawn as a box with several leads.
      def block(id, x, y, width:, height:)
        pill(@netlist[id], x, y, width: width, height: height)
      end

      # All runs as Links, bridges over what they cross.
      def links
        lines = @runs.map { |run| run[:points] }
        @runs.map do |run|
          crossings = Geometry.crossings(run[:points], lines - [run[:points]])
          link(run, crossings)
        end
      end

      private

      def paths(node) = (@paths ||= {})[node] ||= Paths.new(@solution, node, @costs ||= Paths.costs(@solution))

      def add(**fields)
        @stations << Station.new(sub: nil, closed: nil, working: nil, broken: false, component: nil, **fields)
      end

      def pill(branch, x, y, width: HALF_LOAD * 2, height: HALF_HEIGHT * 2)
        on = @solution.working?(branch.id)
        add(id: branch.id, kind: branch.kind.to_s, label: branch.id == "THERMOSTAT" ? "T’STAT" : branch.id, x: x, y: y, width: width, height: height,
            nodes: [branch.from, branch.to], state: @trace.state(branch.from), far_state: @trace.state(branch.to), working: on, component: branch.component,
            spoken: "#{Naming.component(branch.id)}, #{on ? 'on' : 'off'}, #{format('%.1f', @solution.volts_across(branch))} V across it")
      end

      # A safety, fuse or conductor that is open breaks a loop; a relay contact or thermostat output at rest does not, nor an
      # output of electronics that are not fed.
      def broken?(branch, closed)
        return false if closed || (branch[:needs] && !@solution.working?(branch[:needs]))

        branch.kind == :fuse || branch[:closed] == true || @trace.condition.faults.any? { |fault| fault["at"] == branch.id }
      end

      def feeding_terminal(branch) = nearest_terminal(branch.from)
      def homing_terminal(branch) = nearest_terminal(branch.to)

      # The terminal strip's node that wire leads to from a tab.
      def nearest_terminal(node)
        return node unless @netlist.branches_at(node).size <= 2

        paths = paths(node)
        terminals = @netlist.labels.keys.select { |label| label.count(".") == 1 }
        terminals.select { |terminal| (steps = paths.to(terminal)) && steps.all? { |step| step.branch.kind == :wire && step.branch.component.nil? } }
                 .min_by { |terminal| paths.to(terminal).size } || node
      end

      def link(run, crossings)
        broken = run[:branches].map { |id| @netlist[id] }.find { |branch| !@solution.conducts?(branch) }
        states = run[:nodes].map { |node| @trace.state(node) }
        first, second, middle = broken ? Geometry.split(run[:points]) : [run[:points], nil, nil]
        parts = [{ d: Geometry.path(first, crossings), state: states[0] }]
        parts << { d: Geometry.path(second, crossings), state: states[1] } if broken
        Link.new(id: run[:id], branches: run[:branches], nodes: run[:nodes], way: run[:way], parts: parts, color: run[:color],
                 gap: broken && { x: middle[0].round(1), y: middle[1].round(1), label: short(broken) }, chevrons: chevrons(run, broken, states),
                 spoken: broken ? "#{broken.label} is broken" : nil)
      end

      # "yellow", "splice attic": the place is plain from the drawing.
      def short(branch) = branch.label.sub(/ (of|in|at the) .*/, "")

      # Chevrons point the way of the loop: away from R, home to C.
      def chevrons(run, broken, states)
        return [] if broken || states[0] != "live" || run[:way] == "home"

        drop = @solution.volts[run[:nodes][0]] - @solution.volts[run[:nodes][1]]
        Geometry.chevrons(drop > -NO_DROP ? run[:points] : run[:points].reverse)
      end
    end
  end
end
