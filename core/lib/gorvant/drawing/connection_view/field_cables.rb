# frozen_string_literal: true

module Gorvant
  class ConnectionView
    # The field cables between two neighboring places, each conductor in its sheath with its color where it arrives.
    class FieldCables
      # rows: { place => { terminal node => y } }; places: the upper and the lower; tabs: { node => y } of devices that
      # a conductor leaves from instead of a screw.
      def initialize(rig, pen, rows, places, tabs)
        @rig = rig
        @pen = pen
        @rows = rows
        @places = places
        @tabs = tabs
        @names = Hash.new { |hash, place| hash[place] = [] }
        @channel = Channel.new(FIELD_LANE)
        conductors.each { |cable, conductor, ends| add(cable, conductor, ends) }
      end

      def width = @channel.width

      # names_end: x where the room for colors ends.
      def draw(left, right, lanes_from:, names_end:)
        @names_end = names_end
        @channel.draw(left, right, lanes_from: lanes_from)
        @names.each { |(x, y), words| @pen.label(words.join(" "), x, y, anchor: "middle", size: 12, role: "color") }
      end

      private

      # [[Cable, Conductor, [node at the upper place, node at the lower]]] of conductors landed at both ends.
      def conductors
        @rig
          .cables
          .select { |cable| [cable.from, cable.to].sort == @places.sort }
          .flat_map do |cable|
            cable.conductors.filter_map do |conductor|
              ends = { cable.from => conductor.from, cable.to => conductor.to }
              if ends.values.all?
                [cable, conductor, @places.map { |place| Assembly::Cables.landing(@rig, cable, place, ends[place]) }]
              end
            end
          end
      end

      def add(cable, conductor, ends)
        heights = ends.zip(@places).map { |node, place| @tabs.fetch(node) { @rows[place][node] } }
        off = heights.uniq.one? ? 0 : OFF
        pins = [
          Pin.new(node: ends[0], side: :left, y: heights[0] + off),
          Pin.new(node: ends[1], side: :right, y: heights[1] - off)
        ]
        @channel.add(pins) do |lane, left, right|
          run(cable, conductor, pins, [left, lane || left, lane || left, right])
        end
      end

      def run(cable, conductor, pins, xs)
        y = pins.map(&:y)
        points = xs.zip([y[0], y[0], y[1], y[1]])
        name_at(conductor, y)
        @pen.run(
          branches(cable, conductor),
          *pins.map(&:node),
          points,
          way: pins.all? { |pin| pin.node.end_with?(".C") } ? "home" : "out",
          color: conductor.color,
          sheath: conductor.color.downcase.tr(" ", "_"),
          line: "field",
          marks: splices(conductor, y[1])
        )
      end

      def branches(cable, conductor)
        id = "#{cable.id}.#{conductor.id}"
        pieces = conductor.splices.flat_map { |splice| ["#{id}/#{splice.id}", "#{id}/after_#{splice.id}"] }
        all = ["#{id}@#{cable.from}", id, *pieces, "#{id}@#{cable.to}"]
        cable.from == @places[0] ? all : all.reverse
      end

      def splices(conductor, y) =
        conductor.splices.each_index.map { |i| { kind: "splice", x: @names_end - NAMES - 8 - (i * 14), y: y } }

      # Under a straight conductor, over one that arrives from its lane.
      def name_at(conductor, heights)
        @names[[@names_end - (NAMES / 2), heights[1] + (heights.uniq.one? ? 15.5 : -8)]] << Naming.sheath_codes(
          conductor
        )
      end
    end
  end
end
