# frozen_string_literal: true

module Gorvant
  # A part of a netlist that no branch joins to the rest: low voltage, or line voltage. Compiled once; solved for any
  # set of closed branches. Sections with a transformer's secondary come after the section of its primary.
  class Section
    # Keeps every point tied, so that the matrix stays solvable; far under what matters to a reading.
    SHUNT_SIEMENS = 1e-12

    # Contact states of line voltage whose answers are kept: a handful of relays, and no more.
    MOST_ANSWERS = 128
    # Writing a section out costs about as much as a hundred solves.
    STRAIGHT_AFTER_SOLVES = 150

    attr_reader :nodes, :branches, :reference

    # known: sections of an earlier netlist; those whose branches are the same objects are taken over, with all they know.
    def self.split(netlist, known = [])
      stamped = netlist.branches - netlist.couplings
      islands = Islands.new(netlist.nodes, stamped, netlist.references)
      by_root = stamped.group_by { |branch| islands.root(branch.from) }
      sections = netlist.nodes.group_by { |node| islands.root(node) }.map do |root, nodes|
        branches = by_root.fetch(root, [])
        known.find { |section| section.made_of?(nodes, branches) } || new(nodes, branches, netlist.references.find { |node| islands.root(node) == root } || nodes.first)
      end
      sections.sort_by { |section| [section.follower? ? 1 : 0, section.reference] }
    end

    def initialize(nodes, branches, reference)
      @nodes = nodes
      @branches = branches
      @reference = reference
      @index = (nodes - [reference]).each_with_index.to_h
      @sources = branches.select { |branch| branch.behaviour.source? }
      @follower = branches.any? { |branch| branch.kind == :secondary }
      @heat = { solves: 0, code: nil }
      @answers = {} # { [closed flags, broken ids] => { node => volts } }, for sections that follow nothing
      compile
      freeze
    end

    def made_of?(nodes, branches)
      self.branches.size == branches.size && self.nodes.size == nodes.size && self.branches.each_with_index.all? { |branch, i| branch.equal?(branches[i]) } && self.nodes == nodes
    end

    # Whether its volts follow another section's, through a transformer.
    def follower? = @follower
    # Ids of its switching branches.
    def switching_ids = @switching.map(&:first)
    def node_count = @index.size

    # Volts at every node: { node => volts }, the reference at 0.
    # closed: { branch id => bool } for every switching branch. open: ids of other branches that are broken.
    # volts: what earlier sections found, for secondaries. scale: { branch id => factor on its resistance } or nil.
    def solve(closed, open: nil, volts: {}, scale: nil)
      return named(factor_and_solve(closed, open, volts, scale)) if follower? || scale

      key = [@switching.map { |id, *| closed[id] }, open ? open.select { |id| @rows.key?(id) } : []]
      @answers.shift if @answers.size >= MOST_ANSWERS
      @answers[key] ||= named(factor_and_solve(closed, open, volts)).freeze
    end

    # The same as an array by position in `names`; the hot path of the benchmark.
    def factor_and_solve(closed, open = nil, volts = nil, scale = nil)
      return straight_line.solve(@switching.map { |id, *| closed[id] }, @sources.map { |branch| branch.behaviour.volts_ac(branch, volts) }) if hot? && usual?(open, scale)

      diagonal, off = factored(closed, open, scale)
      @plan.substitute(diagonal, off, currents(volts, scale, open), @first_right)
    end

    # Resistance seen between pairs of nodes with the sources at rest: yields a table { node => { node => ohms to it } },
    # as columns of the inverse. Source: two-port theory, Thévenin.
    def inverse_columns(of_nodes, closed, open: nil)
      diagonal, off = factored(closed, open, nil)
      of_nodes.to_h do |node|
        unit = Array.new(@plan.size, 0.0)
        column = @position[node]
        next [node, {}] unless column

        unit[column] = 1.0
        @plan.substitute(diagonal, off, unit)
        [node, @names.zip(unit).to_h]
      end
    end

    private

    def named(unknowns)
      answer = { reference => 0.0 }
      @names.each_with_index { |name, position| answer[name] = unknowns[position] }
      answer
    end

    def compile
      plan_order
      @rows = branches.to_h { |branch| [branch.id, row(branch)] }
      @always, @switching = branches.partition { |branch| !branch.switching? }
      @switching = @switching.map { |branch| [branch.id, *@rows[branch.id]] }
      @base = stamp_all(@always, nil)
      @plan.factor(*@base, 0, @plan.fixed_count)
    end

    def plan_order
      pairs = branches.filter_map { |branch| [@index[branch.from], @index[branch.to]] if @index[branch.from] && @index[branch.to] }
      driven = @sources.flat_map { |branch| [@index[branch.from], @index[branch.to]] }.compact.uniq
      moving = branches.select(&:switching?).flat_map { |branch| [branch.from, branch.to] }.uniq
      @plan = Plan.new(@index.size, pairs, fixed: @index.values - @index.values_at(*moving), last: driven)
      @first_right = driven.map { |node| @plan.position[node] }.min || 0
      @names = Array.new(@index.size)
      @position = @index.to_h { |node, index| [node, @plan.position[index]] }
      @position.each { |node, position| @names[position] = node }
    end

    # [position of from or nil, position of to or nil, slot or nil, siemens]
    def row(branch)
      from = @position[branch.from]
      to = @position[branch.to]
      slot = from && to && @plan.slot(@index[branch.from], @index[branch.to])
      [from, to, slot, branch.behaviour.siemens(branch)]
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

    # Whether only what switches may differ from what the section was compiled for.
    def usual?(open, scale) = scale.nil? && (open.nil? || open.empty? || open.none? { |id| @rows.key?(id) })

    # Written out once it has been solved often enough to be worth it. Complex sections keep to the loops.
    def hot? = @follower && (@heat[:solves] += 1) > STRAIGHT_AFTER_SOLVES

    def straight_line
      @heat[:code] ||= StraightLine.new(@plan, @base, @switching, @sources.map { |branch| @rows[branch.id].values_at(0, 1, 3) }, @first_right)
    end

    # [diagonal, off] ready for substitution. What never switches was factored beforehand, unless something there is broken
    # or scaled.
    def factored(closed, open, scale)
      usual = usual?(open, scale)
      diagonal, off = usual ? @base.map(&:dup) : stamp_all(open ? @always.reject { |branch| open.include?(branch.id) } : @always, scale)
      @switching.each { |id, from, to, slot, siemens| add(diagonal, off, from, to, slot, siemens) if closed[id] }
      @plan.factor(diagonal, off, usual ? @plan.fixed_count : 0)
      [diagonal, off]
    end

    # Norton currents of the sources.
    def currents(volts, scale, open)
      right = Array.new(@plan.size, 0.0)
      @sources.each do |branch|
        next if open&.include?(branch.id)

        from, to, _slot, siemens = @rows[branch.id]
        siemens /= scale[branch.id] if scale&.key?(branch.id)
        amps = branch.behaviour.volts_ac(branch, volts) * siemens
        right[to] += amps if to
        right[from] -= amps if from
      end
      right
    end
  end
end
