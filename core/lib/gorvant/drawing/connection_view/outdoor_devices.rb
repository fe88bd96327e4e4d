# frozen_string_literal: true

module Gorvant
  class ConnectionView
    # What the board's pins lead to, and the line voltage behind the contactor. Each device stands in a row of its own.
    class OutdoorDevices
      COLUMN = 76
      MOTORS = 104
      # Line-voltage boxes: { code => [pin nodes in order] }.
      LINE = {
        "DISC" => %w[outdoor.L1 outdoor.L2],
        "OL" => nil,
        "COMP" => %w[outdoor.COMP.R outdoor.COMP.S outdoor.COMP.C],
        "CAP" => %w[outdoor.CAP.C outdoor.CAP.HERM outdoor.CAP.FAN],
        "OFM" => %w[outdoor.OFM.R outdoor.OFM.S outdoor.OFM.C],
        "FCS" => nil
      }.freeze
      TITLES = { "COIL_T" => "coil t°", "AMB_T" => "air t°" }.freeze
      HALF_PIN = 11

      def initialize(trace, islands, top)
        @trace = trace
        @netlist = trace.netlist
        @islands = islands
        @top = top
        @heights = {}
        y = top - ROW
        low.each do |code|
          y += code == "CC" ? ROW * 2 : ROW
          @heights[code] = code == "CC" ? y - (ROW / 2) : y
        end
        @fan_y = y + (ROW * 2)
        outdoors = (Options.own & Options.line).select { |code| outdoors?(code) }
        @not_fitted = outdoors.reject { |code| Options.fitted?(trace.rig, code) }
        @foot = @fan_y + ROW
      end

      attr_reader :fan_y

      def foot = [@foot, motors.values.max + 40].max
      # What the panel shows and this unit lacks, in a row of its own.
      attr_reader :not_fitted

      # [Pin] on the right side of the channel that comes from the board.
      def tabs = @heights.flat_map { |code, y| two(@netlist[code], y, :right) }

      # Nodes among the board's field terminals that a device needs, though no pin of its own leads there.
      def wanted(left, own)
        left.keys.select do |node|
          tabs.any? { |tab| @islands.same?(tab.node, node) } && own.none? { |pin| @islands.same?(pin, node) }
        end
      end

      # The channel of line voltage: contactor, fan relay and what follows.
      def line_channel(pen)
        pins = cc_tabs + two(@netlist["DFR.fan"], fan_y, :left) + motors.flat_map { |code, y| motor_pins(code, y) }
        Channel
          .new(LANE)
          .tap do |channel|
            pins
              .group_by { |pin| @islands.root(pin.node) }
              .each_value do |set|
                channel.add(set) { |*at| ConnectionView.tree(pen, set, *at, "line_voltage") } if set.size > 1
              end
          end
      end

      # Draws all: devices with their middle at x, motors at far.
      def place(pen, x, far)
        @heights.each { |code, y| device(pen, code, x, y) }
        pen.symbol_box("DFR.fan", x, fan_y, width: COLUMN, text: "DFR fan")
        motors.each { |code, y| motor(pen, code, far, y) }
      end

      private

      # Codes of the low-voltage devices that are there, from above.
      def low
        hung, switched = (Options.low - Options.string("safeties")).partition { |code| Options.across.include?(code) }
        own = (switched & Options.switches).select { |code| outdoors?(code) }
        all = %w[Y2S CC2] + Options.string("safeties") + %w[CC RVS RVR HGS] + hung + own + %w[DFT COIL_T AMB_T]
        all.select { |code| @netlist.branch?(code) }
      end

      def outdoors?(code) = Catalogue.facts.dig(Options.fact(code), "group") == "outdoor"

      def two(branch, y, side) =
        [[branch.from, y - TAB], [branch.to, y + TAB]].map { |node, at| Pin.new(node: node, side: side, y: at) }

      def device(pen, code, x, y)
        return contactor(pen, x, y) if code == "CC"

        pen.symbol_box(code, x, y, width: COLUMN, text: TITLES.fetch(code, code))
      end

      # The coil's tabs on the left, the line's on the right.
      def contactor(pen, x, y)
        pen.symbol_box("CC", x, y, width: COLUMN, height: 76, text: "CC")
        cc_tabs.each do |pin|
          pen.label(
            pin.node.split(".").last,
            x + (COLUMN / 2) - 5,
            pin.y + 5,
            anchor: "end",
            size: 12,
            role: "sub",
            station: "CC"
          )
        end
      end

      def cc_tabs =
        %w[L1 T1 T2 L2].each_with_index.map do |tab, i|
          Pin.new(node: "outdoor.CC.#{tab}", side: :left, y: @heights.fetch("CC") - 27 + (18 * i))
        end

      # { code => y } of the line-voltage boxes, each as high as it can stand without a tab level with one across the
      # channel.
      def motors
        @motors ||=
          LINE
            .keys
            .select { |code| code == "DISC" || @netlist.branch?(code) || code == "CAP" }
            .each_with_object({}) do |code, places|
              above = places.empty? ? @top - 20 : places.values.last + half(places.keys.last)
              places[code] = (above + half(code)).step.find do |y|
                motor_pins(code, y).none? { |pin| across.any? { |other| (other - pin.y).abs < 8 } }
              end
            end
      end

      def half(code) = pins_of(code).size > 2 ? 38 : 24
      def across = @across ||= (cc_tabs + two(@netlist["DFR.fan"], fan_y, :left)).map(&:y)

      def pins_of(code) = LINE[code] || [@netlist[code].from, @netlist[code].to]

      def motor_pins(code, y)
        nodes = pins_of(code)
        first = y - (HALF_PIN * (nodes.size - 1)) + 3
        nodes.each_with_index.map { |node, i| Pin.new(node: node, side: :right, y: first + (HALF_PIN * 2 * i)) }
      end

      def motor(pen, code, x, y)
        pins = motor_pins(code, y)
        pen.line_box(code, x, y, width: MOTORS, height: pins.size > 2 ? 72 : 44, nodes: pins.map(&:node))
        unless %w[OL FCS].include?(code)
          pins.each do |pin|
            pen.label(
              pin.node.split(".").last,
              x - (MOTORS / 2) + 6,
              pin.y + 4,
              size: 12,
              role: "sub",
              station: "line/#{code}"
            )
          end
        end
      end
    end
  end
end
