# frozen_string_literal: true

module Gorvant
  # The easiest way from one node to every other: through wire before an open switch, through an open switch before a
  # load. Not through sources. What lies on the way explains a reading.
  class Paths
    # One branch of a way, walked from one node to the other. state: :closed or :open. Made by the thousand, so a bare
    # Struct.
    Step =
      Struct.new(:branch, :from, :to, :state) do
        def open? = state == :open
        def load? = branch.load?
        # The same step walked the other way.
        def turned = Step.new(branch, to, from, state)
      end

    COSTS = { wire: 1, switch: 50, wire_open: 55, fuse: 55, contact: 60, load: 2_000 }.freeze

    # What a step through each branch costs, shared between many searches of one solution; a branch without a cost is
    # walked by none.
    class Costs
      # sense: how a switch is walked: as it is meant to feed (:forth) or against that (:back); nil of any other branch.
      Exit = Struct.new(:branch, :node, :cost, :sense)

      # by_id: { branch id => cost }.
      def initialize(netlist, by_id)
        @netlist = netlist
        @by_id = by_id
        @exits = {}
      end

      # [Exit] of a node, in order of id.
      def exits(node) =
        @exits[node] ||= @netlist
          .branches_at(node)
          .filter_map do |branch|
            cost = @by_id[branch.id]
            Exit.new(branch, branch.other_end(node), cost, sense(branch, node)) if cost
          end

      private

      def sense(branch, node)
        return nil unless branch.switching?

        branch.from == node ? :forth : :back
      end
    end

    def self.cost(solution, branch)
      return COSTS[:load] if branch.load?
      return COSTS[:wire] if solution.conducts?(branch)

      branch.switching? ? COSTS.fetch(branch.kind) : COSTS[:wire_open]
    end

    # directed: :forth walks switches only as they are meant to feed, :back only against it, nil both ways.
    def initialize(solution, from, costs = Paths.costs(solution), directed: nil)
      @solution = solution
      @from = from
      @directed = directed
      @ways = { from => [].freeze }
      @obstacles = {}
      search(costs)
    end

    # The Costs of what a person follows: everything but sources.
    def self.costs(solution)
      by_id =
        solution
          .netlist
          .branches
          .filter_map do |branch|
            [branch.id, cost(solution, branch)] if branch.behavior.stamped? && !branch.behavior.source?
          end
          .to_h
      Costs.new(solution.netlist, by_id)
    end

    # Steps from the origin to the node, or nil when nothing leads there. Ways share their beginnings.
    def to(node)
      known = @ways[node]
      return known if known

      branch = @came_by[node] or return nil
      before = branch.other_end(node)
      @ways[node] = [*to(before), Step.new(branch, before, node, @solution.conducts?(branch) ? :closed : :open)].freeze
    end

    # The branch by which the way to the node ends; nil at the origin and where nothing leads.
    def came_by(node) = @came_by[node]

    # Open branches and loads on the way to the node; nil when nothing leads there.
    def obstacles(node)
      return @obstacles[node] if @obstacles.key?(node)

      @obstacles[node] = to(node)&.select { |step| step.open? || step.load? }
    end

    # Whether wire and closed contacts alone lead to the node.
    def joined?(node) = node == @from || (@cost.key?(node) && @cost[node] < COSTS[:switch] && obstacles(node).empty?)

    private

    def search(costs)
      Patience.check!
      @cost = { @from => 0 }
      @came_by = {}
      done = {}
      queue = [[0, @from]] # kept sorted, dearest first
      until queue.empty?
        cost, node = queue.pop
        next if done[node]

        done[node] = true
        costs
          .exits(node)
          .each do |exit|
            next if @directed && exit.sense && exit.sense != @directed

            other = exit.node
            total = cost + exit.cost
            next if @cost.key?(other) && @cost[other] <= total

            @cost[other] = total
            @came_by[other] = exit.branch
            queue.insert(queue.bsearch_index { |entry| entry[0] <= total } || queue.size, [total, other])
          end
      end
    end
  end
end
