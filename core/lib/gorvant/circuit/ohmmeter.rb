# frozen_string_literal: true

module Gorvant
  # Ohms between two points with the power off: windings by their DC resistance, contacts at rest, supplies as bare
  # windings. In circuit parallel ways count, and the answer names them; isolated, only what is fitted straight between
  # the points.
  class Ohmmeter
    # ohms (Float::INFINITY for open), says, links: ids of the branches that carry the reading.
    Reading = Value.define(:ohms, :says, :links)

    # positions, held: as for Settling. Everything is at rest: nothing is fed.
    def initialize(netlist, positions: {}, held: {})
      @netlist = netlist
      @rest = Settling.new(netlist, positions, held).at_rest
      @broken = held.select { |_id, state| state == :open }.keys
      @branches = netlist.branches.select { |branch| passes?(branch) }
    end

    def read(first, second, isolated: false)
      [first, second].each { |node| @netlist.fetch_node(node) }
      isolated ? alone(first, second) : in_circuit(first, second)
    end

    # DC ohms of a branch as a meter finds it, nil where no direct current passes.
    def self.ohms(branch)
      case branch.kind
      when :coil
        branch[:winding_ohms]
      when :capacitor, :coupling
        nil
      else
        branch[:ohms]
      end
    end

    private

    def passes?(branch)
      return false if @broken.include?(branch.id) || self.class.ohms(branch).nil?

      branch.switching? ? @rest[branch.id] : branch.kind != :source
    end

    def alone(first, second)
      direct = @branches.select { |branch| [branch.from, branch.to].sort == [first, second].sort }
      return reading("isolated_none", Float::INFINITY, first, second, []) if direct.empty?

      reading("alone", 1.0 / direct.sum { |branch| 1.0 / self.class.ohms(branch) }, first, second, direct)
    end

    def in_circuit(first, second)
      islands = Islands.new(@netlist.nodes, @branches, [])
      return reading("open", Float::INFINITY, first, second, []) unless islands.same?(first, second)

      reached = @branches.select { |branch| islands.same?(branch.from, first) }
      volts = probe(reached, first, second)
      carrying =
        reached.select { |branch| (volts[branch.from] - volts[branch.to]).abs / self.class.ohms(branch) > 0.02 }
      ohms = volts[first]
      reading(words(carrying), ohms, first, second, carrying.reject { |branch| branch.kind == :wire })
    end

    # One ampere in at the first probe, out at the second: the volts are the ohms.
    def probe(branches, first, second)
      nodes = branches.flat_map { |branch| [branch.from, branch.to] }.uniq
      return { first => 0.0, second => 0.0 } if first == second

      plain =
        branches.map do |branch|
          Branch.new(
            id: branch.id,
            kind: :wire,
            from: branch.from,
            to: branch.to,
            props: { ohms: self.class.ohms(branch) }.freeze
          )
        end
      section = Section.new(nodes, plain, second)
      section.inverse_columns([first], {}).fetch(first).merge(second => 0.0)
    end

    def words(carrying)
      loads = carrying.reject { |branch| branch.kind == :wire || branch.switching? }
      return "joined" if loads.empty?
      return "secondary" if loads.any? { |branch| branch.kind == :secondary }

      loads.one? ? "alone" : "in_circuit"
    end

    def reading(key, ohms, first, second, links)
      shown = ohms < 10 ? format("%.1f", ohms) : ohms.round.to_s if ohms.finite?
      labels = links.reject(&:switching?).map(&:label).uniq
      says =
        Catalogue.words(
          "ohms.#{key}",
          ohms: shown,
          first: @netlist.label(first),
          second: @netlist.label(second),
          links: labels.join(" and ")
        )
      Reading.new(ohms: ohms, says: says, links: links.map(&:id))
    end
  end
end
