# frozen_string_literal: true

module Gorvant
  # A part of a netlist that no branch joins to the rest: low voltage, or line voltage. Compiled once; solved for any
  # set of closed branches. Sections with a transformer's secondary come after the section of its primary.
  class Section
    # Keeps every point tied, so that the matrix stays solvable; far under what matters to a reading.
    SHUNT_SIEMENS = 1e-12

    # States whose answers are kept, and sets of broken branches whose factors are.
    MOST_ANSWERS = 256
    # Writing a section out costs about as much as a hundred solves.
    STRAIGHT_AFTER_SOLVES = 150

    attr_reader :nodes, :branches, :reference, :names, :switching_ids

    class << self
      # like: a netlist that this one is a copy of; moved: the branches in which they differ. Sections that none of them
      # touches are taken over, with all they know.
      def split(netlist, like = nil, moved = [])
        ends = moved.flat_map { |branch| [branch.from, branch.to] }.uniq
        touched, kept = like ? like.sections.partition { |section| section.touches?(ends) } : [[], []]
        made = make(netlist, netlist.nodes - kept.flat_map(&:nodes), touched)
        (kept + made).sort_by { |section| [section.follower? ? 1 : 0, section.reference] }
      end

      private

      def make(netlist, nodes, touched)
        stamped =
          nodes
            .flat_map { |node| netlist.branches_at(node) }
            .uniq(&:id)
            .select { |branch| branch.behavior.stamped? }
            .sort_by(&:id)
        islands = Islands.new(nodes, stamped, netlist.references)
        by_root = stamped.group_by { |branch| islands.root(branch.from) }
        nodes
          .group_by { |node| islands.root(node) }
          .map { |root, members| new(members, by_root.fetch(root, []), islands.anchor(root) || members.first, touched) }
      end
    end

    # others: sections of which one may be of the same shape, whose plan then serves.
    def initialize(nodes, branches, reference, others = [])
      @nodes = nodes
      @branches = branches
      @reference = reference
      @index = (nodes - [reference]).each_with_index.to_h
      @sources = branches.select { |branch| branch.behavior.source? }
      @follower = branches.any? { |branch| branch.kind == :secondary }
      @heat = { solves: 0, code: nil }
      @answers = {} # { [flags, broken, drives] => unknowns }
      @bases = {} # { broken => [diagonal, off] }
      compile(others)
      freeze
    end

    def touches?(ends) = ends.any? { |node| @index.key?(node) || node == reference }

    # Whether its volts follow another section's, through a transformer.
    def follower? = @follower
    def node_count = @index.size
    # Those of the ids that are branches of this section.
    def broken(ids) = ids.to_a.select { |id| @rows.key?(id) }

    # Volts at every node: { node => volts }, the reference at 0.
    # closed: { branch id => bool } for every switching branch. open: ids of other branches that are broken.
    # volts: what earlier sections found, for secondaries. scale: { branch id => factor on its resistance } or nil.
    def solve(closed, open: nil, volts: {}, scale: nil)
      unknowns = factor_and_solve(closed, open, volts, scale)
      answer = { reference => 0.0 }
      @names.each_with_index { |name, position| answer[name] = unknowns[position] }
      answer
    end

    # The same as an array by position in `names`, worked out anew.
    def factor_and_solve(closed, open = nil, volts = nil, scale = nil)
      flags = switching_ids.map { |id| closed[id] }
      broken = open ? broken(open) : []
      return solved(flags, broken, drives(volts)) unless scale

      diagonal, off = factored(flags, broken, scale)
      @plan.substitute(diagonal, off, currents(drives(volts), scale, broken), @first_right)
    end

    # The same for flags: whether each of `switching_ids` is closed, and broken: ids of its own branches alone. A
    # section that follows no other serves many netlists and keeps its answers, so nobody is to change one.
    def unknowns(flags, broken, volts)
      drives = drives(volts)
      return solved(flags, broken, drives) if follower?

      @answers[[flags, broken, drives]] ||= begin
        @answers.shift if @answers.size >= MOST_ANSWERS
        solved(flags, broken, drives).freeze
      end
    end

    # Resistance seen between pairs of nodes with the sources at rest: yields a table { node => { node => ohms to it }
    # }, as columns of the inverse. Source: two-port theory, Thévenin.
    def inverse_columns(of_nodes, closed, open: nil)
      diagonal, off = factored(switching_ids.map { |id| closed[id] }, open ? broken(open) : [])
      of_nodes.to_h do |node|
        unit = Array.new(@plan.size, 0.0)
        column = @position[node]
        next node, {} unless column

        unit[column] = 1.0
        @plan.substitute(diagonal, off, unit)
        [node, @names.zip(unit).to_h]
      end
    end

    protected

    attr_reader :shape, :plan

    private

    def compile(others)
      plan_order(others)
      @rows = branches.to_h { |branch| [branch.id, row(branch)] }
      @always, @switching = branches.partition { |branch| !branch.switching? }
      @switching_ids = @switching.map(&:id).freeze
      @switching = @switching.map { |branch| @rows[branch.id] }
      base([])
    end

    def plan_order(others)
      driven, moving = [@sources, branches.select(&:switching?)].map { |list| all_ends(list).flatten.uniq }
      @shape = [@index.size, all_ends(branches).select { |ends| ends.size == 2 }, driven, moving].freeze
      @plan =
        others.find { |section| section.shape == @shape }&.plan ||
          plan_like(akin(others), @index.values - moving, driven)
      @first_right = driven.map { |node| @plan.position[node] }.min || 0
      @position = @index.transform_values { |index| @plan.position[index] }
      @names = @position.keys.sort_by { |node| @position[node] }
    end

    def plan_like(other, fixed, last) = Plan.new(@index.size, @shape[1], fixed: fixed, last: last, akin: other&.plan)

    # Unknowns at the ends of a branch, without the reference.
    def ends(branch) = [@index[branch.from], @index[branch.to]].compact
    def all_ends(list) = list.map { |branch| ends(branch) }

    # One of the same unknowns, sources and switches, with other branches between them.
    def akin(others) = others.find { |section| [0, 2, 3].all? { |part| section.shape[part] == @shape[part] } }

    # [position of from or nil, position of to or nil, slot or nil, siemens]
    def row(branch)
      from = @position[branch.from]
      to = @position[branch.to]
      slot = from && to && @plan.slot(@index[branch.from], @index[branch.to])
      [from, to, slot, branch.behavior.siemens(branch)]
    end

    def stamp_all(chosen, scale)
      diagonal = Array.new(@plan.size, SHUNT_SIEMENS)
      off = Array.new(@plan.slot_count, 0.0)
      chosen.each do |branch|
        from, to, slot, siemens = @rows[branch.id]
        siemens /= scale[branch.id] if scale&.key?(branch.id)
        add(diagonal, off, from, to, slot, siemens)
      end
      [diagonal, off]
    end

    def add(diagonal, off, from, to, slot, siemens)
      diagonal[from] += siemens if from
      diagonal[to] += siemens if to
      off[slot] -= siemens if slot
    end

    # Electromotive force of each source.
    def drives(volts) = @sources.map { |branch| branch.behavior.volts_ac(branch, volts) }

    # The innermost work of the product.
    def solved(flags, broken, drives)
      return straight_line.solve(flags, drives) if follower? && broken.empty? && hot?

      diagonal, off = factored(flags, broken)
      @plan.substitute(diagonal, off, currents(drives, nil, broken), @first_right)
    end

    # Written out once it has been solved often enough to be worth it. Complex sections keep to the loops.
    def hot? = (@heat[:solves] += 1) > STRAIGHT_AFTER_SOLVES

    def straight_line
      @heat[:code] ||= StraightLine.new(
        @plan,
        base([]),
        @switching,
        @sources.map { |branch| @rows[branch.id].values_at(0, 1, 3) },
        @first_right
      )
    end

    # What never switches, factored beforehand once for each set of broken branches: [diagonal, off].
    def base(broken)
      @bases[broken] ||= begin
        @bases.shift if @bases.size >= MOST_ANSWERS
        stamp_all(
          broken.empty? ? @always : @always.reject { |branch| broken.include?(branch.id) },
          nil
        ).tap { |stamped| @plan.factor(*stamped, 0, @plan.fixed_count) }
      end
    end

    # [diagonal, off] ready for substitution.
    def factored(flags, broken, scale = nil)
      diagonal, off =
        scale ? stamp_all(@always.reject { |branch| broken.include?(branch.id) }, scale) : base(broken).map(&:dup)
      @switching.each_with_index do |(from, to, slot, siemens), i|
        add(diagonal, off, from, to, slot, siemens) if flags[i]
      end
      @plan.factor(diagonal, off, scale ? 0 : @plan.fixed_count)
      [diagonal, off]
    end

    # Norton currents of the sources.
    def currents(drives, scale, broken)
      right = Array.new(@plan.size, 0.0)
      @sources.each_with_index do |branch, i|
        next if broken.include?(branch.id)

        from, to, _slot, siemens = @rows[branch.id]
        siemens /= scale[branch.id] if scale&.key?(branch.id)
        amps = drives[i] * siemens
        right[to] += amps if to
        right[from] -= amps if from
      end
      right
    end
  end
end
