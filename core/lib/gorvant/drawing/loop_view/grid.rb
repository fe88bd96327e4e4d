# frozen_string_literal: true

module Gorvant
  class LoopView
    # Where things stand: columns by function, rows by loop. Pixels; no station's target nearer than 44 to its neighbour's.
    class Grid
      WIDTH = 1000
      ROW = 44
      GAP = 28
      TOP = 28 # from the top of a band to its terminals
      FOOT = 26 # from the last row to the foot of a band
      THERMOSTAT_BUS_Y = 22
      THERMOSTAT_SWITCH_Y = 54
      WALL_TERMINALS_Y = 102
      R_X = 78
      C_X = 950
      LOADS_X = 864
      TAP_X = 792
      TRAN_X = 690
      NOTE_X = 650
      STEP = 62
      DEVICE_STEP = 60 # from one device of a string to the next

      attr_reader :height

      # rows: { "air_handler" => count, "outdoor" => count }
      def initialize(rig, rows)
        @rig = rig
        @feet = {}
        place_columns
        place_bands(rows)
      end

      def column(place, terminal) = @columns.fetch(key(place, terminal))
      def terminal_y(place) = place == "wall" ? WALL_TERMINALS_Y : @bands[place][0] + TOP
      def row(place, index) = terminal_y(place) + (ROW * (index + 1))
      def bands = @bands.transform_values(&:dup)
      # Left of the first column that reaches outdoors, where board contacts from R stand.
      def left_device_x = (R_X + @columns.fetch("W")) / 2
      def last_column_x = @columns.except("C", "G").values.max

      # Notes how far down a column has been drawn inside its band.
      def reached(place, terminal, y) = @feet[[place, column(place, terminal)]] = y
      def foot(place, terminal) = @feet.fetch([place, column(place, terminal)], terminal_y(place))
      def upper_first(*places) = places.sort_by { |place| @bands.fetch(place)[0] }

      def gap_note_y(*places)
        upper, lower = upper_first(*places)
        upper == "wall" && lower == "outdoor" ? nil : @bands[upper].sum + 19
      end

      # A way through the gap between two bands for a conductor that changes column.
      def lane(upper, from, to, number)
        y = @bands[upper].sum + 3 + ((number * 7) % 21)
        [from, [from[0], y], [to[0], y], to]
      end

      # Centres of a string of devices from an x to another.
      def string_columns(from, to, count)
        step = [DEVICE_STEP + 16, (to - from) / (count + 0.5)].min
        (0...count).map { |i| (from + (step * (i + 0.75))).round }
      end

      private

      # The column that a terminal stands in. Of O and B the one that the valve needs runs through, the other ends at the wall.
      def key(_place, terminal)
        return "changeover" if terminal == "OB" || terminal == @rig.changeover
        return "other" if %w[O B].include?(terminal)
        return "W" if %w[W W2_out].include?(terminal) || (terminal == "W2" && !@rig[:outdoor_thermostat])
        return "W2" if terminal == "W2"

        terminal == "W2_in" ? "W2_in" : terminal
      end

      def place_columns
        x = R_X
        @columns = { "R" => R_X, "C" => C_X }
        used = @rig.terminals("wall").map { |terminal| key("wall", terminal) } + ["W"]
        if @rig[:outdoor_thermostat]
          @columns.update("W2" => x += 54, "E" => x += 58, "other" => x += 58, "W2_in" => x += 44, "W" => x += 60)
        else
          @columns.update("E" => x += 72, "W" => x += 72)
        end
        x += 14 # room for "W2 out" beside its terminal
        %w[other changeover Y Y2 G].each { |name| @columns[name] ||= x += STEP if used.include?(name) }
      end

      def place_bands(rows)
        wall = [0, 126]
        indoor = [wall.sum + GAP, TOP + (ROW * rows.fetch("air_handler")) + FOOT]
        outdoor = [indoor.sum + GAP, TOP + (ROW * rows.fetch("outdoor")) + FOOT]
        @bands = { "wall" => wall, "air_handler" => indoor, "outdoor" => outdoor }
        @height = outdoor.sum
      end
    end
  end
end
