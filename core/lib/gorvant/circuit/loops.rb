# frozen_string_literal: true

module Gorvant
  # The loops of a load: every way meant to bring it R, and its way home to C. Switches are walked only in the direction
  # they are meant to feed, so a sneak path does not pass for a design.
  class Loops
    # A load's ways: feeders ([[Step]], nearest to whole first) from hot to the load, home ([Step]) from the load to common
    # or nil when nothing leads home.
    Loop = Value.define(:load, :feeders, :home)

    class Loop
      # The feeder with the fewest open links.
      def best_feeder = feeders.first
      def whole? = !!(best_feeder && home && (best_feeder + home).none?(&:open?))

      # The first link that is open on the way, or nil.
      def first_missing = ((best_feeder || []) + (home || [])).find(&:open?)
    end

    # hot and home are the supply's two nodes.
    def initialize(solution, hot:, home:)
      @solution = solution
      @hot = hot
      @home = home
    end

    def of(load)
      feeders = ways(@hot, load.from, load, directed: true)
      feeders = feeders.sort_by.with_index { |steps, order| [steps.count(&:open?), order] }
      home = ways(load.to, @home, load, directed: false).min_by { |steps| [steps.count(&:open?), steps.size] }
      Loop.new(load: load, feeders: feeders, home: home)
    end

    private

    # Every simple way from one node to another around other loads and sources, thermostat's before relay contacts'.
    def ways(from, goal, load, directed:)
      found = []
      walk(from, goal, load, directed, { from => true }, [], found)
      found.sort_by { |steps| [steps.count { |step| step.branch.kind == :contact }, steps.size] }
    end

    def walk(node, goal, load, directed, visited, steps, found)
      return found << steps.dup if node == goal

      @solution.netlist.branches_at(node).each do |branch|
        next if branch.id == load.id || branch.load? || branch.behavior.source? || !branch.behavior.stamped?
        next if directed && branch.switching? && branch.from != node

        other = branch.other_end(node)
        next if visited[other]

        visited[other] = true
        steps.push(Paths::Step.new(branch, node, other, @solution.conducts?(branch) ? :closed : :open))
        walk(other, goal, load, directed, visited, steps, found)
        steps.pop
        visited.delete(other)
      end
    end
  end
end
