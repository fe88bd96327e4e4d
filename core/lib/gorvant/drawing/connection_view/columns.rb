# frozen_string_literal: true

module Gorvant
  class ConnectionView
    # x of every column, from left to right, each as wide as what stands in it needs.
    class Columns
      HALF = SCREW / 2

      # widths: of the channels { a:, indoor:, b:, copper: [left, right], pins:, line: }.
      def initialize(widths)
        @x = { bus: 34, switch: 66, wall: 104 + HALF }
        @at = @x[:wall] + HALF
        indoors(widths)
        outdoors(widths)
      end

      def [](name) = @x.fetch(name)

      private

      # Goes right by so much and names the place.
      def mark(name, by) = @x[name] = (@at = (@at + by).round)

      def indoors(widths)
        mark(:wall_edge, 10)
        mark(:lanes_a, 4)
        mark(:indoor_edge, widths[:a] + NAMES)
        mark(:air_handler, widths[:indoor] + HALF)
        mark(:lanes_b, HALF + 16)
        mark(:board_edge, widths[:b] + NAMES)
      end

      def outdoors(widths)
        mark(:outdoor, 8 + HALF)
        mark(:contacts, HALF + widths[:copper][0] + (Board::COLUMN / 2))
        mark(:pins, (Board::COLUMN / 2) + widths[:copper][1] + HALF)
        mark(:devices, HALF + widths[:pins] + (OutdoorDevices::COLUMN / 2))
        mark(:motors, (OutdoorDevices::COLUMN / 2) + widths[:line] + (OutdoorDevices::MOTORS / 2))
        mark(:right, (OutdoorDevices::MOTORS / 2) + 14)
      end
    end
  end
end
