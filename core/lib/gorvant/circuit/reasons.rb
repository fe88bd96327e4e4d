# frozen_string_literal: true

module Gorvant
  # Why two points read what they read, from what lies between them and on the ways from R and from C.
  class Reasons
    # key of wording.yml (under "reason."), links: the branches that decide it.
    Reason = Value.define(:key, :says, :links)

    # hot and home: the two nodes of the supply that the points belong to.
    def initialize(solution, hot:, home:)
      @solution = solution
      @netlist = solution.netlist
      @costs = Paths.costs(solution)
      @hot = Paths.new(solution, hot, @costs)
      @home = Paths.new(solution, home, @costs)
      @hot_node = hot
      @home_node = home
      @from = {}
    end

    # expected: what Meter expects between first and second.
    def explain(first, second, expected)
      case expected.klass
      when "undetermined"
        reason("two_supplies", first, second, expected)
      when "unsteady"
        reason("unsteady", first, second, expected, links: @solution.chattering.map { |id| @netlist[id] })
      when "ghost"
        ghost(first, second, expected)
      when "about_0"
        nothing(first, second, expected)
      when "between"
        partial(first, second, expected)
      else
        full(first, second, expected)
      end
    end

    private

    def between(first, second) = (@from[first] ||= Paths.new(@solution, first, @costs)).to(second)

    # Full voltage: an open link with the rest whole, a load that is fed, a live point against a common, or a common
    # astray.
    def full(first, second, expected)
      way = between(first, second) || []
      loads = way.select(&:load?).map(&:branch)
      opens = way.select(&:open?).map(&:branch)
      if loads.empty? && opens.any?
        return reason(opens.one? ? "open_across" : "opens_across", first, second, expected, links: opens)
      end
      return fed(loads.first, first, second, expected) if loads.one? && opens.empty? && across?(loads.first, way)

      live_to_home(first, second, expected) || astray(first, second, expected) ||
        reason("full", first, second, expected)
    end

    def fed(load, first, second, expected)
      reason(@solution.working?(load.id) ? "fed" : "fed_idle", first, second, expected, links: [load])
    end

    def live_to_home(first, second, expected)
      live, other = [first, second].partition { |node| @hot.joined?(node) }
      return unless live.one? && @home.joined?(other.first)

      reason(expected.klass == "about_24" ? "live_to_home" : "leg_to_leg", live.first, other.first, expected)
    end

    def astray(first, second, expected)
      node =
        [first, second].find do |one|
          !@hot.joined?(one) && !@home.joined?(one) && @home.obstacles(one)&.any?(&:open?)
        end or return
      reason(
        "lost_home_full",
        node,
        ([first, second] - [node]).first,
        expected,
        links: [@home.obstacles(node).find(&:open?).branch]
      )
    end

    # Whether the way is the load and its own leads alone; a terminal that feeds several loads is none of theirs.
    def across?(load, way)
      way.size <= 3 && [load.from, load.to].any? { |tab| @netlist.branches_at(tab).size <= 2 } &&
        way.none? { |step| step.branch.switching? }
    end

    def nothing(first, second, expected)
      return reason("no_supply", first, second, expected) if no_supply?
      return reason(@hot.joined?(first) ? "both_live" : "joined", first, second, expected) if joined?(first, second)

      dead = [second, first].reject { |node| @hot.joined?(node) || @home.joined?(node) }
      return reason("joined", first, second, expected) if dead.empty?

      astray = dead.find { |node| volts_from_home(node) > Catalogue.profile.dig("reading_classes", "about_24", "low") }
      return lost_home(astray, first, second, expected) if astray

      node = dead.first
      link = (@hot.obstacles(node) || []).find(&:open?)
      reason(
        link ? "not_fed" : "no_way",
        node,
        ([first, second] - [node]).first || node,
        expected,
        links: [link&.branch].compact
      )
    end

    def lost_home(node, first, second, expected)
      link = (@home.obstacles(node) || []).find(&:open?)
      reason("lost_home", node, ([first, second] - [node]).first, expected, links: [link&.branch].compact)
    end

    def partial(first, second, expected)
      way = between(first, second) || []
      worst = way.reject { |step| step.open? || step.load? }.max_by { |step| @solution.volts_across(step.branch) }
      reason(joined?(first, second) && worst ? "drop" : "weak", first, second, expected, links: [worst&.branch].compact)
    end

    def ghost(first, second, expected)
      floating = [first, second].find { |node| @solution.floating?(node) }
      link = (@hot.obstacles(floating) || []).find(&:open?) || (@home.obstacles(floating) || []).find(&:open?)
      reason(
        link ? "ghost_lifted" : "ghost_spare",
        floating,
        ([first, second] - [floating]).first || floating,
        expected,
        links: [link&.branch].compact
      )
    end

    def joined?(first, second)
      (@hot.joined?(first) && @hot.joined?(second)) || (@home.joined?(first) && @home.joined?(second)) ||
        (between(first, second) || [nil]).none? { |step| step.nil? || step.open? || step.load? }
    end

    def no_supply? =
      (@solution.volts[@hot_node] - @solution.volts[@home_node]).abs <
        Catalogue.profile.dig("reading_classes", "about_0", "high")
    def volts_from_home(node) = (@solution.volts[node] - @solution.volts[@home_node]).abs

    def reason(key, first, second, expected, links: [])
      says =
        Catalogue.words(
          "reason.#{key}",
          volts: format("%.1f", expected.volts_ac || 0.0),
          first: @netlist.label(first),
          second: @netlist.label(second),
          links: links.map(&:label).uniq.join(" and ")
        )
      Reason.new(key: key, says: says, links: links.map(&:id))
    end
  end
end
