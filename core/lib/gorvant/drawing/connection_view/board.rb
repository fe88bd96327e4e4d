# frozen_string_literal: true

module Gorvant
  class ConnectionView
    # The defrost board from its field terminals on the left to its pins on the right: copper, and the relay contacts
    # between.
    class Board
      COLUMN = 56
      VIA = 22
      PINS = {
        "outdoor.board.Y_out" => "Y →",
        "outdoor.board.Y_in" => "→ Y",
        "outdoor.board.M" => "M",
        "outdoor.board.T1" => "T1",
        "outdoor.board.RVS" => "RVS",
        "outdoor.board.HGS" => "HGS",
        "outdoor.board.APS_1" => "APS",
        "outdoor.board.APS_2" => "APS in",
        "outdoor.board.DFT_1" => "DFT",
        "outdoor.board.DFT_2" => "DFT in",
        "outdoor.board.COIL_T_1" => "coil",
        "outdoor.board.COIL_T_2" => "coil C",
        "outdoor.board.AMB_T_1" => "air",
        "outdoor.board.AMB_T_2" => "air C"
      }.freeze
      BETWEEN = %w[
        BOARD.compressor
        BOARD.divert
        DFR.valve_rest
        DFR.valve
        DFR.W2_in
        DFR.W2
        DFR.Y2
        DFR.HGS
        BOARD
        BOARD.defrost
        DFR
        DFR2
      ].freeze
      NAMES = { "BOARD.compressor" => "K", "BOARD.divert" => "LK", "BOARD.defrost" => "out" }.freeze

      # islands: Islands of plain copper. left: { terminal node => y }. wanted: terminal nodes that devices need on the
      # right too.
      def initialize(trace, islands, left, wanted, top)
        @netlist = trace.netlist
        @islands = islands
        @left = left
        @top = top
        @right =
          (wanted + PINS.keys.select { |node| @netlist.node?(node) }).each_with_index.to_h do |node, i|
            [node, top + (ROW / 2) + (ROW * i)]
          end
        @heights = BETWEEN.select { |id| @netlist.branch?(id) }.each_with_index.to_h { |id, i| [id, top + (ROW * i)] }
        @passing = {} # { node => y } of copper that passes under the contacts
        gather
      end

      # { node => y } of the pins on the right.
      def pins = @right
      def foot = [*@heights.values, *@right.values, *@passing.values].max + (ROW / 2)

      # The two channels: left of the contacts, right of them.
      def channels(pen)
        @sets.values.transpose.map do |sets|
          Channel
            .new(LANE)
            .tap do |channel|
              sets
                .select { |pins| pins.size > 1 }
                .each { |pins| channel.add(pins) { |*at| ConnectionView.tree(pen, pins, *at, "copper") } }
            end
        end
      end

      # Draws contacts and coils with their middle at x.
      def place(pen, x)
        @heights.each do |id, y|
          pen.symbol_box(id, x, y, width: COLUMN, text: NAMES.fetch(id, id.start_with?("DFR.") ? "DFR" : id))
        end
        @passing.each { |node, y| pen.bus(node, [x - (COLUMN / 2), y], [x + (COLUMN / 2), y], line: "copper") }
      end

      private

      # { copper set => [pins in the left channel, pins in the right channel] }
      def gather
        @sets = Hash.new { |hash, key| hash[key] = [[], []] }
        @left.each { |node, y| add(node, 0, :left, y) }
        @right.each { |node, y| add(node, 1, :right, y) }
        @heights.each { |id, y| tabs(@netlist[id], y) }
        @sets.each_value { |set| pass(set) }
      end

      def add(node, channel, side, y) = @sets[@islands.root(node)][channel] << Pin.new(node: node, side: side, y: y)

      # Both ends on the left, unless one leads to a pin on the right alone.
      def tabs(branch, y)
        add(branch.from, 0, :right, y - TAB)
        to_the_right?(branch.to) ? add(branch.to, 1, :left, y - TAB) : add(branch.to, 0, :right, y + TAB)
      end

      def to_the_right?(node) =
        @left.none? { |left, _y| @islands.same?(left, node) } && @right.any? { |pin, _y| @islands.same?(pin, node) }

      def pass(set)
        left, right = set
        return if left.none? || right.none? || right.any? { |pin| pin.side == :left }

        node = left.first.node
        y = @heights.values.max + (ROW / 2) + 8 + (VIA * @passing.size)
        y += TAB while @right.values.any? { |pin| (pin - y).abs < TAB / 2 } # not along a pin's own leg
        @passing[node] = y
        left << Pin.new(node: node, side: :right, y: y)
        right << Pin.new(node: node, side: :left, y: y)
      end
    end
  end
end
