# frozen_string_literal: true

module Gorvant
  # Sets of nodes joined by what conducts (union-find). A set without a reference floats.
  class Islands
    # branches conduct; nodes are all nodes; references are those at 0 V.
    def initialize(nodes, branches, references)
      @parent = nodes.to_h { |node| [node, node] }
      branches.each { |branch| @parent[root(branch.from)] = root(branch.to) }
      # { root => reference }.
      @anchors = references.reverse.filter_map { |node| [root(node), node] if @parent.key?(node) }.to_h
    end

    def root(node)
      parent = @parent
      node = parent[node] = parent[parent[node]] while parent[node] != node
      node
    end

    def same?(first, second) = root(first) == root(second)
    def floating?(node) = !@anchors.key?(root(node))
    # The reference that holds the set of this root, or nil.
    def anchor(root) = @anchors[root]
    # { root => [nodes] } of the sets that no supply holds.
    def floating = @parent.keys.group_by { |node| root(node) }.except(*@anchors.keys)
  end
end
