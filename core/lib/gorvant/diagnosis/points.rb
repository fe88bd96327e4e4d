# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # The nodes of a netlist by number, and what joins them: made once for many solutions, since asking for every pair
    # of points by name would take longer than solving.
    class Points
      attr_reader :index, :sections

      # like: Points of a netlist with the same nodes, or nil.
      def initialize(netlist, like = nil)
        @netlist = netlist
        @nodes = netlist.nodes
        same = like && like.nodes == @nodes
        @index = same ? like.index : @nodes.each_with_index.to_h
        @sections = same ? like.sections : number_sections
        stamped = netlist.branches.select { |branch| branch.behavior.stamped? }
        @ends = stamped.map { |branch| [@index[branch.from], @index[branch.to], branch.id, branch.switching?] }
        @references = netlist.references.filter_map { |node| @index[node] }
      end

      # [volts] by number.
      def volts(solution) = @nodes.map { |node| solution.volts[node] }

      # [number of the set it is joined to] by number, and { set => true } of those that a supply holds.
      def sets(solution)
        parent = (0...@nodes.size).to_a
        closed = solution.closed
        open = solution.open
        @ends.each do |from, to, id, switching|
          next unless switching ? closed[id] : !open.include?(id)

          parent[root(parent, from)] = root(parent, to)
        end
        roots = parent.each_index.map { |i| root(parent, i) }
        [roots, @references.to_h { |i| [roots[i], true] }]
      end

      protected

      attr_reader :nodes

      private

      def root(parent, i)
        i = parent[i] = parent[parent[i]] while parent[i] != i
        i
      end

      def number_sections
        of = Array.new(@nodes.size)
        @netlist.sections.each_with_index { |section, n| section.nodes.each { |node| of[@index[node]] = n } }
        of
      end
    end
  end
end
