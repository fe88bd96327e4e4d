# frozen_string_literal: true

module Gorvant
  # One loop unrolled over the whole width, station by station from R to C: above each what the meter should read and
  # what it read, under it its name.
  class FocusView
    WIDTH = 924
    STEP = 100
    FIRST = 62
    ROW = 150
    LINE_Y = 74 # from the top of a row to its line
    WORDS = 92 # pixels for a line of words under a station
    DEVICE = 56

    # load: code of the loop; taken: { node, or two with a bar between => words of the reading that stands there }.
    # Raises UnknownBranch.
    def self.scene(trace, load:, taken: {}) = new(trace, load, taken).scene

    def initialize(trace, load, taken)
      @trace = trace
      @taken = taken
      @pen = Pen.new(trace)
      @string = LoopString.of(trace, load)
    end

    def scene
      stops = @string.beads.reject { |bead| bead.kind == "cable" }
      string(stops)
      rows = (stops.size / per_row.to_f).ceil
      Scene.new(
        view: "focus",
        title: title,
        width: WIDTH,
        height: rows * ROW,
        links: @pen.links,
        stations: @pen.stations,
        labels: @pen.labels
      )
    end

    private

    # Points are read to C, unless it says to what.
    def title
      call = Catalogue.calls.fetch(@trace.condition.call).fetch("title")
      to = ", V to #{@trace.netlist.label(@string.home)}" if @string.home && @string.home != Assembly::HOME
      "#{@trace.rig.name}: #{@string.title}, #{call}#{to}"
    end

    def string(stops)
      places = stops.each_index.map { |i| [FIRST + (STEP * (i % per_row)), (ROW * (i / per_row)) + LINE_Y] }
      placed = stops.zip(places)
      placed.each { |bead, (x, y)| stop(bead, x, y) }
      placed.each_cons(2) { |one, two| wire(*one, *two) }
    end

    def per_row = ((WIDTH - (FIRST * 2)) / STEP) + 1

    def stop(bead, x, y)
      bead.nodes.size == 1 ? point(bead, x, y) : device(bead, x, y)
      words(bead).each_with_index do |line, i|
        @pen.label(
          line,
          x,
          y + 36 + (i * 15),
          anchor: "middle",
          size: 13,
          weight: i.zero? ? TextSize::BOLD : TextSize::PLAIN,
          role: "name",
          station: nil
        )
      end
      @pen.label(expected(bead), x, y - 28, anchor: "middle", size: 14, weight: TextSize::BOLD, role: "reading")
      taken = @taken[bead.nodes.sort.join("|")]
      @pen.label(taken, x, y - 46, anchor: "middle", size: 13, role: "taken") if taken
    end

    def point(bead, x, y)
      state = bead.state
      @pen.mark(
        bead.id,
        bead.nodes,
        x,
        y,
        strokes: Symbols.terminal(state == "live"),
        spoken: "#{bead.label}, #{Catalogue.words("state.#{state}")}, #{expected(bead)}"
      )
    end

    def device(bead, x, y)
      branch = @trace.netlist[bead.id]
      pill = branch.load?
      strokes =
        (
          if pill
            Symbols.box(DEVICE, 32, branch.kind == :coil ? 16 : 9)
          else
            Symbols.box(DEVICE, 32) + Symbols.of(branch, closed: bead.closed)
          end
        )
      @pen.put(branch, [x, y], [DEVICE, 32], strokes: strokes, label: bead.label)
      if pill && branch.id != "THERMOSTAT"
        @pen.label(
          branch.id.split(".").first,
          x,
          y + 5,
          anchor: "middle",
          size: 12,
          weight: TextSize::BOLD,
          role: "name",
          station: branch.id
        )
      end
    end

    # "outdoor Y" in lines that fit under a station.
    def words(bead)
      text = bead.label.sub(/\A\S+ · /, "").sub(" at the thermostat", ", thermostat")
      text
        .split
        .each_with_object([+""]) do |word, lines|
          joined = "#{lines.last} #{word}".strip
          if TextSize.width(joined, 13, TextSize::BOLD) > WORDS && !lines.last.empty?
            lines << word
          else
            lines.last.replace(joined)
          end
        end
    end

    # To where the loop goes home for a point, across for a device.
    def expected(bead)
      first, second = bead.nodes
      volts = @trace.reading(first, second || @string.home).first.volts_ac if second || @string.home
      return Catalogue.wording.fetch("class.undetermined") unless volts

      # Two stations stand beside each other: of line voltage no more than there is room for.
      "#{format(volts < 100 ? "%.1f" : "%.0f", volts)} V#{" across" if second}"
    end

    def wire(first, from, second, to)
      nodes = [first.nodes.last, second.nodes.first]
      points = way_between([from[0] + half(first), from[1]], [to[0] - half(second), to[1]])
      cables = cables_between(first, second)
      between = branches(*nodes)
      factory = cables.empty? ? factory_color(nodes, between) : nil
      @pen.run(
        between,
        *nodes,
        points,
        way: after_load?(first) ? "home" : "out",
        line: cables.any? ? "field" : "factory",
        color: cables.first&.color || factory
      )
      colors = [*cables.map(&:color), factory].compact
      color_names(colors, points) if colors.any?
    end

    def cables_between(first, second)
      beads = @string.beads
      beads[beads.index(first)..beads.index(second)].select { |bead| bead.kind == "cable" }
    end

    def factory_color(nodes, between) =
      @pen.factory_color(*nodes, *between.flat_map { |id| @trace.netlist[id].then { |one| [one.from, one.to] } })

    # Straight, or from the end of one row to the beginning of the next.
    def way_between(start, finish)
      return start, finish if start[1] == finish[1]

      [
        start,
        [WIDTH - 8, start[1]],
        [WIDTH - 8, finish[1] - LINE_Y + 2],
        [8, finish[1] - LINE_Y + 2],
        [8, finish[1]],
        finish
      ]
    end

    def color_names(colors, points)
      @pen.label(
        colors.map { |color| Naming.color_code(color) }.join(" "),
        (points[0][0] + points[1][0]) / 2.0,
        points[0][1] - 8,
        anchor: "middle",
        size: 12,
        role: "color"
      )
    end

    def half(bead) = bead.nodes.size > 1 ? DEVICE / 2 : 0

    def after_load?(bead) = @string.beads.index(bead) >= @string.beads.index { |one| one.kind == "load" }

    # What lies between two stops on this loop.
    def branches(from, to)
      steps = @string.steps
      first = steps.index { |step| step.from == from }
      last = steps.rindex { |step| step.to == to }
      first && last && first <= last ? steps[first..last].map { |step| step.branch.id } : []
    end
  end
end
