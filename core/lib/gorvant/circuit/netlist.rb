# frozen_string_literal: true

require "did_you_mean"

module Gorvant
  # Nodes and the branches between them, checked and frozen when made. A node is one electrical point: every terminal,
  # conductor end and device tab has its own. Several references are allowed, one for each separate supply.
  class Netlist
    attr_reader :nodes, :branches, :references, :couplings, :labels, :ties, :switching, :fuses, :movers

    # Yields a Builder. references are the nodes that count as 0 V, one for each supply.
    def self.build(references:, ties: {})
      builder = Builder.new
      yield builder
      new(references: Array(references), branches: builder.branches, labels: builder.labels, ties: ties)
    end

    # branches in any order; the answer does not depend on it. labels: { node => words for a person }.
    # ties: { node => node } of separate sections that are one conductor in truth, and carry nothing between them.
    # like: a netlist that this one is a copy of; moved: the branches in which they differ. What did not change is taken
    # over.
    def initialize(references:, branches:, labels: {}, ties: {}, like: nil, moved: branches)
      @references = references.freeze
      @labels = labels.freeze
      @ties = ties.freeze
      @branches = branches.sort_by(&:id).freeze
      @by_id = @branches.to_h { |branch| [branch.id, branch] }.freeze
      check(moved)
      @touching = touching(like, moved)
      @nodes = (@touching.keys | labels.keys).sort.freeze
      @switching = pick(:switching, like, moved, &:switching?)
      @fuses = pick(:fuses, like, moved) { |branch| branch.kind == :fuse }
      @movers = pick(:movers, like, moved) { |branch| branch.behavior.works_above_volts_ac(branch, false) }
      @couplings = pick(:couplings, like, moved) { |branch| !branch.behavior.stamped? }
      @compiled = { like: like, moved: like ? moved : [] } # until it is solved; then :sections and :relays
      freeze
    end

    # What solving needs is worked out when it is first asked for: a netlist on the way to another is never solved.
    def sections = compiled(:sections) { |like, moved| Section.split(self, like, moved).freeze }
    def relays = compiled(:relays) { |like, _moved| Relays.new(self, like&.relays) }
    def compiled? = @compiled.key?(:relays)

    def [](id) = @by_id[id] || raise(UnknownBranch.of(id, @by_id.keys))
    def branch?(id) = @by_id.key?(id)
    def node?(node) = @touching.key?(node) || labels.key?(node)
    def branches_at(node) = @touching[node]
    def branches_by_node = @touching
    def loads = branches.select(&:load?)
    def label(node) = labels.fetch(node, node)
    # The transformer's secondary, or nil where the circuit has none.
    def secondary = branches.find { |branch| branch.kind == :secondary }

    # The node itself, or UnknownNode with the nearest known name.
    def fetch_node(node) = node?(node) ? node : raise(UnknownNode.of(node, nodes))

    # [the netlist from which to take over, the branches in which this one differs from it]
    def forebear
      like, moved = @compiled.values_at(:like, :moved)
      return like, moved || [] if like.nil? || like.compiled?

      further, more = like.forebear
      [further, more + moved]
    end

    # A copy with branches replaced (same id) or added, and others taken out by id.
    def with(*changed, without: [])
      kept = @by_id.except(*without).merge(changed.to_h { |branch| [branch.id, branch] })
      moved = changed + @by_id.values_at(*changed.map(&:id), *without).compact
      self.class.new(
        references: references,
        branches: kept.values,
        labels: labels,
        ties: ties,
        like: self,
        moved: moved
      )
    end

    private

    def compiled(part)
      @compiled[part] ||= yield(*forebear).tap { @compiled.delete(:like) if part == :relays }
    end

    # Branches of one kind, in order of id.
    def pick(name, like, moved, &rule) =
      like && moved.none?(&rule) ? like.public_send(name) : @branches.select(&rule).freeze

    # { node => [branches], in order of id }
    def touching(like, moved)
      all = like ? like.branches_by_node.dup : {}
      moved.flat_map { |branch| [branch.from, branch.to] }.uniq.each { |node| all.delete(node) } if like
      changed = like ? @branches.select { |branch| !all.key?(branch.from) || !all.key?(branch.to) } : @branches
      fresh =
        changed.each_with_object({}) do |branch, lists|
          [branch.from, branch.to].each { |node| (lists[node] ||= []) << branch unless all.key?(node) }
        end
      all.merge!(fresh).tap { |lists| lists.default = [].freeze }.freeze
    end

    def check(moved)
      branches.each_cons(2) { |a, b| raise DuplicateBranch.new(branch: a.id) if a.id == b.id }
      moved.each do |branch|
        raise BranchToItself.new(branch: branch.id, node: branch.from) if branch.from == branch.to

        branch.behavior.check(branch)
      end
      raise NoSource.new if branches.none? { |branch| branch.behavior.source? }
    end

    # Collects branches for the length of one block.
    class Builder
      attr_reader :branches, :labels

      def initialize
        @branches = []
        @labels = {}
      end

      # Names a node for a person.
      def name_node(node, words) = labels[node] = words

      def add(id, kind, from:, to:, component: nil, **props)
        branches << Branch.new(id: id, kind: kind, from: from, to: to, component: component, props: props.freeze)
      end

      Kind.registry.each_key { |kind| define_method(kind) { |id, **rest| add(id, kind, **rest) } }
    end
  end
end
