# frozen_string_literal: true

module Gorvant
  class LoopView
    # The rows of the outdoor band. Columns that end early stand to the right and have the upper rows, so that next to
    # nothing crosses: second stage, contactor, valve, board.
    class OutdoorRows
      HALF = Pen::HALF_DEVICE
      PLACE = "outdoor"

      def initialize(trace, pen, folded)
        @trace = trace
        @rig = trace.rig
        @pen = pen
        @folded = folded
        @rows = rows
      end

      # Pixels under the terminals.
      def height = (@rows.size * Grid::ROW) + Grid::BOARD_DROP

      def draw(grid)
        @grid = grid
        last = grid.row(PLACE, @rows.size - 1) + Grid::BOARD_DROP
        column_bus("R", last)
        column_bus("C", last, way: "home")
        @rows.each_with_index { |row, i| send(*row, grid.row(PLACE, i)) }
      end

      private

      def two_stage? = @rig[:compressor_stages] == 2 && !@folded.include?("stage_2")
      def backup? = !@folded.include?("backup")
      def valve? = !@folded.include?("changeover")
      def outdoor_thermostat? = @rig[:outdoor_thermostat] && backup?
      def air_pressure? = @rig[:sensing] == "coil_switch" && @rig[:air_pressure_switch]
      def hot_gas? = @rig[:defrost_method] == "hot_gas"
      def feeds_pin? = !hot_gas? && @rig.changeover == "O" && @rig[:valve_feed] == "changeover"

      def rows
        rows = []
        rows << :upper_row if two_stage? || outdoor_thermostat?
        rows << :contactor_row
        across.each { |code| rows << [:across_row, code] }
        rows << :valve_row if valve?
        rows << :pin_feed_row if valve? && feeds_pin?
        rows << :hot_gas_row if hot_gas?
        rows << :stage_2_defrost_row if two_stage? && @trace.netlist.branch?("DFR.Y2")
        rows << :air_pressure_row if air_pressure?
        rows << :second_relay_row if @rig[:defrost_relays] == 2
        rows << :board_row
      end

      def x(terminal) = @grid.column(terminal)
      def c_x = @grid.column("C")

      def column_bus(terminal, to_y, way: "out")
        @pen.bus("#{PLACE}.#{terminal}", [x(terminal), @grid.terminal_y(PLACE)], [x(terminal), to_y], way: way)
        @grid.reached(PLACE, terminal, to_y)
      end

      # What hangs between a terminal and C.
      def across = (Options.across & Options.low).select { |code| Options.fitted?(@rig, code) }

      def across_row(code, y)
        terminal = Options.points(code).first.split(".").last
        column_bus(terminal, y)
        @pen.load_row(code, [x(terminal), y], [c_x, y], x: Grid::LOADS_X)
      end

      def upper_row(y)
        outdoor_thermostat(y) if outdoor_thermostat?
        return unless two_stage?

        column_bus("Y2", y)
        @pen.load_row(@rig[:stage_2] == "contactor" ? "CC2" : "Y2S", [x("Y2"), y], [c_x, y], x: Grid::LOADS_X)
      end

      # W2 through the outdoor thermostat to W2 in, and on to W2 out by a trace or the board's contact.
      def outdoor_thermostat(y)
        column_bus("W2", y)
        odt = x("W2") + 60
        w2_in = x("W2_in")
        @pen.run(
          @pen.wires("outdoor.W2", "outdoor.ODT.1"),
          "outdoor.W2",
          "outdoor.ODT.1",
          [[x("W2"), y], [odt - HALF, y]]
        )
        @pen.device("ODT", odt, y, text: "ODT")
        @pen.run(
          @pen.wires("outdoor.ODT.2", "outdoor.W2_in"),
          "outdoor.ODT.2",
          "outdoor.W2_in",
          [[odt + HALF, y], [w2_in, y]]
        )
        @pen.terminal("outdoor.W2_in", "W2 in", w2_in, y, place: :above)
        if @rig[:w2_path] == "one_trace"
          @pen.run(
            ["outdoor.W2_in-outdoor.W2_out"],
            "outdoor.W2_in",
            "outdoor.W2_out",
            [[w2_in, y], [x("W2_out"), y]],
            line: "copper"
          )
        else
          @pen.run(["DFR.W2_in"], "outdoor.W2_in", "outdoor.W2_out", [[w2_in, y], [x("W2_out"), y]], line: "copper")
        end
      end

      def contactor_row(y)
        column_bus("Y", y)
        from, node = start_of_string(y)
        codes = @rig[:safeties]
        codes
          .zip(@grid.string_columns(from, Grid::TAP_X - 22, codes.size))
          .each do |code, center|
            @pen.run(
              @pen.wires(node, "outdoor.#{code}.1"),
              node,
              "outdoor.#{code}.1",
              [[from, y], [center - narrow, y]]
            )
            @pen.device(code, center, y, text: code, width: narrow * 2)
            from = center + narrow
            node = "outdoor.#{code}.2"
          end
        end_of_string(from, node, y)
        return unless backup?

        column_bus("W2_out", y)
        left_contact("DFR.W2", y, "outdoor.W2_out", x("W2_out"))
        divert(y) if @trace.netlist.branch?("BOARD.divert")
      end

      # Devices of a crowded string are narrower, never under what a finger needs.
      def narrow = @rig[:safeties].size > 3 ? 20 : 25

      # On lockout the board sends Y to W2 out.
      def divert(y)
        center = (x("W2_out") + x("Y")) / 2
        center = x("W2_out") + 38 if valve?
        @pen.bus("outdoor.Y", [x("Y"), y], [center + 22, y], line: "copper")
        @pen.device("BOARD.divert", center, y, text: "LK", width: 44)
        @pen.bus("outdoor.W2_out", [center - 22, y], [x("W2_out"), y], line: "copper")
      end

      # Past the board's own contact where it has one.
      def start_of_string(y)
        delayed = @rig[:y_path] == "delay"
        start = two_stage? ? x("Y2") + 12 : x("Y") + (delayed ? 62 : 0)
        return plain_start(start, y) unless delayed

        center = two_stage? ? (x("Y") + x("Y2")) / 2 : x("Y") + 40
        @pen.bus("outdoor.Y", [x("Y"), y], [center - 19, y], line: "copper")
        @pen.device("BOARD.compressor", center, y, text: "K", width: 38)
        @pen.bus("outdoor.board.Y_out", [center + 19, y], [start, y], line: "copper")
        [start, "outdoor.board.Y_out"]
      end

      def plain_start(start, y)
        @pen.bus("outdoor.Y", [x("Y"), y], [start, y], line: "copper")
        [start, "outdoor.Y"]
      end

      def end_of_string(from, node, y)
        tap = @rig[:run_time_tap] == "on_y" ? nil : "outdoor.board.T1"
        if tap
          @pen.run(@pen.wires(node, tap), node, tap, [[from, y], [Grid::TAP_X, y]])
          @pen.terminal(tap, "T1", Grid::TAP_X, y, place: :above)
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
          center = valve_contact_x
          @pen.bus(feed, from, [center - HALF, y], line: "copper")
          @pen.device(contact, center, y, text: "DFR")
          feed = "outdoor.board.RVS"
          from = [center + HALF, y]
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
        @pen.bus("outdoor.board.RVS", [pin_x, y], [pin_x, y - Grid::ROW], line: "copper")
      end

      def hot_gas_row(y)
        left_contact("DFR.HGS", y, "outdoor.board.HGS", @grid.left_device_x + HALF + 20)
        @pen.load_row(
          "HGS",
          [@grid.left_device_x + HALF + 20, y],
          [c_x, y],
          x: Grid::LOADS_X,
          feed: "outdoor.board.HGS"
        )
      end

      def stage_2_defrost_row(y)
        left_contact("DFR.Y2", y, "outdoor.Y2", x("Y2"))
        @pen.bus("outdoor.Y2", [x("Y2"), y], [x("Y2"), @grid.foot(PLACE, "Y2")], line: "copper")
      end

      # A board contact beside R, out to a point of another column.
      def left_contact(id, y, node, to_x)
        center = @grid.left_device_x
        @pen.bus("outdoor.R", [x("R"), y], [center - HALF, y], line: "copper")
        @pen.device(id, center, y, text: "DFR")
        @pen.bus(node, [center + HALF, y], [to_x, y], line: "copper")
      end

      def board_x = [@grid.left_device_x + 120, @grid.left_device_x + 226]

      # An input of the board's own, down into it from above.
      def air_pressure_row(y)
        center = @grid.left_device_x
        left = board_x[0] + 26
        @pen.run(
          @pen.wires("outdoor.R", "outdoor.APS.1"),
          "outdoor.R",
          "outdoor.APS.1",
          [[x("R"), y], [center - HALF, y]]
        )
        @pen.device("APS", center, y, text: "APS")
        foot = @grid.row(PLACE, @rows.size - 1) - 18
        @pen.run(
          @pen.wires("outdoor.APS.2", "outdoor.board.APS_2"),
          "outdoor.APS.2",
          "outdoor.board.APS_2",
          [[center + HALF, y], [left, y], [left, foot]]
        )
      end

      # The line-voltage relay of a board that has two.
      def second_relay_row(y)
        right = board_x[1]
        @pen.load_row("DFR2", [right - 20, y], [c_x, y], x: Grid::LOADS_X, feed: "outdoor.board.DFR_drive")
        @pen.bus("outdoor.board.DFR_drive", [right - 20, y], [right - 20, y + Grid::ROW - 20], line: "copper")
      end

      # Sensors arrive on the left, supply below them; the defrost relay leaves on the right, and the board's own way
      # home below.
      def board_row(y)
        left, right = board_x
        sensors(y, left)
        low = y + Grid::BOARD_DROP
        @pen.bus("outdoor.R", [x("R"), low], [left, low])
        @pen.pill("BOARD", (left + right) / 2, y + 7, width: right - left, height: 50)
        @pen.bus("outdoor.C", [right, low], [c_x, low], way: "home")
        @pen.load_row("DFR", [right, y], [c_x, y], x: Grid::LOADS_X, feed: "outdoor.board.DFR_drive", line: "copper")
      end

      def sensors(y, left)
        return thermistors(y, left) unless @rig[:sensing] == "coil_switch"

        center = @grid.left_device_x
        @pen.run(
          @pen.wires("outdoor.R", "outdoor.DFT.1"),
          "outdoor.R",
          "outdoor.DFT.1",
          [[x("R"), y], [center - 24, y]]
        )
        @pen.device("DFT", center, y, text: "DFT", width: 48)
        @pen.run(
          @pen.wires("outdoor.DFT.2", "outdoor.board.DFT_2"),
          "outdoor.DFT.2",
          "outdoor.board.DFT_2",
          [[center + 24, y], [left, y]]
        )
      end

      # Two plugs that the board reads with volts of its own.
      def thermistors(y, left)
        { "COIL_T" => "coil t°", "AMB_T" => "air t°" }.each_with_index do |(code, words), i|
          center = left - 96 + (i * 62)
          @pen.pill(code, center, y, width: 54, text: words)
          @pen.bus("outdoor.board.#{code}_1", [center + 27, y], [i.zero? ? center + 35 : left, y], line: "copper")
        end
      end
    end
  end
end
