# frozen_string_literal: true

module Gorvant
  # The loops of a load: the ways meant to bring it R, and its way home to C. Switches are walked only in the direction
  # they are meant to feed, so a sneak path does not pass for a design. Of the ways, which may be without number where
  # conductors touch, those are told that a person would follow: through each branch the one with the fewest open links,
  # and the one with the fewest contacts. Two searches from each end find them, whatever the circuit.
  class Loops
    # A load's ways: feeders ([[Step]], nearest to whole first) from hot to the load, home ([Step]) from the load to
    # common or nil when nothing leads home.
    Loop = Value.define(:load, :feeders, :home)

    class Loop
      # The feeder with the fewest open links.
      def best_feeder = feeders.first
      def whole? = !!(best_feeder && home && (best_feeder + home).none?(&:open?))

      # The first link that is open on the way, or nil.
      def first_missing = ((best_feeder || []) + (home || [])).find(&:open?)
    end

    # More than any way has branches, so that one open link weighs more than all contacts, one contact more than all
    # length.
    CONTACT = 1_000
    OPEN = 1_000_000

    # hot and home are the supply's two nodes.
    def initialize(solution, hot:, home:)
      @solution = solution
      @hot = hot
      @home = home
    end

    def of(load)
      feeders = costings.flat_map { |costing| through_each(load, *costing) }
      feeders =
        feeders
          .uniq { |steps| steps.map { |step| step.branch.id } }
          .sort_by
          .with_index { |steps, order| [steps.count(&:open?), *walked(steps), order] }
      Loop.new(load: load, feeders: feeders, home: home_ways.to(load.to)&.reverse&.map(&:turned))
    end

    private

    # How a person would follow them: past few contacts, then the shortest.
    def walked(steps) = [steps.count { |step| step.branch.kind == :contact }, steps.size]

    # Around loads and sources.
    def passable =
      @passable ||=
        @solution.netlist.branches.reject do |branch|
          branch.load? || branch.behavior.source? || !branch.behavior.stamped?
        end
    def open = @open ||= passable.to_h { |branch| [branch.id, @solution.conducts?(branch) ? 0 : OPEN] }

    # [Paths::Costs, the cheapest ways from hot], shared by all loads: by open links first, and by contacts
    # alone.
    def costings
      @costings ||=
        begin
          contacts = passable.to_h { |branch| [branch.id, (branch.kind == :contact ? CONTACT : 0) + 1] }
          [contacts.to_h { |id, cost| [id, cost + open[id]] }, contacts].map do |by_id|
            costs = Paths::Costs.new(@solution.netlist, by_id)
            [costs, Paths.new(@solution, @hot, costs, directed: :forth)]
          end
        end
    end

    def home_ways =
      @home_ways ||=
        Paths.new(@solution, @home, Paths::Costs.new(@solution.netlist, open.transform_values { |cost| cost + 1 }))

    # [[branch, the end at which it is entered, the other]], shared by all loads: a switch only as it is meant to feed.
    def walks =
      @walks ||=
        passable.flat_map do |branch|
          [[branch, branch.from, branch.to], ([branch, branch.to, branch.from] unless branch.switching?)].compact
        end

    # The cheapest way to the load through each branch that lies on any.
    def through_each(load, costs, out)
      best = out.to(load.from) or return []
      back = Paths.new(@solution, load.from, costs, directed: :back)
      [best] + walks.filter_map { |branch, node, other| detour(branch, node, other, out, back) }
    end

    # Nil where its two halves would cross: then it is no way.
    def detour(branch, node, other, out, back)
      return nil if out.came_by(other) == branch || out.came_by(node) == branch || back.came_by(other) == branch

      first = out.to(node)
      rest = first && back.to(other) or return nil
      way = [
        *first,
        Paths::Step.new(branch, node, other, open[branch.id].zero? ? :closed : :open),
        *rest.reverse.map(&:turned)
      ]
      way if [@hot, *way.map(&:to)].uniq.size == way.size + 1
    end
  end
end
