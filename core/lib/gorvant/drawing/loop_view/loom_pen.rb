# frozen_string_literal: true

module Gorvant
  class LoopView
    # A pen that knows how a load hangs between its column and C.
    class LoomPen < Pen
      # A load with its leads: from a point of its feed (node `feed`, or what leads to its tab) to a point of its way
      # home.
      def load_row(id, from, to, x:, feed: nil, then_to: nil, text: id, line: "factory")
        branch = @netlist[id]
        y = from[1]
        start = feed || nearest_terminal(branch.from)
        run(wires(start, branch.from), start, branch.from, [from, [x - HALF_LOAD, y]], line: line)
        pill(id, x, y, text: text)
        home = nearest_terminal(branch.to)
        run(wires(branch.to, home), branch.to, home, [[x + HALF_LOAD, y], to, then_to].compact, way: "home", line: line)
      end

      private

      # The terminal strip's node that wire leads to from a tab.
      def nearest_terminal(node)
        return node unless @netlist.branches_at(node).size <= 2

        own =
          wired(node).keys.select do |other|
            other.count(".") == 1 && wires(node, other).all? { |id| @netlist[id].component.nil? }
          end
        own.first || node
      end
    end
  end
end
