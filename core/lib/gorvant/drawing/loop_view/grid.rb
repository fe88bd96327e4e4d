# frozen_string_literal: true

module Gorvant
  class LoopView
    # Where things stand: columns by function, rows by loop. Pixels; nothing closer than 44 to its neighbour.
    class Grid
      WIDTH = 940
      HEIGHT = 596
      ROW = 44
      BANDS = { "wall" => [0, 126], "air_handler" => [154, 184], "outdoor" => [366, 230] }.freeze
      TERMINALS_Y = { "wall" => 102, "air_handler" => 182, "outdoor" => 394 }.freeze
      AIR_HANDLER_ROWS = [226, 270, 314].freeze
      OUTDOOR_ROWS = [438, 482, 526, 570].freeze
      THERMOSTAT_BUS_Y = 22
      THERMOSTAT_SWITCH_Y = 54
      COLUMNS = { "R" => 84, "E" => 168, "W" => 252, "changeover" => 336, "Y" => 420, "G" => 540, "C" => 890 }.freeze
      SAME_COLUMN = { "W2" => "W", "W2_out" => "W", "O" => "changeover", "B" => "changeover" }.freeze
      LEFT_DEVICE_X = 168
      LOADS_X = 800
      TRAN_X = 640
      TAP_X = 718
      B_CONTACT_X = 486
      BOARD_X = [300, 396].freeze
      NOTE_X = 580
      SAFETIES_X = [490, 648].freeze

      def initialize(_rig) = @feet = {}

      def column(terminal) = COLUMNS.fetch(SAME_COLUMN.fetch(terminal, terminal))
      def terminal_y(place) = TERMINALS_Y.fetch(place)

      # Notes how far down a column has been drawn inside its band.
      def reached(place, terminal, y) = @feet[[place, column(terminal)]] = y
      def foot(place, terminal) = @feet.fetch([place, column(terminal)], terminal_y(place))

      def upper_first(*places) = places.sort_by { |place| BANDS.fetch(place)[0] }

      def gap_note_y(*places)
        upper, lower = upper_first(*places)
        foot = BANDS[upper].sum
        lower == "outdoor" && upper == "wall" ? nil : foot + 18
      end

      # A way through the gap between two bands for a conductor that changes column.
      def lane(upper, from, to, number)
        y = BANDS[upper].sum + 4 + ((number * 7) % 22)
        [from, [from[0], y], [to[0], y], to]
      end

      # Centres of a string of safeties between Y and the run-time tap.
      def safety_columns(count)
        return [SAFETIES_X.sum / 2] if count == 1

        (0...count).map { |i| (SAFETIES_X[0] + ((SAFETIES_X[1] - SAFETIES_X[0]) * i / [count - 1, 1].max)).round }
      end
    end
  end
end
