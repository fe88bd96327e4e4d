# frozen_string_literal: true

module Gorvant
  # One loop as a string of stations, from R through the load and home to C, or from leg to leg: what a phone shows
  # and a screen reader reads. beads: [Bead] in order; steps: the Paths::Steps that they were read from; home: the node
  # that its points are read against, nil where nothing leads home.
  LoopString = Value.define(:load, :title, :on, :why, :beads, :steps, :home)

  # kind: point, device, cable or load. nodes: where probes go (one or two points). broken: open where it should be
  # closed.
  Bead = Value.define(:id, :kind, :label, :sub, :nodes, :state, :closed, :broken, :place, :color)

  class LoopString
    # The strings of a trace's low-voltage loads, in the order of the load table.
    def self.all(trace)
      codes = trace.load_codes.select { |code| trace.low_voltage?(trace.netlist[code].from) }
      states = trace.loads.to_h { |load| [load.code, load] }
      codes.map { |code| Builder.new(trace, code).string(states.fetch(code)) }
    end

    # The string of one load. Raises UnknownBranch, also for what is no load, or the winding of one.
    def self.of(trace, code)
      known = trace.netlist.branches.select(&:load?).map(&:id) & Catalogue.components.keys
      raise UnknownBranch.of(code, known) unless known.include?(code)

      Builder.new(trace, code).string(trace.loads.find { |load| load.code == code } || trace.load_state(code))
    end

    # Walks a loop and keeps what a person stops at: terminals, devices, cables, the load.
    class Builder
      TAP = "outdoor.board.T1"

      def initialize(trace, code)
        @trace = trace
        @netlist = trace.netlist
        @loop = trace.loop_of(code)
        @colors =
          trace
            .rig
            .cables
            .flat_map { |cable| cable.conductors.map { |conductor| ["#{cable.id}.#{conductor.id}", conductor.color] } }
            .to_h
        @conductors =
          @netlist.branches.select { |branch| @colors.key?(branch.id) }.to_h { |branch| [branch.id, branch] }
      end

      def string(state)
        out = @loop.best_feeder || []
        home = @loop.home || []
        beads = [
          begins(out),
          *out.flat_map { |step| beads(step) },
          load_bead(state),
          *home.flat_map { |step| beads(step) }
        ]
        LoopString.new(
          load: state.code,
          title: state.title,
          on: state.on,
          why: state.why,
          beads: beads.compact.uniq(&:id),
          steps: out + home,
          home: low_voltage? ? Assembly::HOME : home.last&.to
        )
      end

      private

      def low_voltage? = @trace.low_voltage?(@loop.load.from)

      # Where it is fed from, also where nothing leads there.
      def begins(out)
        node = low_voltage? ? Assembly::HOT : out.first&.from
        point(node) if node
      end

      def beads(step)
        branch = step.branch
        return [cable(step)] if @conductors.key?(branch.id)
        return device(step), stop(step.to), tap(step.to) if branch.switching?

        # A joint or jumper that is open has to be seen even though it is only wire.
        [(device(step) if step.open?), stop(step.to), tap(step.to)]
      end

      # The run-time tap hangs beside the way, where one reads whether the contactor is being fed.
      def tap(node)
        @tapped ||= @netlist.branches_at(TAP).find { |branch| branch.kind == :wire }&.other_end(TAP)
        point(TAP) if node == @tapped
      end

      # Terminals and named points are worth a stop; bare tabs and conductor ends are not.
      def stop(node)
        terminal?(node) || (node.start_with?("outdoor.board.") && @netlist.labels.key?(node)) ? point(node) : nil
      end

      def terminal?(node) = node.count(".") == 1 || node == Assembly::HOME

      def point(node)
        bead(
          id: node,
          kind: "point",
          label: @netlist.label(node),
          nodes: [node],
          state: @trace.state(node),
          place: node.split(".").first
        )
      end

      def device(step)
        closed = !step.open?
        bead(
          id: step.branch.id,
          kind: "device",
          label: Naming.code(@trace.rig, step.branch.label),
          nodes: [step.from, step.to],
          state: @trace.state(step.from),
          closed: closed,
          broken: @trace.breaks?(step.branch),
          place: step.from.split(".").first
        )
      end

      def cable(step)
        bead(
          id: step.branch.id,
          kind: "cable",
          label: step.branch.label,
          nodes: [step.from, step.to],
          state: @trace.state(step.from),
          closed: !step.open?,
          broken: step.open?,
          color: @colors[step.branch.id]
        )
      end

      def load_bead(state)
        branch = @netlist[state.code]
        label = "#{Naming.code(@trace.rig, state.code)} · #{state.title}"
        bead(
          id: state.code,
          kind: "load",
          label: label,
          sub: state.on ? "on" : "off",
          nodes: [branch.from, branch.to],
          state: @trace.state(branch.from),
          closed: state.on,
          place: branch.from.split(".").first
        )
      end

      def bead(**fields) = Bead.new(sub: nil, closed: nil, broken: false, place: nil, color: nil, **fields)
    end
  end
end
