# frozen_string_literal: true

require_relative "loop_view/pen"
require_relative "loop_view/grid"
require_relative "loop_view/outdoor_rows"

module Gorvant
  # The loom: columns are functions, bands are places, cables are the gaps between bands. Every loop is one track from R
  # through its stations and home to C.
  class LoopView
    HALF = Pen::HALF_DEVICE

    def self.scene(trace) = new(trace).scene

    def initialize(trace)
      @trace = trace
      @rig = trace.rig
      @pen = Pen.new(trace)
      @heat = Assembly::AirHandler.heat_codes(@rig)
      @outdoor = OutdoorRows.new(trace, @pen)
      @grid = Grid.new(@rig, { "air_handler" => @heat.size + 2, "outdoor" => @outdoor.count })
    end

    def scene
      wall
      air_handler
      strip("outdoor")
      @outdoor.draw(@grid)
      cables
      Scene.new(title: title, width: Grid::WIDTH, height: @grid.height, bands: bands, links: @pen.links, stations: @pen.stations, notes: notes)
    end

    private

    def title = "#{@rig.name}: #{Catalogue.calls.fetch(@trace.condition.call).fetch('title')}"
    def column(terminal, place = "wall") = @grid.column(place, terminal)

    def bands
      @grid.bands.map { |place, (y, height)| Band.new(id: place, label: @rig.place_title(place), x: 0, y: y, width: Grid::WIDTH, height: height) }
    end

    def notes
      @rig.cables.filter_map do |cable|
        y = @grid.gap_note_y(cable.from, cable.to) or next
        Note.new(text: "#{Naming.cable(cable)} · #{cable.conductors.size} × #{cable.gauge_awg} AWG · #{cable.length_feet.to_s.sub(/\.0\z/, '')} ft", x: Grid::NOTE_X, y: y, anchor: "start")
      end
    end

    # Terminals of a place; outdoors W2 in stands in its row, beside the thermostat that feeds it.
    def strip(place)
      (@rig.terminals(place) - ["W2_in"]).each do |terminal|
        @pen.terminal("#{place}.#{terminal}", Naming.letter(@rig, terminal), @grid.column(place, terminal), @grid.terminal_y(place))
      end
    end

    def wall
      strip("wall")
      switched = @rig.terminals("wall") - %w[R C]
      y = Grid::THERMOSTAT_BUS_Y
      last = switched.map { |terminal| column(terminal) }.max
      @pen.bus("wall.R", [column("R"), @grid.terminal_y("wall")], [column("R"), y])
      @pen.bus("wall.R", [column("R"), y], [last, y])
      switched.each { |terminal| wall_switch(terminal, y) }
      @pen.load_row("THERMOSTAT", [last, y], [column("C"), y], x: Grid::LOADS_X, then_to: [column("C"), @grid.terminal_y("wall")]) if @trace.netlist.branch?("THERMOSTAT")
      wall_jumpers
    end

    def wall_switch(terminal, bus_y)
      x = column(terminal)
      y = Grid::THERMOSTAT_SWITCH_Y
      @pen.bus("wall.R", [x, bus_y], [x, y - Pen::HALF_HEIGHT])
      @pen.device("THERMOSTAT.#{terminal}", x, y, label: Naming.letter(@rig, terminal), width: 44)
      @pen.bus("wall.#{terminal}", [x, y + Pen::HALF_HEIGHT], [x, @grid.terminal_y("wall")])
    end

    # A jumper dips under the terminals between its ends.
    def wall_jumpers
      @rig.jumpers.select { |jumper| jumper.place == "wall" && jumper.from != jumper.to }.each_with_index do |jumper, i|
        y = @grid.terminal_y("wall")
        ends = [column(jumper.from), column(jumper.to)]
        between = @rig.terminals("wall").map { |terminal| column(terminal) }.any? { |x| x > ends.min && x < ends.max }
        points = between ? [[ends[0], y], [ends[0], y + 16 + (i * 4)], [ends[1], y + 16 + (i * 4)], [ends[1], y]] : [[ends[0], y], [ends[1], y]]
        @pen.run([jumper.id], "wall.#{jumper.from}", "wall.#{jumper.to}", points)
      end
    end

    def air_handler
      strip("air_handler")
      c = column("C")
      y = @grid.row("air_handler", 0)
      column_bus("air_handler", "G", y)
      @pen.load_row("IFR", [column("G"), y], [c, y], x: Grid::LOADS_X)
      @heat.each_with_index do |code, i|
        y = @grid.row("air_handler", i + 1)
        @pen.load_row(code, [column("W", "air_handler"), y], [c, y], x: Grid::LOADS_X)
      end
      column_bus("air_handler", "W", y) if @heat.any?
      supply_row(@grid.row("air_handler", @heat.size + 1))
    end

    def supply_row(y)
      column_bus("air_handler", "R", y, upwards: true)
      column_bus("air_handler", "C", y, way: "home")
      fuse_x = @grid.left_device_x
      fused = @trace.netlist.branch?("FU")
      @pen.bus("air_handler.R", [fused ? fuse_x - HALF : Grid::TRAN_X - 34, y], [column("R"), y])
      if fused
        @pen.bus(Assembly::HOT, [Grid::TRAN_X - 34, y], [fuse_x + HALF, y])
        @pen.device("FU", fuse_x, y, label: "FU")
      end
      @pen.source("TRAN", Grid::TRAN_X, y, "#{format('%g', @rig[:transformer_va])} VA")
      @pen.bus(Assembly::HOME, [Grid::TRAN_X + 34, y], [column("C"), y], way: "home")
    end

    # upwards: the column is fed from its foot.
    def column_bus(place, terminal, to_y, way: "out", upwards: false)
      x = @grid.column(place, terminal)
      ends = [[x, @grid.terminal_y(place)], [x, to_y]]
      @pen.bus("#{place}.#{terminal}", *(upwards ? ends.reverse : ends), way: way)
      @grid.reached(place, terminal, to_y)
    end

    # Each conductor from the foot of its column above to the terminal below; where they differ it takes a lane of the gap.
    def cables
      @rig.cables.each do |cable|
        lane = 0
        cable.conductors.each do |conductor|
          next if conductor.from.nil? || conductor.to.nil?

          upper, lower = @grid.upper_first(cable.from, cable.to)
          terminals = { cable.from => conductor.from, cable.to => conductor.to }
          from = [@grid.column(upper, terminals[upper]), @grid.foot(upper, terminals[upper])]
          to = [@grid.column(lower, terminals[lower]), @grid.terminal_y(lower)]
          points = from[0] == to[0] ? [from, to] : @grid.lane(upper, from, to, lane += 1)
          conductor_run(cable, conductor, [upper, terminals[upper]], [lower, terminals[lower]], points)
        end
      end
    end

    # The branches of a conductor as they lie between its ends, whichever way the cable is written down.
    def conductor_run(cable, conductor, upper, lower, points)
      id = "#{cable.id}.#{conductor.id}"
      pieces = conductor.splices.flat_map { |splice| ["#{id}/#{splice.id}", "#{id}/after_#{splice.id}"] }
      branches = ["#{id}@#{cable.from}", id, *pieces, "#{id}@#{cable.to}"]
      branches.reverse! if upper[0] != cable.from
      home = conductor.from == "C" && conductor.to == "C"
      @pen.run(branches, upper.join("."), lower.join("."), points, way: home ? "home" : "out", color: conductor.color)
    end
  end
end
