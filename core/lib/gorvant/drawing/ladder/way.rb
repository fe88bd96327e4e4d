# frozen_string_literal: true

module Gorvant
  class Ladder
    # One way from rail to rail as the stops that are drawn on it, and the wires between them.
    # stops: [Stop]; wires: [[branch id]], one between each two stops.
    Way = Value.define(:load, :stops, :wires)

    # kind: :left or :right (a rail), :terminal, :device, :load, :neutral (home of what a furnace feeds) or :pin (where
    # a way begins at a board's own pin).
    # key: what it is on this way; from, to: nodes of its two sides.
    Stop = Value.define(:kind, :key, :from, :to, :branch, defaults: { branch: nil })

    # Reads the steps of a loop as stops.
    class WayReader
      SHOWN_PINS = %w[outdoor.board.T1 outdoor.board.M].freeze

      # hot, home: [node] that count as the rails.
      def initialize(netlist, hot:, home:)
        @netlist = netlist
        @hot = hot
        @home = home
      end

      # feeder, way_home: [Step] as Loops gives them; feeder nil where nothing leads to the load.
      def read(load, feeder, way_home)
        out = after_rail(feeder || [])
        @stops = [
          (
            if feeder
              rail(:left, @hot.find { |node| out.empty? || out.first.from == node } || out.first.from)
            else
              pin(load.from)
            end
          )
        ]
        @wires = [[]]
        out.each { |step| pass(step) }
        stop(Stop.new(kind: :load, key: load.id, from: load.from, to: load.to, branch: load))
        terminals_at(load.to).each { |node| terminal(node) }
        home_steps(way_home || []).each { |step| pass(step) }
        close(load, way_home)
        Way.new(load: load, stops: @stops, wires: @wires.first(@stops.size - 1))
      end

      private

      def terminal(node) = stop(Stop.new(kind: :terminal, key: node, from: node, to: node))
      def rail(kind, node) = Stop.new(kind: kind, key: kind.to_s, from: node, to: node)
      def pin(node) = Stop.new(kind: :pin, key: node, from: node, to: node)

      def after_rail(steps)
        last = steps.rindex { |step| @hot.include?(step.from) }
        last ? steps.drop(last) : steps
      end

      def home_steps(steps)
        first = steps.index { |step| @home.include?(step.from) }
        first ? steps.first(first) : steps.take_while { |step| !@home.include?(step.from) }
      end

      def close(load, way_home)
        last = way_home ? @home.find { |node| way_home.any? { |step| step.to == node } || load.to == node } : nil
        if last
          stop(
            (
              if last == Assembly::GROUND
                Stop.new(kind: :neutral, key: "neutral", from: last, to: last)
              else
                rail(:right, last)
              end
            )
          )
        end
      end

      # A wire is gathered until the next stop; what can open is a stop of its own.
      def pass(step)
        if step.branch.switching? || step.branch.kind == :capacitor
          stop(Stop.new(kind: :device, key: step.branch.id, from: step.from, to: step.to, branch: step.branch))
        else
          @wires.last << step.branch.id
        end
        terminals_at(step.to).each { |node| terminal(node) }
      end

      # The terminal itself, or the pin that the board taps this point with.
      def terminals_at(node)
        return [] if (@home + @hot).include?(node)
        return [node] if terminal?(node)

        []
      end

      def terminal?(node) = SHOWN_PINS.include?(node) || (node.count(".") == 1 && !node.start_with?("panel."))

      def stop(stop)
        tap(stop)
        @stops << stop
        @wires << []
      end

      # The run-time tap hangs beside the way, at the point that it reads.
      def tap(stop)
        pin = SHOWN_PINS.first
        return if stop.kind == :terminal || @stops.any? { |one| one.key == pin }

        joint = @netlist.branches_at(pin).find { |branch| branch.kind == :wire } or return
        point = joint.other_end(pin)
        return unless [@stops.last.to, stop.from].include?(point)

        @stops << Stop.new(kind: :terminal, key: pin, from: pin, to: pin)
        @wires << []
      end
    end
  end
end
