# frozen_string_literal: true

require_relative "loop_view/loom_pen"
require_relative "loop_view/grid"
require_relative "loop_view/fold"
require_relative "loop_view/outdoor_rows"

module Gorvant
  # The loom: columns are functions, bands are places, cables are the gaps between bands. Every loop is one track from R
  # through its stations and home to C.
  class LoopView
    HALF = Pen::HALF_DEVICE
    BESIDE_SOURCE = 14
    FOLDED = {
      "other" => "the unused changeover terminal",
      "stage_2" => "second stage",
      "backup" => "backup heat",
      "changeover" => "reversing valve",
      "blower" => "blower"
    }.freeze

    # opened: functions to draw though the call does not use them; "all" for all of them.
    def self.scene(trace, opened: []) = new(trace, opened).scene

    def initialize(trace, opened)
      @trace = trace
      @rig = trace.rig
      @pen = LoomPen.new(trace)
      @heat = Assembly::AirHandler.heat_codes(@rig)
      @folded = opened.include?("all") ? [] : Fold.new(trace, opened) { |folded| grid(folded).height }.chosen
      @grid = grid(@folded)
    end

    def scene
      wall
      air_handler
      strip("outdoor")
      @outdoor.draw(@grid)
      cables
      notes
      Scene.new(
        view: "loops",
        title: @pen.title,
        width: Grid::WIDTH,
        height: @grid.height,
        bands: bands,
        links: @pen.links,
        stations: @pen.stations,
        labels: @pen.labels,
        folded: @folded.map { |name| { id: name, title: FOLDED.fetch(name) } }
      )
    end

    private

    def column(terminal) = @grid.column(terminal)
    # Switches in Y between the strip and the cable outdoors, each with a row of its own.
    def in_y = Assembly::Cables.in_y(@rig)

    def grid(folded)
      @outdoor = OutdoorRows.new(@trace, @pen, folded)
      indoor_rows = in_y.size + (folded.include?("blower") ? 0 : 1) + (folded.include?("backup") ? 0 : @heat.size) + 1
      Grid.new(
        @rig,
        { "air_handler" => Grid::ROW * indoor_rows, "outdoor" => @outdoor.height },
        lanes: lanes,
        folded: folded
      )
    end

    # How many conductors change column in each gap.
    def lanes
      @lanes ||=
        @rig
          .cables
          .group_by { |cable| [cable.from, cable.to].sort }
          .transform_values do |cables|
            cables.sum do |cable|
              cable.conductors.count { |one| one.from && one.to && Grid.key(@rig, one.from) != Grid.key(@rig, one.to) }
            end
          end
    end

    def bands
      @grid.bands.map do |place, (y, height)|
        @pen.label(
          @rig.place_title(place),
          18,
          y + (height / 2),
          anchor: "middle",
          size: 13,
          weight: TextSize::BOLD,
          role: "band",
          upright: false
        )
        Band.new(id: place, x: 0, y: y, width: Grid::WIDTH, height: height)
      end
    end

    def notes
      @rig
        .cables
        .group_by { |cable| @grid.upper_first(cable.from, cable.to).first }
        .each do |upper, cables|
          words =
            cables.map do |cable|
              "#{Naming.cable(cable)} · #{cable.conductors.size} × #{cable.gauge_awg} AWG · " \
                "#{cable.length_feet.to_s.sub(/\.0\z/, "")} ft"
            end
          @pen.label(
            words.join("   "),
            [Grid::NOTE_X, @grid.rightmost_x + 44].max,
            @grid.gap(upper)[1] - 7,
            size: 12.5,
            role: "note"
          )
        end
    end

    # Terminals of a place; outdoors W2 in stands in its row, beside the thermostat that feeds it.
    def strip(place)
      (@rig.terminals(place) - ["W2_in"])
        .select { |terminal| @grid.shows?(terminal) }
        .each do |terminal|
          @pen.terminal(
            "#{place}.#{terminal}",
            Naming.letter(@rig, terminal),
            column(terminal),
            @grid.terminal_y(place)
          )
        end
    end

    def wall
      strip("wall")
      switched = (@rig.terminals("wall") - %w[R C]).select { |terminal| @grid.shows?(terminal) }
      y = bus_y
      last = switched.map { |terminal| column(terminal) }.max || column("R")
      @pen.bus("wall.R", [column("R"), @grid.terminal_y("wall")], [column("R"), y])
      thermostat(y, last)
      switched.each { |terminal| wall_switch(terminal, y) }
      wall_jumpers
    end

    # Lower where the thermostat itself hangs on it.
    def bus_y = Grid::THERMOSTAT_BUS_Y + (@trace.netlist.branch?("THERMOSTAT") ? 12 : 0)

    # One that lives on C is a load; one on battery is only a row of switches.
    def thermostat(y, last)
      @pen.bus("wall.R", [column("R"), y], [last, y])
      if @trace.netlist.branch?("THERMOSTAT")
        @pen.load_row(
          "THERMOSTAT",
          [last, y],
          [column("C"), y],
          x: Grid::LOADS_X,
          then_to: [column("C"), @grid.terminal_y("wall")],
          text: "T’STAT",
          line: "copper"
        )
      else
        @pen.label("thermostat on battery", Grid::LOADS_X, y + 8, anchor: "middle", size: 12.5, role: "note")
      end
    end

    def wall_switch(terminal, bus_y)
      x = column(terminal)
      y = Grid::THERMOSTAT_SWITCH_Y
      @pen.bus("wall.R", [x, bus_y], [x, y - Pen::HALF_HEIGHT])
      @pen.device("THERMOSTAT.#{terminal}", x, y, text: Naming.letter(@rig, terminal), width: 44, upright: true)
      @pen.bus("wall.#{terminal}", [x, y + Pen::HALF_HEIGHT], [x, @grid.terminal_y("wall")])
    end

    # A jumper dips under the terminals between its ends.
    def wall_jumpers
      shown =
        @rig.jumpers.select do |jumper|
          jumper.place == "wall" && [jumper.from, jumper.to].all? { |terminal| @grid.shows?(terminal) }
        end
      shown.each_with_index do |jumper, i|
        y = @grid.terminal_y("wall")
        ends = [column(jumper.from), column(jumper.to)]
        next if ends[0] == ends[1]

        low = wall_between?(ends) ? y + 14 + (i * 4) : y
        points = [[ends[0], y], [ends[0], low], [ends[1], low], [ends[1], y]].uniq
        @pen.run([jumper.id], "wall.#{jumper.from}", "wall.#{jumper.to}", points, line: "field")
      end
    end

    # Whether a terminal stands between these two columns.
    def wall_between?(ends)
      shown = @rig.terminals("wall").select { |terminal| @grid.shows?(terminal) }
      shown.any? { |terminal| column(terminal) > ends.min && column(terminal) < ends.max }
    end

    def air_handler
      strip("air_handler")
      y_switches
      rows = in_y.size
      unless @folded.include?("blower")
        indoor_load("G", "IFR", rows)
        rows += 1
      end
      unless @folded.include?("backup")
        @heat.each { |code| indoor_load("W", code, (rows += 1) - 1) }
        column_bus("air_handler", "W", @grid.row("air_handler", rows - 1)) if @heat.any?
      end
      supply_row(@grid.row("air_handler", rows))
    end

    # One under the other in the column of Y, from the strip down.
    def y_switches
      x = column("Y")
      from, node = @grid.terminal_y("air_handler"), "air_handler.Y"
      in_y.each_with_index do |code, i|
        y = @grid.row("air_handler", i)
        @pen.run(
          @pen.wires(node, "air_handler.#{code}.1"),
          node,
          "air_handler.#{code}.1",
          [[x, from], [x, y - Pen::HALF_HEIGHT]]
        )
        @pen.device(code, x, y, text: code, width: 44, upright: true)
        from, node = y + Pen::HALF_HEIGHT, "air_handler.#{code}.2"
      end
      @grid.reached("air_handler", "Y", from) if in_y.any?
    end

    def indoor_load(terminal, code, row)
      y = @grid.row("air_handler", row)
      column_bus("air_handler", terminal, y) if terminal == "G"
      @pen.load_row(code, [column(terminal), y], [column("C"), y], x: Grid::LOADS_X)
    end

    def supply_row(y)
      column_bus("air_handler", "R", y, upwards: true)
      column_bus("air_handler", "C", y, way: "home")
      fed_strip(y)
      @pen.source("TRAN", Grid::TRAN_X, y, "#{format("%g", @rig[:transformer_va])} VA")
      @pen.bus(Assembly::HOME, [Grid::TRAN_X + 34, y], [column("C"), y], way: "home")
    end

    # From the transformer by the fuse, and by a float switch in R, to the strip.
    def fed_strip(y)
      codes = [("FLS" if @rig[:float_switch] == "r"), ("FU" if @trace.netlist.branch?("FU"))].compact
      places = [@grid.left_device_x, Grid::TRAN_X - 34 - BESIDE_SOURCE - HALF] # the second past all columns
      right =
        codes
          .zip(places)
          .inject([column("R"), "air_handler.R"]) do |(x, node), (code, center)|
            @pen.bus(node, [center - HALF, y], [x, y])
            @pen.device(code, center, y, text: code)
            [center + HALF, @trace.netlist[code].from]
          end
      @pen.bus(right[1], [Grid::TRAN_X - 34, y], [right[0], y])
    end

    # upwards: the column is fed from its foot.
    def column_bus(place, terminal, to_y, way: "out", upwards: false)
      x = column(terminal)
      ends = [[x, @grid.terminal_y(place)], [x, to_y]]
      @pen.bus("#{place}.#{terminal}", *(upwards ? ends.reverse : ends), way: way)
      @grid.reached(place, terminal, to_y)
    end

    # Each conductor from the foot of its column above to the terminal below; where they differ it takes a lane of the
    # gap. Its color stands where it arrives.
    def cables
      @taken = Hash.new(0)
      @arrivals = Hash.new { |hash, key| hash[key] = [] }
      @rig.cables.each { |cable| cable.conductors.each { |conductor| conductor(cable, conductor) } }
      @arrivals.each do |(lower, x), words|
        home = x == column("C")
        @pen.label(
          words.join(" "),
          x + (home ? -10 : 10),
          @grid.terminal_y(lower) - Grid::TOP - 6,
          size: 12,
          role: "color",
          anchor: home ? "end" : "start"
        )
      end
    end

    def conductor(cable, conductor)
      upper, lower = @grid.upper_first(cable.from, cable.to)
      terminals = { cable.from => conductor.from, cable.to => conductor.to }
      return unless terminals.values.all? { |terminal| terminal && @grid.shows?(terminal) }

      from = [column(terminals[upper]), @grid.foot(upper, terminals[upper])]
      to = [column(terminals[lower]), @grid.terminal_y(lower)]
      points = from[0] == to[0] ? [from, to] : @grid.lane(upper, from, to, (@taken[upper] += 1) - 1)
      ends = [upper, lower].map { |place| Assembly::Cables.landing(@rig, cable, place, terminals[place]) }
      conductor_run(cable, conductor, upper, ends, points)
      @arrivals[[lower, to[0]]] << Naming.sheath_codes(conductor, backwards: upper != cable.from)
    end

    # The branches of a conductor as they lie between its ends, whichever way the cable is written down.
    def conductor_run(cable, conductor, upper, ends, points)
      id = "#{cable.id}.#{conductor.id}"
      pieces = conductor.splices.flat_map { |splice| ["#{id}/#{splice.id}", "#{id}/after_#{splice.id}"] }
      branches = ["#{id}@#{cable.from}", id, *pieces, "#{id}@#{cable.to}"]
      branches.reverse! if upper != cable.from
      home = conductor.from == "C" && conductor.to == "C"
      foot = @grid.gap(@grid.upper_first(cable.from, cable.to).first)[0]
      marks = conductor.splices.each_index.map { |i| { kind: "splice", x: points.last[0], y: foot + 8 + (i * 10) } }
      @pen.run(branches, *ends, points, way: home ? "home" : "out", color: conductor.color, line: "field", marks: marks)
    end
  end
end
