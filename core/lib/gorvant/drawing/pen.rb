# frozen_string_literal: true

module Gorvant
  # Draws connections and stations of a trace, each with its state, and knows nothing of where they should stand.
  class Pen
    HALF_LOAD = 34
    HALF_HEIGHT = 16
    HALF_DEVICE = 28
    NAME = 14

    attr_reader :stations, :labels

    # struck: component codes on the panel's diagram that are not fitted here.
    def initialize(trace, struck: [])
      @trace = trace
      @netlist = trace.netlist
      @solution = trace.solution
      @struck = struck
      @stations = []
      @labels = []
      @runs = []
      @carriers = []
    end

    # Copper of one node, drawn through points.
    def bus(node, *points, way: "out", line: "factory")
      points = Geometry.straightened(points)
      return if points.size < 2

      @runs << {
        id: "bus.#{node}.#{@runs.size}",
        branches: [],
        nodes: [node, node],
        points: points,
        way: way,
        line: line
      }
    end

    # A run of branches in series between two nodes.
    def run(branches, from, to, points, way: "out", color: nil, line: "factory", **more)
      points = Geometry.straightened(points)
      return if points.size < 2

      @runs << {
        id: branches.first || "#{from}-#{to}",
        branches: branches,
        nodes: [from, to],
        points: points,
        way: way,
        color: color,
        line: line,
        **more
      }
    end

    # Ids of the wires that lead from one node to another, in order, by the fewest; empty when none do.
    def wires(from, to)
      came_by = wired(from)
      return [] unless came_by.key?(to)

      ids = []
      until to == from
        branch = came_by.fetch(to)
        ids << branch.id
        to = branch.other_end(to)
      end
      ids.reverse
    end

    # A component's name is the maker's own, where the rig has it.
    def label(text, x, y, **how) =
      @labels << Label.new(text: how[:role] == "name" ? Naming.code(@trace.rig, text) : text, x: x, y: y, **how)

    # Color of the maker's wire on one of these points, nil where nobody noted it.
    def factory_color(*nodes) = nodes.filter_map { |node| @trace.rig.factory_colors[node] }.first

    # place: where its name stands: :corner (up to the right) or :above.
    def terminal(node, text, x, y, place: :corner, id: node, size: NAME)
      state = @trace.state(node)
      add(
        id: id,
        part: node,
        kind: "terminal",
        label: text,
        x: x,
        y: y,
        width: 20,
        height: 20,
        nodes: [node],
        ends: [[x, y]],
        state: state,
        far_state: state,
        strokes: Symbols.terminal(state == "live"),
        spoken: "#{@netlist.label(node)}, #{Catalogue.words("state.#{state}")}"
      )
      label(
        text,
        *(place == :above ? [x, y - 14] : [x + 14, y - 10]),
        anchor: place == :above ? "middle" : "start",
        size: size,
        weight: TextSize::BOLD,
        role: "terminal",
        station: id
      )
    end

    # A point of its own, named elsewhere.
    def mark(id, nodes, x, y, strokes:, spoken:)
      state = @trace.state(nodes.first)
      add(
        id: id,
        part: nodes.first,
        kind: "terminal",
        label: id,
        x: x,
        y: y,
        width: 20,
        height: 20,
        nodes: nodes,
        ends: [[x, y]],
        state: state,
        far_state: state,
        strokes: strokes,
        spoken: spoken
      )
    end

    # A two-ended switch, contact or fuse as a box with its name in it. upright: its ends are above and below.
    def device(id, x, y, text:, width: HALF_DEVICE * 2, upright: false)
      branch = @netlist[id]
      closed = @solution.conducts?(branch)
      put(
        branch,
        [x, y],
        [width, HALF_HEIGHT * 2],
        strokes: Symbols.box(width, HALF_HEIGHT * 2),
        upright: upright,
        label: text
      )
      label(
        text,
        x,
        y + (closed ? 5 : -1),
        anchor: "middle",
        size: NAME,
        weight: TextSize::BOLD,
        role: "name",
        station: id
      )
      label("open", x, y + 12, anchor: "middle", size: 12, role: "sub", station: id) unless closed
    end

    def source(id, x, y, sub)
      put(
        @netlist[id],
        [x, y],
        [HALF_LOAD * 2, HALF_HEIGHT * 2],
        strokes: Symbols.box(HALF_LOAD * 2, HALF_HEIGHT * 2),
        label: id,
        sub: sub
      )
      label(id, x, y - 2, anchor: "middle", size: NAME, weight: TextSize::BOLD, role: "name", station: id)
      label(sub, x, y + 11, anchor: "middle", size: 12, role: "sub", station: id)
    end

    # A load with its name in it.
    def pill(id, x, y, width: HALF_LOAD * 2, height: HALF_HEIGHT * 2, text: id)
      put(
        @netlist[id],
        [x, y],
        [width, height],
        strokes: Symbols.box(width, height, @netlist[id].kind == :coil ? height / 2 : 9),
        label: text
      )
      label(text, x, y + 5, anchor: "middle", size: NAME, weight: TextSize::BOLD, role: "name", station: id)
    end

    # A station of a branch at [x, y], of [width, height], drawn by the given strokes; its words are the caller's.
    def put(branch, at, size, strokes:, label:, upright: false, id: branch.id, **more)
      x, y = at
      width, height = size
      source = branch.kind == :secondary
      reach = upright ? [[0, -height / 2], [0, height / 2]] : [[-width / 2, 0], [width / 2, 0]]
      ends = reach.map { |dx, dy| [x + dx, y + dy] }
      nodes = source ? [branch.to, branch.from] : [branch.from, branch.to]
      @carriers << Flow::Carrier.new(branch, ends, nodes)
      add(
        id: id,
        part: branch.component || branch.id,
        kind: source ? "source" : branch.kind.to_s,
        label: label,
        x: x,
        y: y,
        width: width,
        height: height,
        nodes: nodes,
        ends: ends,
        state: @trace.state(nodes[0]),
        far_state: @trace.state(nodes[1]),
        component: branch.component,
        strokes: strokes,
        **standing(branch, source),
        **more
      )
    end

    # How a branch stands now.
    def standing(branch, source)
      closed = branch.switching? ? @solution.conducts?(branch) : nil
      working = branch.load? || source ? works?(branch) : nil
      struck = @struck.include?(branch.component)
      {
        closed: closed,
        working: working,
        broken: !struck && closed == false && @trace.breaks?(branch),
        struck: struck,
        spoken: spoken(branch, closed, working)
      }
    end

    # A point with no branch of its own: a block that stands for something, with nodes to probe.
    def block(id, x, y, width:, height:, nodes:, spoken:, component: nil)
      states = nodes.map { |node| @trace.state(node) }
      add(
        id: id,
        part: component || id,
        kind: "load",
        label: id,
        x: x,
        y: y,
        width: width,
        height: height,
        nodes: nodes,
        ends: nodes.map { [x, y] },
        state: states.first || "dead",
        far_state: states.last || "dead",
        component: component,
        strokes: Symbols.box(width, height, 4),
        spoken: spoken
      )
    end

    # Where the name of a break may stand, from its middle.
    BESIDE_GAP = [
      [14, 4, "start"],
      [-14, 4, "end"],
      [14, -12, "start"],
      [-14, -12, "end"],
      [14, 22, "start"],
      [-14, 22, "end"],
      [0, -16, "middle"],
      [0, 26, "middle"],
      [14, 38, "start"],
      [-14, 38, "end"]
    ].freeze

    # What a drawing of this trace is called.
    def title = "#{@trace.rig.name}: #{Catalogue.calls.fetch(@trace.condition.call).fetch("title")}"

    # All runs as Links, bridges over what they cross.
    def links
      uprights = Geometry.uprights(@runs.map { |run| run[:points] })
      @flow = Flow.new(@runs, @carriers, @solution)
      drawn = @runs.each_with_index.map { |run, i| link(run, Geometry.crossings(run[:points], uprights, i)) }
      drawn.select(&:gap).each { |link| name_gap(link, drawn) }
      drawn
    end

    private

    # { node => the wire by which one first comes to it } for all that wire alone joins to a node, nearest first.
    def wired(from)
      (@wired ||= {})[from] ||= begin
        found = { from => nil }
        queue = [from]
        while (node = queue.shift)
          @netlist
            .branches_at(node)
            .each do |branch|
              other = branch.other_end(node)
              next if branch.kind != :wire || found.key?(other)

              found[other] = branch
              queue << other
            end
        end
        found
      end
    end

    def works?(branch)
      if branch.kind == :secondary
        return @solution.volts_across(branch) > Catalogue.profile.dig("reading_classes", "about_0", "high")
      end

      @netlist.branch?("#{branch.id}.start") ? @trace.works?(branch.id) : @solution.working?(branch.id)
    end

    def spoken(branch, closed, working)
      return "#{branch.label}, #{closed ? "closed" : "open"}" unless closed.nil?

      title = Catalogue.components.dig(branch.id, "title") || branch.label
      return "#{title}, #{format("%.1f", @solution.volts_across(branch))} V" if branch.kind == :secondary

      if working.nil?
        title
      else
        "#{title}, #{working ? "on" : "off"}, #{format("%.1f", @solution.volts_across(branch))} V across it"
      end
    end

    def add(width:, height:, hit: nil, **fields)
      hit ||= [[width, Station::TOUCH].max, [height, Station::TOUCH].max]
      @stations << Station.new(width: width, height: height, hit: hit, **fields)
    end

    # The name of a break goes where it lies on nothing, or on as little as can be.
    def name_gap(link, drawn)
      words = ->((dx, dy, anchor)) do
        Label.new(
          text: link.gap[:label],
          x: link.gap[:x] + dx,
          y: link.gap[:y] + dy,
          anchor: anchor,
          weight: TextSize::BOLD,
          role: "break"
        )
      end
      boxes = @labels.map(&:box) + @stations.map(&:box) + drawn.flat_map(&:boxes)
      right = boxes.map { |box| box[2] }.max
      @labels << BESIDE_GAP
        .map(&words)
        .min_by
        .with_index do |label, i|
          outside = label.box[0].negative? || label.box[2] > right
          [boxes.count { |box| Geometry.overlap?(label.box, box) } + (outside ? 1 : 0), i]
        end
    end

    def link(run, crossings)
      broken = run[:branches].map { |id| @netlist[id] }.find { |branch| !@solution.conducts?(branch) }
      states = run[:nodes].map { |node| @trace.state(node) }
      first, second, middle = broken ? Geometry.split(run[:points]) : [run[:points], nil, nil]
      parts = [{ d: Geometry.path(first, crossings), state: states[0] }]
      parts << { d: Geometry.path(second, crossings), state: states[1] } if broken
      Link.new(
        **run.slice(:id, :branches, :nodes, :way, :line, :color, :sheath, :points, :marks).compact,
        parts: parts,
        struck: run.fetch(:struck, false),
        gap: broken && { x: middle[0].round(1), y: middle[1].round(1), label: short(broken, run[:color]) },
        chevrons: chevrons(run, broken, states),
        spoken: broken ? "#{broken.label} is broken" : nil
      )
    end

    # "YE", "splice": which one is plain from the drawing.
    def short(branch, color)
      return "splice" if branch.id.include?("/") && !branch.id.include?("/after_")

      color ? Naming.color_code(color) : branch.label.sub(/ (of|in|at the) .*/, "")
    end

    # Chevrons point the way that current flows: away from R. The way home is told by its line.
    def chevrons(run, broken, states)
      return [] if broken || run[:struck] || states[0] != "live" || run[:way] == "home"

      @flow.chevrons(run)
    end
  end
end
