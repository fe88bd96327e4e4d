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
      @through = {}.compare_by_identity
      @takes, @ends = Array.new(2) { Hash.new { |all, node| all[node] = [] } }
      takes
      ends
      by_node = runs.select { |run| run[:branches].empty? }.group_by { |run| run[:nodes].first }
      by_node.each { |node, copper| share(node, copper) }
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
      @through[run] ||= begin
        branches = run[:branches].map { |id| @netlist[id] }
        flows = branches.all? { |branch| @solution.conducts?(branch) }
        flows ? branches.map { |branch| @solution.amps(branch) }.max * sign(*run[:nodes]) : 0.0
      end
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
      @takes[node].each_with_object(Hash.new(0.0)) { |(place, amps), taken| take(taken, points, place, amps) }
    end

    # { node => [[place, amps]] }: what devices take, then what wires do.
    def takes
      @carriers.each do |carrier|
        amps = @solution.amps(carrier.branch) * (carrier.branch.behavior.source? ? -1 : sign(*carrier.nodes))
        carrier.nodes.zip(carrier.ends, [amps, -amps]) { |node, place, out| @takes[node] << [place, out] if place }
      end
      @runs.each do |run|
        from, upto = run[:nodes].values_at(0, -1)
        next if run[:branches].empty? || from == upto

        @takes[from] << [run[:points].first, through(run)]
        @takes[upto] << [run[:points].last, -through(run)]
      end
    end

    def take(taken, points, place, amps)
      near = points.min_by { |point| distance(point, place) }
      taken[near] += amps if near && distance(near, place) <= NEAR
    end

    def distance(one, other) = (one[0] - other[0]).abs + (one[1] - other[1]).abs

    # Walks the copper of a node from where most comes in: a stretch carries all that is taken beyond it.
    def share(node, copper)
      corners = copper.flat_map { |run| run[:points] } + @ends[node]
      stretches =
        copper.flat_map { |run| run[:points].each_cons(2).flat_map { |from, to| cut(run, from, to, corners) } }
      points = stretches.flat_map { |_run, from, to| [from, to] }.uniq
      taken = taken(node, points)
      beside = beside(stretches)
      seen = {}
      points
        .sort_by
        .with_index { |point, i| [taken[point], i] }
        .each { |root| walk(root, nil, beside, taken, seen) unless seen[root] }
    end

    # { point => [stretch that ends there] }
    def beside(stretches)
      stretches.each_with_object(Hash.new { |hash, point| hash[point] = [] }) do |stretch, beside|
        stretch.last(2).each { |point| beside[point] << stretch }
      end
    end

    # { node => [[x, y]] } where wires and devices of it end.
    def ends
      @runs.each do |run|
        run[:nodes].zip(run[:points].values_at(0, -1)) { |node, at| @ends[node] << at if at } if run[:branches].any?
      end
      @carriers.each { |carrier| carrier.nodes.zip(carrier.ends) { |node, at| @ends[node] << at if at } }
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
