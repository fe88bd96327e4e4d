# frozen_string_literal: true

module Gorvant
  module Faults
    # The voltages that each fault of a rig leaves in each call: what tells one fault from another.
    class Signatures
      # calls: ids. faults: Hashes as Library gives them; the healthy rig is [] beside them.
      def initialize(rig, calls: Outputs.calls(rig), faults: nil)
        @rig = rig
        @calls = calls
        @netlist = Assembly.netlist(rig)
        @faults = faults || Library.of(rig, @netlist)
        @positions = {}
      end

      # Yields fault (nil for none), call, Solution, one pair at a time: a fault's netlist is made once for all calls.
      def each
        ([nil] + @faults).each do |given|
          fault = given && Fault.parse(given)
          rig = fault ? fault.refit(@rig) : @rig
          netlist, held = fault ? fault.inject(@netlist, {}) : [@netlist, {}]
          @calls.each { |call| yield given, call, Settling.settle(netlist, positions: positions(rig, call), held: held) }
        end
      end

      private

      def positions(rig, call) = @positions[[rig.equal?(@rig) ? nil : rig, call]] ||= Assembly.positions(rig, Condition.new(call: call))
    end
  end
end
