# frozen_string_literal: true

module Gorvant
  class ConnectionView
    # Where a wire arrives: node, side of the channel (:left or :right), height.
    Pin = Value.define(:node, :side, :y)
    # What a channel has to join. span: heights that its lane covers, nil for a straight way. draw: called with the x of
    # its lane and of the channel's two edges.
    Net = Value.define(:pins, :span, :draw)

    # The room between two columns of pins. Each net that is not straight has a vertical lane, shared only with nets
    # that lie wholly above or below.
    class Channel
      CLEAR = 9 # pixels between two nets in one lane
      MARGIN = 8

      def initialize(step)
        @step = step
        @nets = []
      end

      # pins: [Pin]; the block draws the net.
      def add(pins, &draw)
        heights = pins.map(&:y)
        straight = pins.size == 2 && heights.uniq.one? && pins.map(&:side).uniq.size == 2
        @nets << Net.new(pins: pins, span: straight ? nil : heights.minmax, draw: draw)
      end

      def width = (lanes.size * @step) + (MARGIN * 2)

      # left, right: x of the edges that pins stand at; lanes begin at x.
      def draw(left, right, lanes_from: left + MARGIN)
        @nets.reject(&:span).each { |net| net.draw.call(nil, left, right) }
        lanes.each_with_index do |nets, i|
          nets.each { |net| net.draw.call(lanes_from + (@step * (i + 0.5)), left, right) }
        end
      end

      private

      def lanes
        @lanes ||=
          @nets
            .select(&:span)
            .sort_by { |net| [net.span, net.pins.map(&:node)] }
            .each_with_object([]) do |net, lanes|
              free =
                lanes.find do |lane|
                  lane.all? { |other| other.span[1] + CLEAR < net.span[0] || other.span[0] - CLEAR > net.span[1] }
                end
              free ? free << net : lanes << [net]
            end
      end
    end
  end
end
