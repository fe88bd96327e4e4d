# frozen_string_literal: true

module Gorvant
  # What a jumper between two points leaves out: a part that protects (components.yml, `protects`), or all but the
  # transformer itself. Asked of the circuit, with every switch closed: what joins the two points but for the jumper.
  module SafetyBridge
    class << self
      # Codes of the parts that joining two nodes of a rig's circuit bridges; [] for none.
      def codes(rig, from, to)
        netlist = Assembly.netlist(rig)
        return [] unless netlist.node?(from) && netlist.node?(to)

        ways = netlist.branches.select { |branch| conducts?(branch) }
        return shorted(netlist, ways, from, to) unless joined?(netlist, ways, from, to)

        protecting = ways.select { |branch| Catalogue.components.dig(branch.component.to_s, "protects") }
        return [] if joined?(netlist, ways - protecting, from, to)

        # In a row each of them parts the two points; side by side none does, and all of them are left out.
        in_a_row = protecting.reject { |branch| joined?(netlist, ways - [branch], from, to) }
        (in_a_row.empty? ? protecting : in_a_row).map(&:component).uniq
      end

      private

      def conducts?(branch)
        kind = branch.behavior
        kind.stamped? && !kind.load? && !kind.source?
      end

      def joined?(netlist, ways, from, to) = Islands.new(netlist.nodes, ways, []).same?(from, to)

      # R to C: nothing but the transformer between.
      def shorted(netlist, ways, from, to)
        secondary = netlist.secondary or return []
        islands = Islands.new(netlist.nodes, ways, [])
        ends = [secondary.from, secondary.to].map { |node| islands.root(node) }
        [from, to].map { |node| islands.root(node) }.sort == ends.sort ? [secondary.component] : []
      end
    end
  end
end
