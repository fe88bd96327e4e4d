# frozen_string_literal: true

module Gorvant
  module Faults
    # The voltages that each fault of a rig leaves in each call: what tells one fault from another.
    class Signatures
      attr_reader :faults

      # calls: ids. faults: Hashes as Library gives them.
      def initialize(rig, calls: Outputs.calls(rig), faults: nil)
        @rig = rig
        @calls = calls
        @netlist = Assembly.netlist(rig)
        @faults = faults || Library.of(rig, @netlist)
        @points = @netlist.sections.flat_map(&:nodes).sort
      end

      # Yields fault (nil for none), call, Solution, one pair at a time.
      def each
        ([nil] + @faults).each { |given| solutions(given).each { |call, solution| yield given, call, solution } }
      end

      # A digest of what every reading to C, to ground and every load shows in every call: two faults with the same
      # digest are told apart by no voltage. given: nil for the healthy rig.
      def digest(given)
        states =
          solutions(given).map do |_call, solution|
            [
              @points.map { |node| shown(solution, node) },
              solution.working.select { |_id, on| on }.keys.sort,
              solution.chattering
            ]
          end
        Digest::SHA256.hexdigest(states.inspect)
      end

      private

      def shown(solution, node) = solution.floating?(node) ? "floats" : Meter.klass(solution.volts.fetch(node).abs)

      # [[call, Solution]]; a fault's netlist is made once for all calls.
      def solutions(given)
        fault = given && Fault.parse(given)
        rig = fault ? fault.refit(@rig) : @rig
        netlist, held = fault ? fault.inject(@netlist, {}) : [@netlist, {}]
        positions = rig.equal?(@rig) ? (@positions ||= positions(rig)) : positions(rig)
        @calls.map { |call| [call, Settling.settle(netlist, positions: positions[call], held: held)] }
      end

      # { call => where its switches stand }
      def positions(rig) = @calls.to_h { |call| [call, Assembly.positions(rig, Condition.new(call: call))] }
    end
  end
end
