# frozen_string_literal: true

require_relative "loop_view/pen"
require_relative "loop_view/grid"

module Gorvant
  # The loom: columns are functions, bands are places, cables are the gaps between bands. Every loop is one track from R
  # through its stations and home to C.
  class LoopView
    def self.scene(trace) = new(trace).scene

    def initialize(trace)
      @trace = trace
      @rig = trace.rig
      @grid = Grid.new(@rig)
      @pen = Pen.new(trace)
    end

    def scene
      wall
      air_handler
      outdoor
      cables
      Scene.new(title: title, width: Grid::WIDTH, height: Grid::HEIGHT, bands: bands, links: @pen.links, stations: @pen.stations, notes: notes)
    end

    private

    def title = "#{@rig.name}: #{Catalogue.calls.fetch(@trace.condition.call).fetch('title')}"
    def column(name) = @grid.column(name)

    def bands
      Grid::BANDS.map { |place, (y, height)| Band.new(id: place, label: @rig.place_title(place), x: 0, y: y, width: Grid::WIDTH, height: height) }
    end

    def notes
      @rig.cables.filter_map do |cable|
        y = @grid.gap_note_y(cable.from, cable.to) or next
        Note.new(text: "#{Naming.cable(cable)} · #{cable.conductors.size} × #{cable.gauge_awg} AWG · #{cable.length_feet.to_s.sub(/\.0\z/, '')} ft", x: Grid::NOTE_X, y: y, anchor: "start")
      end
    end

    # Terminals of a place; a column runs from its terminal down to the last row that joins it.
    def strip(place)
      @rig.terminals(place).each { |terminal| @pen.terminal("#{place}.#{terminal}", terminal, column(terminal), @grid.terminal_y(place)) }
    end

    def wall
      strip("wall")
      switched = @rig.terminals("wall") - %w[R C]
      y = Grid::THERMOSTAT_BUS_Y
      @pen.bus("wall.R", [column("R"), @grid.terminal_y("wall")], [column("R"), y])
      last = switched.map { |terminal| column(terminal) }.max
      @pen.bus("wall.R", [column("R"), y], [last, y])
      switched.each { |terminal| wall_switch(terminal, y) }
      @pen.load_row("THERMOSTAT", [last, y], [column("C"), y], x: Grid::LOADS_X, then_to: [column("C"), @grid.terminal_y("wall")]) if @trace.netlist.branch?("THERMOSTAT")
      wall_jumpers
    end

    def wall_switch(terminal, bus_y)
      x = column(terminal)
      id = "THERMOSTAT.#{terminal}"
      @pen.bus("wall.R", [x, bus_y], [x, Grid::THERMOSTAT_SWITCH_Y - Pen::HALF_HEIGHT])
      @pen.device(id, x, Grid::THERMOSTAT_SWITCH_Y, label: terminal, width: 46)
      @pen.bus("wall.#{terminal}", [x, Grid::THERMOSTAT_SWITCH_Y + Pen::HALF_HEIGHT], [x, @grid.terminal_y("wall")])
    end

    def wall_jumpers
      @rig.jumpers.select { |jumper| jumper.place == "wall" }.each do |jumper|
        y = @grid.terminal_y("wall")
        @pen.run([jumper.id], "wall.#{jumper.from}", "wall.#{jumper.to}", [[column(jumper.from), y], [column(jumper.to), y]])
      end
    end

    def air_handler
      strip("air_handler")
      rows = Grid::AIR_HANDLER_ROWS
      column_bus("air_handler", "G", rows[0])
      @pen.load_row("IFR", [column("G"), rows[0]], [column("C"), rows[0]], x: Grid::LOADS_X)
      if @trace.netlist.branch?("SEQ")
        column_bus("air_handler", "W", rows[1])
        @pen.load_row("SEQ", [column("W"), rows[1]], [column("C"), rows[1]], x: Grid::LOADS_X)
      end
      supply_row(rows[2])
    end

    def supply_row(y)
      column_bus("air_handler", "R", y, upwards: true)
      column_bus("air_handler", "C", y, way: "home")
      fuse_x = Grid::LEFT_DEVICE_X
      fused = @trace.netlist.branch?("FU")
      @pen.bus("air_handler.R", [fused ? fuse_x - 28 : Grid::TRAN_X - 34, y], [column("R"), y])
      if fused
        @pen.bus(Assembly::HOT, [Grid::TRAN_X - 34, y], [fuse_x + 28, y])
        @pen.device("FU", fuse_x, y, label: "FU")
      end
      @pen.source("TRAN", Grid::TRAN_X, y, "#{format('%g', @rig[:transformer_va])} VA")
      @pen.bus(Assembly::HOME, [Grid::TRAN_X + 34, y], [column("C"), y], way: "home")
    end

    def outdoor
      strip("outdoor")
      rows = Grid::OUTDOOR_ROWS
      column_bus("outdoor", "R", rows[3])
      column_bus("outdoor", "C", rows[3], way: "home")
      contactor_row(rows[0])
      valve_row(rows[1])
      board_rows(rows[2], rows[3])
    end

    def contactor_row(y)
      column_bus("outdoor", "Y", y)
      x = column("Y")
      node = "outdoor.Y"
      codes = @rig[:safeties]
      codes.zip(@grid.safety_columns(codes.size)).each do |code, centre|
        @pen.run(@pen.wires(node, "outdoor.#{code}.1"), node, "outdoor.#{code}.1", [[x, y], [centre - 28, y]])
        @pen.device(code, centre, y, label: code)
        x = centre + 28
        node = "outdoor.#{code}.2"
      end
      @pen.run(@pen.wires(node, "outdoor.board.T1"), node, "outdoor.board.T1", [[x, y], [Grid::TAP_X, y]])
      @pen.terminal("outdoor.board.T1", "T1", Grid::TAP_X, y)
      @pen.load_row("CC", [Grid::TAP_X, y], [column("C"), y], x: Grid::LOADS_X, feed: "outdoor.board.T1")
      column_bus("outdoor", "W2_out", y)
      left_contact("DFR.W2", y, "W2_out")
    end

    # Both types share a row: an O board feeds the trace from R, a B board opens the feed.
    def valve_row(y)
      changeover = @rig.changeover
      column_bus("outdoor", changeover, y)
      if changeover == "O"
        left_contact("DFR.valve", y, changeover)
        @pen.load_row("RVS", [column(changeover), y], [column("C"), y], x: Grid::LOADS_X)
      else
        contact_x = Grid::B_CONTACT_X
        @pen.bus("outdoor.B", [column("B"), y], [contact_x - 28, y])
        @pen.device("DFR.valve", contact_x, y, label: "DFR")
        @pen.load_row("RVS", [contact_x + 28, y], [column("C"), y], x: Grid::LOADS_X, feed: "outdoor.board.RVS")
      end
    end

    def left_contact(id, y, terminal)
      x = Grid::LEFT_DEVICE_X
      @pen.bus("outdoor.R", [column("R"), y], [x - 28, y])
      @pen.device(id, x, y, label: "DFR")
      @pen.bus("outdoor.#{terminal}", [x + 28, y], [column(terminal), y])
    end

    # The board takes two rows: coil switch and supply arrive on the left, home and the defrost relay leave on the right.
    def board_rows(upper, lower)
      left, right = Grid::BOARD_X
      x = Grid::LEFT_DEVICE_X
      @pen.run(@pen.wires("outdoor.R", "outdoor.DFT.1"), "outdoor.R", "outdoor.DFT.1", [[column("R"), upper], [x - 28, upper]])
      @pen.device("DFT", x, upper, label: "DFT")
      @pen.run(@pen.wires("outdoor.DFT.2", "outdoor.board.DFT_2"), "outdoor.DFT.2", "outdoor.board.DFT_2", [[x + 28, upper], [left, upper]])
      @pen.bus("outdoor.R", [column("R"), lower], [left, lower])
      @pen.block("BOARD", (left + right) / 2, (upper + lower) / 2, width: right - left, height: lower - upper + 32)
      @pen.bus("outdoor.C", [right, upper], [column("C"), upper], way: "home")
      @pen.load_row("DFR", [right, lower], [column("C"), lower], x: Grid::LOADS_X, feed: "outdoor.board.DFR_drive")
    end

    # upwards: the column is fed from its foot.
    def column_bus(place, terminal, to_y, way: "out", upwards: false)
      x = column(terminal)
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
          from = [column(terminals[upper]), @grid.foot(upper, terminals[upper])]
          to = [column(terminals[lower]), @grid.terminal_y(lower)]
          points = from[0] == to[0] ? [from, to] : @grid.lane(upper, from, to, lane += 1)
          conductor_run(cable, conductor, "#{upper}.#{terminals[upper]}", "#{lower}.#{terminals[lower]}", points)
        end
      end
    end

    def conductor_run(cable, conductor, from, to, points)
      id = "#{cable.id}.#{conductor.id}"
      places = from.start_with?("#{cable.from}.") ? [cable.from, cable.to] : [cable.to, cable.from]
      @pen.run(["#{id}@#{places[0]}", id, "#{id}@#{places[1]}"], from, to, points, way: conductor.from == "C" && conductor.to == "C" ? "home" : "out", color: conductor.color)
    end
  end
end
