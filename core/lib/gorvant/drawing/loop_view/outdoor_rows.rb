# frozen_string_literal: true

module Gorvant
  class LoopView
    # The rows of the outdoor band. Columns that end early stand to the right and have the upper rows, so that next to
    # nothing crosses: second stage, contactor, valve, board.
    class OutdoorRows
      HALF = Pen::HALF_DEVICE
      PLACE = "outdoor"

      def initialize(trace, pen)
        @trace = trace
        @rig = trace.rig
        @pen = pen
        @rows = rows
      end

      def count = @rows.size

      def draw(grid)
        @grid = grid
        last = grid.row(PLACE, count - 1)
        column_bus("R", last)
        column_bus("C", last, way: "home")
        @rows.each_with_index { |row, i| send(row, grid.row(PLACE, i)) }
      end

      private

      def two_stage? = @rig[:compressor_stages] == 2
      def hot_gas? = @rig[:defrost_method] == "hot_gas"
      def feeds_pin? = !hot_gas? && @rig.changeover == "O" && @rig[:valve_feed] == "changeover"

      def rows
        rows = []
        rows << :upper_row if two_stage? || @rig[:outdoor_thermostat]
        rows.push(:contactor_row, :valve_row)
        rows << :pin_feed_row if feeds_pin?
        rows << :hot_gas_row if hot_gas?
        rows << :stage_2_defrost_row if @trace.netlist.branch?("DFR.Y2")
        rows.push(:sensing_row, :board_row)
      end

      def x(terminal) = @grid.column(PLACE, terminal)
      def c_x = @grid.column(PLACE, "C")

      def column_bus(terminal, to_y, way: "out")
        @pen.bus("#{PLACE}.#{terminal}", [x(terminal), @grid.terminal_y(PLACE)], [x(terminal), to_y], way: way)
        @grid.reached(PLACE, terminal, to_y)
      end

      def upper_row(y)
        outdoor_thermostat(y) if @rig[:outdoor_thermostat]
        return unless two_stage?

        column_bus("Y2", y)
        @pen.load_row(@rig[:stage_2] == "contactor" ? "CC2" : "Y2S", [x("Y2"), y], [c_x, y], x: Grid::LOADS_X)
      end

      # W2 through the outdoor thermostat to W2 in, and on to W2 out by a trace or the board's contact.
      def outdoor_thermostat(y)
        column_bus("W2", y)
        odt = x("W2") + 62
        w2_in = x("W2_in")
        @pen.run(@pen.wires("outdoor.W2", "outdoor.ODT.1"), "outdoor.W2", "outdoor.ODT.1", [[x("W2"), y], [odt - HALF, y]])
        @pen.device("ODT", odt, y, label: "ODT")
        @pen.run(@pen.wires("outdoor.ODT.2", "outdoor.W2_in"), "outdoor.ODT.2", "outdoor.W2_in", [[odt + HALF, y], [w2_in, y]])
        @pen.terminal("outdoor.W2_in", "W2 in", w2_in, y)
        if @rig[:w2_path] == "one_trace"
          @pen.run(["outdoor.W2_in-outdoor.W2_out"], "outdoor.W2_in", "outdoor.W2_out", [[w2_in, y], [x("W2_out"), y]])
        else
          @pen.run(["DFR.W2_in"], "outdoor.W2_in", "outdoor.W2_out", [[w2_in, y], [x("W2_out"), y]])
        end
      end

      def contactor_row(y)
        column_bus("Y", y)
        from, node = start_of_string(y)
        codes = @rig[:safeties]
        codes.zip(@grid.string_columns(from, Grid::TAP_X - 20, codes.size)).each do |code, centre|
          @pen.run(@pen.wires(node, "outdoor.#{code}.1"), node, "outdoor.#{code}.1", [[from, y], [centre - narrow, y]])
          @pen.device(code, centre, y, label: code, width: narrow * 2)
          from = centre + narrow
          node = "outdoor.#{code}.2"
        end
        end_of_string(from, node, y)
        column_bus("W2_out", y)
        left_contact("DFR.W2", y, "outdoor.W2_out", x("W2_out"))
      end

      # Devices of a crowded string are narrower, never under what a finger needs.
      def narrow = @rig[:safeties].size + (@rig[:y_path] == "delay" ? 1 : 0) > 4 ? 22 : 25

      # Past the board's own contact where it has one.
      def start_of_string(y)
        return [x("Y"), "outdoor.Y"] unless @rig[:y_path] == "delay"

        centre = two_stage? ? (x("Y") + x("Y2")) / 2 : x("Y") + 40
        @pen.bus("outdoor.Y", [x("Y"), y], [centre - 19, y])
        @pen.device("BOARD.compressor", centre, y, label: "K", width: 38)
        return [centre + 19, "outdoor.board.Y_out"] unless two_stage?

        @pen.bus("outdoor.board.Y_out", [centre + 19, y], [x("Y2") + 14, y])
        [x("Y2") + 14, "outdoor.board.Y_out"]
      end

      def end_of_string(from, node, y)
        tap = @rig[:run_time_tap] == "on_y" ? nil : "outdoor.board.T1"
        if tap
          @pen.run(@pen.wires(node, tap), node, tap, [[from, y], [Grid::TAP_X, y]])
          @pen.terminal(tap, "T1", Grid::TAP_X, y)
          from = Grid::TAP_X
          node = tap
        end
        @pen.load_row("CC", [from, y], [c_x, y], x: Grid::LOADS_X, feed: node)
      end

      def valve_row(y)
        changeover = @rig.changeover
        column_bus(changeover, y)
        from = [x(changeover), y]
        feed = "outdoor.#{changeover}"
        contact = { "DFR.valve" => changeover == "B" && !hot_gas?, "DFR.valve_rest" => feeds_pin? }.key(true)
        if contact
          centre = valve_contact_x
          @pen.bus(feed, from, [centre - HALF, y])
          @pen.device(contact, centre, y, label: "DFR")
          feed = "outdoor.board.RVS"
          from = [centre + HALF, y]
        elsif !hot_gas?
          left_contact("DFR.valve", y, "outdoor.O", x("O"))
        end
        @pen.load_row(@rig[:valve_volts] == "line" ? "RVR" : "RVS", from, [c_x, y], x: Grid::LOADS_X, feed: feed)
      end

      def valve_contact_x = @grid.last_column_x + 60

      # R to the valve pin in defrost, up behind the contact at rest.
      def pin_feed_row(y)
        pin_x = valve_contact_x + 60
        left_contact("DFR.valve", y, "outdoor.board.RVS", pin_x)
        @pen.bus("outdoor.board.RVS", [pin_x, y], [pin_x, y - Grid::ROW])
      end

      def hot_gas_row(y)
        left_contact("DFR.HGS", y, "outdoor.board.HGS", @grid.left_device_x + HALF + 20)
        @pen.load_row("HGS", [@grid.left_device_x + HALF + 20, y], [c_x, y], x: Grid::LOADS_X, feed: "outdoor.board.HGS")
      end

      def stage_2_defrost_row(y)
        left_contact("DFR.Y2", y, "outdoor.Y2", x("Y2"))
        @pen.bus("outdoor.Y2", [x("Y2"), y], [x("Y2"), @grid.foot(PLACE, "Y2")])
      end

      # A board contact beside R, out to a point of another column.
      def left_contact(id, y, node, to_x)
        centre = @grid.left_device_x
        @pen.bus("outdoor.R", [x("R"), y], [centre - HALF, y])
        @pen.device(id, centre, y, label: "DFR")
        @pen.bus(node, [centre + HALF, y], [to_x, y])
      end

      def board_x = [@grid.left_device_x + 130, @grid.left_device_x + 236]

      # Coil switch, and the air-pressure switch before it, into the board.
      def sensing_row(y)
        left, right = board_x
        @pen.bus("outdoor.C", [right, y], [c_x, y], way: "home")
        return unless @rig[:sensing] == "coil_switch"

        codes = @rig[:air_pressure_switch] ? %w[APS DFT] : %w[DFT]
        from = x("R")
        node = "outdoor.R"
        codes.each_with_index do |code, i|
          centre = @grid.left_device_x + (i * 62) - (codes.size > 1 ? 20 : 0)
          @pen.run(@pen.wires(node, "outdoor.#{code}.1"), node, "outdoor.#{code}.1", [[from, y], [centre - 25, y]])
          @pen.device(code, centre, y, label: code, width: 50)
          from = centre + 25
          node = "outdoor.#{code}.2"
        end
        @pen.run(@pen.wires(node, "outdoor.board.DFT_2"), node, "outdoor.board.DFT_2", [[from, y], [left, y]])
      end

      # The board spans its two rows: supply arrives on the left, the defrost relay leaves on the right.
      def board_row(y)
        left, right = board_x
        @pen.bus("outdoor.R", [x("R"), y], [left, y])
        @pen.block("BOARD", (left + right) / 2, y - (Grid::ROW / 2), width: right - left, height: Grid::ROW + 32)
        @pen.load_row("DFR", [right, y], [c_x, y], x: Grid::LOADS_X, feed: "outdoor.board.DFR_drive")
      end
    end
  end
end
