# frozen_string_literal: true

require_relative "ladder/way"
require_relative "ladder/group"

module Gorvant
  # The ladder schematic: left rail hot, right rail common, a rung for each load, parallel feeds as branches, contacts
  # tied to their coil by code. Low voltage first, line voltage under it.
  class Ladder
    WIDTH = 924
    LEFT = 34
    RIGHT = 890
    LOADS = 770
    ROW = 62
    HEAD = 78 # from the top of a ladder to its first rung
    BETWEEN = 40 # from one ladder to the next
    NAME = { size: 13, weight: TextSize::BOLD, anchor: "middle" }.freeze
    ABOVE = 18 # from a symbol's middle up to its name
    MOST_FEEDERS = 6

    LOW = %w[
      THERMOSTAT
      IFR
      CC
      CC2
      Y2S
      RVS
      RVR
      SEQ
      SEQ2
      HR
      HR2
      BIR
      GAS
      HGS
      BOARD
      DFT_IN
      APS_IN
      COIL_T
      AMB_T
      DFR
      DFR2
    ].freeze
    LINE = %w[TRAN.primary COMP COMP.start COMP2 OFM OFM.start RVS_LINE].freeze
    LINE_INDOORS = %w[BLOWER HTR HTR2].freeze
    NAMES = {
      "THERMOSTAT" => "T’STAT",
      "DFT_IN" => "BOARD",
      "APS_IN" => "BOARD",
      "COIL_T" => "coil t°",
      "AMB_T" => "air t°",
      "TRAN.primary" => "TRAN",
      "COMP.start" => "start",
      "OFM.start" => "start",
      "RVS_LINE" => "RVS",
      "BOARD.compressor" => "K",
      "BOARD.divert" => "LK",
      "BOARD.defrost" => "defrost",
      "CAP.herm" => "HERM",
      "CAP.fan" => "FAN"
    }.freeze
    OVER = {
      "DFT_IN" => "input of",
      "APS_IN" => "input of",
      "TRAN.primary" => "primary",
      "COMP.start" => "COMP",
      "OFM.start" => "OFM",
      "BOARD.compressor" => "board",
      "BOARD.divert" => "board",
      "BOARD.defrost" => "board",
      "CAP.herm" => "CAP",
      "CAP.fan" => "CAP"
    }.freeze

    # at_rest: contacts drawn as on the panel, not as they stand. struck: codes on the panel that are not fitted here.
    # only: codes of the loads to draw, nil for all.
    def self.scene(trace, at_rest: false, struck: [], only: nil) = new(trace, at_rest, struck, only).scene

    def initialize(trace, at_rest, struck, only)
      @trace = trace
      @netlist = trace.netlist
      @at_rest = at_rest
      @struck = struck
      @only = only
      @pen = Pen.new(trace, struck: struck)
      @bands = []
    end

    def scene
      y = ladder("low", "low voltage", LOW + (Options.across & Options.low), 0, low_reader) { |load| low_feeds(load) }
      y = ladder("line", "line voltage", line_loads, y.zero? ? 0 : y + BETWEEN, line_reader) { |load| line_feeds(load) }
      Scene.new(
        view: "ladder",
        title: @pen.title,
        width: WIDTH,
        height: y,
        bands: @bands,
        links: @pen.links,
        stations: @pen.stations,
        labels: @pen.labels
      )
    end

    private

    def line_loads = LINE + Options.line + LINE_INDOORS
    def low_rails = [%w[air_handler.R], %w[air_handler.C]]
    def line_rails = [[Assembly::LINE_HOT], [Assembly::LINE_HOME, Assembly::GROUND]]
    def low_reader = WayReader.new(@netlist, hot: low_rails[0], home: low_rails[1])
    def line_reader = WayReader.new(@netlist, hot: line_rails[0], home: line_rails[1])

    # Every way from R that no capacitor is part of.
    def low_feeds(load)
      loop = @trace.loop_of(load.id)
      [Assembly.by_design(loop.feeders).first(MOST_FEEDERS), loop.home]
    end

    # A start winding is fed through its capacitor, everything else past it. A furnace's loads go home to neutral.
    def line_feeds(load)
      loop = @trace.loop_of(load.id)
      start = load.id.end_with?(".start") || %w[SR].include?(load.id)
      feeders = loop.feeders.select { |steps| steps.any? { |step| step.branch.kind == :capacitor } == start }
      [feeders.first(start ? 2 : 3), loop.home]
    end

    # One ladder from y on; returns its foot, or 0 where it has no rung.
    def ladder(id, words, codes, top, reader, &block)
      groups = groups(codes, reader, &block)
      return top.zero? ? 0 : top - BETWEEN if groups.empty?

      @rails = id == "low" ? low_rails : line_rails
      y = top + HEAD
      y = supply(y) if id == "low" && @only.nil?
      groups.each { |group| y = draw(group, y, id) }
      foot = y - ROW + 34
      rails(id, top + 40, foot)
      @pen.label(words, WIDTH / 2, top + 20, anchor: "middle", size: 13, weight: TextSize::BOLD, role: "band")
      @bands << Band.new(id: id, x: 0, y: top, width: WIDTH, height: foot + 10 - top)
      foot + 10
    end

    def groups(codes, reader)
      codes
        .select { |code| @netlist.branch?(code) && wanted?(code) }
        .each_with_object([]) do |code, groups|
          load = @netlist[code]
          feeders, home = yield load
          ways = feeders.map { |steps| reader.read(load, steps, home) }
          ways = [reader.read(load, nil, home)] if ways.empty?
          ways = ways.uniq { |way| way.stops.map(&:key) }
          group = groups.reverse.find { |one| one.shares?(ways.first) }
          group ? ways.each { |way| group.add(way) } : groups << Group.new(ways)
          (group || groups.last).sort
        end
    end

    def wanted?(code) = @only.nil? || @only.include?(code) || @only.include?(code.split(".").first)

    def rails(id, top, foot)
      hot, home = @rails.map(&:first)
      @pen.bus(hot, [LEFT, top], [LEFT, foot], line: id == "low" ? "copper" : "line_voltage")
      @pen.bus(home, [RIGHT, top], [RIGHT, foot], way: "home", line: id == "low" ? "copper" : "line_voltage")
      { LEFT => id == "low" ? "R" : "L1", RIGHT => id == "low" ? "C" : "L2" }.each do |x, words|
        @pen.label(words, x, top - 8, **NAME, size: 16, role: "terminal")
      end
    end

    # What stands in R before the transformer, from the rail on; [x, node] where it ends.
    def supply_switches(x, y)
      codes = [("FLS" if @trace.rig[:float_switch] == "r"), ("FU" if @netlist.branch?("FU"))].compact
      codes
        .each_with_index
        .inject([LEFT, "air_handler.R"]) do |(from, node), (code, i)|
          at = x + (i * 90)
          @pen.bus(node, [at - Symbols::HALF, y], [from, y])
          symbol(@netlist[code], at, y, "low/#{code}")
          [at + Symbols::HALF, @netlist[code].from]
        end
    end

    # The transformer between the rails, with its fuse.
    def supply(y)
      source = @netlist["TRAN"]
      x = [110, 462]
      left = supply_switches(x[0], y)
      @pen.bus(left[1], [x[1] - 30, y], [left[0], y])
      @pen.put(
        source,
        [x[1], y],
        [60, 32],
        strokes: Symbols.box(60, 32) + Symbols.transformer,
        label: "TRAN",
        id: "low/TRAN"
      )
      @pen.label(
        "TRAN #{format("%g", @trace.rig[:transformer_va])} VA",
        x[1],
        y - 22,
        **NAME,
        role: "name",
        station: "low/TRAN"
      )
      @pen.bus(Assembly::HOME, [x[1] + 30, y], [RIGHT, y], way: "home")
      y + ROW
    end

    # Draws a group's rows; returns the y of the next group's first.
    def draw(group, y, id)
      x = group.columns(LEFT, RIGHT, LOADS)
      heights =
        group
          .rows
          .each_with_index
          .flat_map { |row, i| row.way.stops[row.from..row.to].map { |stop| [stop.key, y + (i * ROW)] } }
          .to_h
      group.rows.each_with_index do |row, i|
        row(row, y + (i * ROW), x, heights, "#{id}/#{group.rows.first.way.load.id}")
      end
      y + (group.rows.size * ROW)
    end

    def row(row, y, x, heights, prefix)
      way = row.way
      way.stops[row.from..row.to].each { |stop| station(stop, x[stop.key], y, "#{prefix}/#{stop.key}") }
      first = [row.from - 1, 0].max
      last = [row.to + 1, way.stops.size - 1].min
      way.stops[first..last]
        .each_cons(2)
        .with_index(first) { |(a, b), i| wire(way, i, side(a, 1, x, heights, y), side(b, -1, x, heights, y), y) }
    end

    # Where a wire leaves or enters a stop: [x, y of its row].
    def side(stop, sign, x, heights, row_y)
      half = { device: Symbols::HALF, load: half_load(stop) }.fetch(stop.kind, 0)
      [x[stop.key] + (sign * half), %i[left right].include?(stop.kind) ? row_y : heights.fetch(stop.key)]
    end

    def half_load(stop) =
      stop.kind == :load ? (strokes(stop.branch) == Symbols.motor ? Symbols::HALF : wide(stop.branch) / 2) : 0

    # A wire on its row, up or down to a stop of another row at that stop's own place.
    def wire(way, index, from, to, y)
      a, b = way.stops[index, 2]
      points = [from, [from[0], y], [to[0], y], to]
      home = way.stops.index { |stop| stop.kind == :load }.then { |load| load && index >= load }
      @pen.run(way.wires[index], a.to, b.from, points, way: home ? "home" : "out", line: line(way.wires[index], a, b))
    end

    def line(branches, first, last)
      return "line_voltage" unless @trace.low_voltage?(first.to) || @trace.low_voltage?(last.from)

      branches.any? { |id| @netlist[id].component } ? "field" : "factory"
    end

    def station(stop, x, y, id)
      case stop.kind
      when :terminal
        terminal(stop.from, x, y, id)
      when :device
        symbol(stop.branch, x, y, id)
      when :load
        load(stop.branch, x, y, id)
      when :pin
        pin(stop.key, x, y, id)
      when :neutral
        neutral(stop.key, x, y, id)
      end
    end

    def terminal(node, x, y, id)
      place, letter =
        (
          if node.start_with?("outdoor.board.")
            ["board", node.split(".").last]
          else
            [short_place(node), Naming.letter(@trace.rig, node.split(".").last)]
          end
        )
      point(node, letter, place, x, y, id)
    end

    def pin(node, x, y, id) = point(node, "pin", "board", x, y, id)
    def neutral(_key, x, y, id) = point(Assembly::GROUND, "N", "panel", x, y, id)

    def point(node, letter, place, x, y, id)
      @pen.terminal(node, letter, x, y, place: :above, id: id, size: 13)
      @pen.label(place, x, y - 28, anchor: "middle", size: 12, role: "sub", station: id)
    end

    def short_place(node) =
      { "air_handler" => "indoor", "panel" => "panel" }.fetch(node.split(".").first, node.split(".").first)

    def symbol(branch, x, y, id)
      closed = @at_rest ? nil : @trace.solution.conducts?(branch)
      closed = true if branch.kind == :capacitor
      @pen.put(
        branch,
        [x, y],
        [Symbols::HALF * 2, 26],
        strokes: Symbols.of(branch, closed: closed),
        label: name(branch),
        id: id,
        hit: [Station::TOUCH, Station::TOUCH]
      )
      words(branch, x, y, id)
    end

    def load(branch, x, y, id)
      width = wide(branch)
      strokes = strokes(branch)
      motor = strokes == Symbols.motor
      @pen.put(
        branch,
        [x, y],
        [motor ? Symbols::HALF * 2 : width, motor ? Symbols::HALF * 2 : 28],
        strokes: strokes,
        label: name(branch),
        id: id,
        hit: [[width, Station::TOUCH].max, Station::TOUCH]
      )
      return words(branch, x, y, id, motor ? Symbols::HALF + 5 : ABOVE) if motor || symbolic?(branch)

      @pen.label(name(branch), x, y + 5, **NAME, role: "name", station: id)
      if OVER.key?(branch.id)
        @pen.label(OVER[branch.id], x, y - ABOVE, anchor: "middle", size: 12, role: "sub", station: id)
      end
    end

    def symbolic?(branch) =
      branch.id.end_with?(".start", ".primary") ||
        %w[heater thermistor].include?(Catalogue.components.dig(branch.component || branch.id, "symbol"))
    def strokes(branch) =
      if symbolic?(branch) || Catalogue.components.dig(branch.component || branch.id, "symbol") == "motor"
        Symbols.of(branch)
      else
        Symbols.coil(wide(branch))
      end
    def wide(branch) = symbolic?(branch) ? Symbols::HALF * 2 : 66

    def words(branch, x, y, id, above = ABOVE)
      @pen.label(name(branch), x, y - above, **NAME, role: "name", station: id)
      over = OVER[branch.id] || ("t’stat" if branch.component == "THERMOSTAT")
      @pen.label(over, x, y - above - 13, anchor: "middle", size: 12, role: "sub", station: id) if over
    end

    # What stands beside a symbol: its code; a contact has its coil's.
    def name(branch)
      return NAMES[branch.id] if NAMES.key?(branch.id)
      return Naming.letter(@trace.rig, branch.id.split(".").last) if branch.component == "THERMOSTAT"
      return supply_name(branch) if branch.component.nil?

      branch.kind == :contact ? branch[:relay] : branch.component
    end

    def supply_name(branch)
      return branch.id unless branch.id.include?(".leg_")

      branch.id.start_with?("outdoor") ? "DISC" : { "gas" => "SW" }.fetch(@trace.rig[:backup], "BRKR")
    end
  end
end
