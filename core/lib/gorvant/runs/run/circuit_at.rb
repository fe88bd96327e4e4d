# frozen_string_literal: true

module Gorvant
  class Run
    # The circuit of a run: solved from where its relays stood, and never twice for the same.
    class CircuitAt
      attr_reader :solution, :faults, :condition

      def initialize(rig)
        @rig = rig
        @plain = Assembly.netlist(rig)
        @netlists = {}
        @known = {}.compare_by_identity # { Solution before => { Condition => Solution } }
        @faults = []
        @working = {}
        @blown = {} # { fuse id => :open }: nobody fits a new one during a run
      end

      def netlist = @plain

      # Returns whether any load or point is otherwise than before.
      def solve(condition)
        found = (@known[@solution] ||= {})[condition] ||= one_of_a_kind(solved(condition), condition)
        changed = !@solution.equal?(found)
        @solution = found
        @condition = condition
        @faults = condition.faults
        @working = found.working
        @blown = @blown.merge(found.blown.to_h { |id| [id, :open] }) unless found.blown.empty?
        changed
      end

      def works?(load)
        return false if @solution.nil? || !@solution.netlist.branch?(load)

        start = "#{load}.start"
        @solution.working?(load) && (!@solution.netlist.branch?(start) || @solution.working?(start)) &&
          @faults.none? { |fault| fault["kind"] == "motor_dead" && fault["at"] == load }
      end

      def live?(node)
        return false unless @solution && (volts = @solution.volts[node])

        !@solution.floating?(node) && volts.abs >= Catalogue.profile.dig("reading_classes", "about_24", "low")
      end

      def closed?(id) = @solution.closed.fetch(id)

      # What the rules find in the state that holds, kept with the solution. As long as nothing is broken, bridged or
      # switched off they have nothing to find.
      def findings
        return [] if @faults.empty? && @condition.supplies.empty? && @blown.empty? && !@solution.chatter?

        (@findings ||= {}.compare_by_identity)[@solution] ||= Rule.check_all(@solution)
      end

      # The loop of a load in the state that holds, kept with the solution.
      def loop_of(load)
        branch = @solution.netlist[load]
        (@loops ||= {}.compare_by_identity)[@solution] ||= {}
        @loops[@solution][load] ||= ways(branch).of(branch)
      end

      private

      def ways(branch)
        low =
          @solution.netlist.sections.find { |section| section.reference == Assembly::HOME }.nodes.include?(branch.from)
        return Loops.new(@solution, hot: Assembly::HOT, home: Assembly::HOME) if low

        neutral = @rig[:backup] == "gas" && branch.from.start_with?("air_handler.")
        Loops.new(@solution, hot: Assembly::LINE_HOT, home: neutral ? Assembly::GROUND : Assembly::LINE_HOME)
      end

      # The same answer to the same condition is the same object.
      def one_of_a_kind(solution, condition) =
        (@kinds ||= {})[[condition, solution.working, solution.closed]] ||= solution

      def solved(condition)
        netlist, held, fitted = (@netlists[condition.faults] ||= made(condition.faults))
        contacts =
          condition.contacts.to_h { |id, state| [id, state.to_sym] }.select { |id, _state| netlist.branch?(id) }
        Settling.settle(
          netlist,
          positions: Assembly.positions(fitted, condition),
          held: contacts.merge(held, @blown),
          start: @working
        )
      end

      def made(given)
        faults = Fault.parse_all(given)
        fitted = faults.inject(@rig) { |so_far, fault| fault.refit(so_far) }
        [*Fault.inject(fitted.equal?(@rig) ? @plain : Assembly.netlist(fitted), faults), fitted]
      end
    end
  end
end
