# frozen_string_literal: true

module Gorvant
  class LoopView
    # Where things stand: columns by function, rows by loop, in pixels. No station's target is nearer than a finger to
    # its neighbor's, and what is folded away takes no room.
    class Grid
      WIDTH = 924
      ROW = Station::TOUCH
      GAP = 20
      BESIDE = 8
      LANE = 8 # of a conductor that changes column
      TOP = 24 # from the top of a band to its terminals
      FOOT = 23 # from the last row to the foot of a band
      LAST_FOOT = 8 # under the lane of the board's supply
      THERMOSTAT_BUS_Y = 10
      THERMOSTAT_SWITCH_Y = 40
      WALL_TERMINALS_Y = 84
      WALL_HEIGHT = 105
      BOARD_DROP = 26 # from the board's row to the lane of its supply
      R_X = 58
      C_X = 894
      LOADS_X = 822
      TAP_X = 756
      TRAN_X = 640
      NOTE_X = 600
      STEP = 52
      DEVICE_STEP = 46 # from one device of a string to the next

      # Which columns belong to what can be folded away, in the order in which they are, until the drawing fits.
      FUNCTIONS = {
        "other" => %w[other W1],
        "stage_2" => %w[Y2],
        "backup" => %w[W W2 W2_in E],
        "changeover" => %w[changeover],
        "blower" => %w[G]
      }.freeze

      attr_reader :height

      # rows: { "air_handler" => pixels, "outdoor" => pixels } under the terminals; lanes: { [place, place] => count };
      # folded: keys of FUNCTIONS.
      def initialize(rig, rows, lanes: {}, folded: [])
        @rig = rig
        @folded = folded.flat_map { |name| FUNCTIONS.fetch(name) }
        @lanes = lanes
        @feet = {}
        place_columns
        place_bands(rows)
      end

      # The column that a terminal stands in. Of O and B the one that the valve needs runs through, the other ends at
      # the wall.
      def self.key(rig, terminal)
        return "changeover" if terminal == "OB" || terminal == rig.changeover
        return "other" if %w[O B].include?(terminal)
        return "W" if %w[W W2_out].include?(terminal) || (terminal == "W2" && !rig[:outdoor_thermostat])

        terminal
      end

      def shows?(terminal) = !@folded.include?(key(terminal))
      def column(terminal) = @columns.fetch(key(terminal))
      def terminal_y(place) = place == "wall" ? WALL_TERMINALS_Y : @bands[place][0] + TOP
      def row(place, index) = terminal_y(place) + (ROW * (index + 1))
      def bands = @bands.transform_values(&:dup)
      # Left of the first column that reaches outdoors, where board contacts from R stand.
      def left_device_x = (R_X + @columns.fetch("W", R_X + 120)) / 2
      def rightmost_x = @columns.except("C").values.max
      def last_column_x = @columns.except("C", "G").values.max

      # Notes how far down a column has been drawn inside its band.
      def reached(place, terminal, y) = @feet[[place, column(terminal)]] = y
      def foot(place, terminal) = @feet.fetch([place, column(terminal)], terminal_y(place))
      def upper_first(*places) = places.sort_by { |place| @bands.fetch(place)[0] }

      # The top and foot of the gap under a band.
      def gap(place)
        top = @bands[place].sum
        [top, @bands.values.map(&:first).select { |y| y >= top }.min || top]
      end

      # A way through the gap between two bands for a conductor that changes column. It arrives beside the middle, where
      # one that comes straight down would lie.
      def lane(upper, from, to, number)
        y = @bands[upper].sum + 4 + (number * LANE)
        [from, [from[0], y], [to[0] - BESIDE, y], [to[0] - BESIDE, to[1]]]
      end

      # Centers of a string of devices between two x.
      def string_columns(from, to, count)
        step = [DEVICE_STEP + 24, (to - from).to_f / [count, 1].max].min
        (0...count).map { |i| (from + (step * (i + 0.5))).round }
      end

      private

      def key(terminal) = self.class.key(@rig, terminal)

      def place_columns
        x = R_X
        @columns = { "R" => R_X, "C" => C_X }
        add = lambda { |name, step| @columns[name] = x += step unless @folded.include?(name) }
        if @rig[:outdoor_thermostat]
          { "W2" => 56, "E" => 50, "W2_in" => 60, "W" => 64 }.each { |name, step| add.call(name, step) }
        else
          add.call("E", 60)
          add.call("W", 60)
        end
        x = R_X + 120 if @folded.include?("W") # room for the board's contacts
        used = @rig.terminals("wall").map { |terminal| key(terminal) }
        x += 28 unless used.include?("other") && !@folded.include?("other") # room for "W2 out" beside its terminal
        runs = %w[W1 other changeover Y Y2 G] & used
        runs.each { |name| add.call(name, runs.size > 5 ? DEVICE_STEP : STEP) }
      end

      def place_bands(rows)
        wall = [0, WALL_HEIGHT]
        indoor = [wall.sum + gap_height("wall", "air_handler"), TOP + rows.fetch("air_handler") + FOOT]
        outdoor = [indoor.sum + gap_height("air_handler", "outdoor"), TOP + rows.fetch("outdoor") + LAST_FOOT]
        @bands = { "wall" => wall, "air_handler" => indoor, "outdoor" => outdoor }
        @height = outdoor.sum
      end

      def gap_height(*places) = GAP + (LANE * @lanes.fetch(places.sort, 0))
    end
  end
end
