# frozen_string_literal: true

module Gorvant
  # Which way current flows along what a drawing draws, so that no arrow lies: from the source through what conducts to
  # the load, none on a live stub behind an open contact, none on a dead way. What is drawn of one node is a tree of
  # copper; what devices and wires take from it at its points tells what each stretch carries. Source: Kirchhoff's
  # current law.
  class Flow
    LEAST_AMPS = 0.001 # less is no load: a meter's input, a leak
    NEAR = 60 # pixels from a device to the copper that it is drawn beside
    # A device with its two ends on the drawing, and the nodes there.
    Carrier = Struct.new(:branch, :ends, :nodes)

    # runs: as Pen keeps them; carriers: [Carrier].
    def initialize(runs, carriers, solution)
      @solution = solution
      @netlist = solution.netlist
      @runs = runs
      @carriers = carriers
      @pieces = {} # { run => [[from, to, amps]] } of copper
      @by_node = runs.select { |run| run[:branches].empty? }.group_by { |run| run[:nodes].first }
      @by_node.each { |node, copper| share(node, copper) }
    end

    # [{ x, y, angle }] along a run.
    def chevrons(run)
      return pieces(run) if run[:branches].empty?

      amps = through(run)
      return [] if amps.abs < LEAST_AMPS

      Geometry.chevrons(amps.positive? ? run[:points] : run[:points].reverse)
    end

    private

    def pieces(run)
      carried = @pieces.fetch(run, []).reject { |_from, _to, amps| amps.abs < LEAST_AMPS }
      carried.flat_map { |from, to, amps| Geometry.chevrons(amps.positive? ? [from, to] : [to, from]) }
    end

    # Amps from a run's first point to its last.
    def through(run)
      branches = run[:branches].map { |id| @netlist[id] }
      return 0.0 unless branches.all? { |branch| @solution.conducts?(branch) }

      branches.map { |branch| @solution.amps(branch) }.max * sign(*run[:nodes])
    end

    # 1 where current goes from the first node to the second.
    def sign(first, second)
      volts = @solution.volts.values_at(first, second)
      drop = volts[0] - volts[1]
      towards = drop.is_a?(Complex) ? (volts[0] * drop.conjugate).real : drop
      towards.negative? ? -1 : 1
    end

    # What is taken from a node at a point: { [x, y] => amps, positive where it leaves the copper }.
    def taken(node, points)
      taken = Hash.new(0.0)
      @carriers.each do |carrier|
        amps = @solution.amps(carrier.branch) * (carrier.branch.behavior.source? ? -1 : sign(*carrier.nodes))
        carrier.nodes.each_with_index do |one, i|
          take(taken, points, carrier.ends[i], i.zero? ? amps : -amps) if one == node && carrier.ends[i]
        end
      end
      @runs.each { |run| take_by_run(taken, points, run, node) }
      taken
    end

    def take_by_run(taken, points, run, node)
      from, upto = run[:nodes].values_at(0, -1)
      return if run[:branches].empty? || from == upto || !run[:nodes].include?(node)

      amps = through(run)
      take(taken, points, run[:points].first, amps) if from == node
      take(taken, points, run[:points].last, -amps) if upto == node
    end

    def take(taken, points, place, amps)
      near = points.min_by { |point| distance(point, place) }
      taken[near] += amps if near && distance(near, place) <= NEAR
    end

    def distance(one, other) = (one[0] - other[0]).abs + (one[1] - other[1]).abs

    # Walks the copper of a node from where most comes in: a stretch carries all that is taken beyond it.
    def share(node, copper)
      corners = copper.flat_map { |run| run[:points] } + ends_at(node)
      stretches =
        copper.flat_map { |run| run[:points].each_cons(2).flat_map { |from, to| cut(run, from, to, corners) } }
      points = stretches.flat_map { |_run, from, to| [from, to] }.uniq
      taken = taken(node, points)
      beside = Hash.new { |hash, point| hash[point] = [] }
      stretches.each { |stretch| [stretch[1], stretch[2]].each { |point| beside[point] << stretch } }
      seen = {}
      points
        .sort_by
        .with_index { |point, i| [taken[point], i] }
        .each { |root| walk(root, nil, beside, taken, seen) unless seen[root] }
    end

    # Where wires and devices of this node end.
    def ends_at(node)
      runs =
        @runs
          .reject { |run| run[:branches].empty? }
          .flat_map do |run|
            [run[:points].first, run[:points].last].zip(run[:nodes]).select { |_at, one| one == node }.map(&:first)
          end
      runs +
        @carriers.flat_map do |carrier|
          carrier.ends.zip(carrier.nodes).select { |at, one| at && one == node }.map(&:first)
        end
    end

    # A stretch in pieces, at every corner that lies on it.
    def cut(run, from, to, corners)
      on = corners.select { |corner| on?(corner, from, to) }
      stops = [from, *on, to].uniq.sort_by { |point| distance(point, from) }
      stops.each_cons(2).map { |a, b| [run, a, b] }
    end

    def on?(point, from, to)
      point[0].between?(*[from[0], to[0]].minmax) && point[1].between?(*[from[1], to[1]].minmax) &&
        (from[0] == to[0] ? point[0] == from[0] : point[1] == from[1])
    end

    # Returns what is taken at a point and beyond it.
    def walk(point, came_by, beside, taken, seen)
      seen[point] = true
      taken[point] +
        beside[point].sum do |stretch|
          next 0.0 if stretch.equal?(came_by)

          run, from, to = stretch
          other = from == point ? to : from
          next 0.0 if seen[other]

          amps = walk(other, stretch, beside, taken, seen)
          (@pieces[run] ||= []) << [from, to, from == point ? amps : -amps]
          amps
        end
    end
  end
end
