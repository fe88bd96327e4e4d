# frozen_string_literal: true

require_relative "connection_view/sizes"
require_relative "connection_view/channel"
require_relative "connection_view/connection_pen"
require_relative "connection_view/board"
require_relative "connection_view/outdoor_devices"
require_relative "connection_view/field_cables"
require_relative "connection_view/columns"

module Gorvant
  # Where things are: terminal strips at three places with the field cables between them, each conductor in its color;
  # the board with its copper; what its pins lead to; line voltage behind the contactor. A function has one row through
  # all places, so that a conductor that is not straight is one that lands elsewhere.
  class ConnectionView
    # Joins the pins of one net: a trunk in its lane with a leg to each, or one straight way.
    def self.tree(pen, pins, lane, left, right, line)
      x = { left: left, right: right }
      hub = pins.first.node
      return pen.leg(hub, pins.last.node, pins.map { |pin| [x[pin.side], pin.y] }, line) unless lane

      pen.trunk(hub, lane, pins.map(&:y).minmax, line)
      pins.each { |pin| pen.leg(hub, pin.node, [[lane, pin.y], [x[pin.side], pin.y]], line) }
    end

    def self.scene(trace) = new(trace).scene

    def initialize(trace)
      @trace = trace
      @rig = trace.rig
      @netlist = trace.netlist
      @pen = ConnectionPen.new(trace)
      @islands = Islands.new(@netlist.nodes, @netlist.branches.select { |branch| copper?(branch) }, [])
      @bands = []
    end

    def scene
      lay_out
      draw
      Scene.new(
        view: "connections",
        title: @pen.title,
        width: @x[:right],
        height: @height,
        bands: @bands,
        links: @pen.links,
        stations: @pen.stations,
        labels: @pen.labels
      )
    end

    private

    # Factory wire and board traces: what joins points for good, and is no field cable.
    def copper?(branch)
      branch.kind == :wire && branch.component.nil? && !branch.id.include?("@") &&
        @rig.jumpers.none? { |jumper| jumper.id == branch.id } && !branch.id.start_with?("short.")
    end

    # { terminal node => y } by place: one row a function.
    def rows
      @rows ||=
        begin
          keys =
            PLACES.to_h do |place|
              [place, @rig.terminals(place).to_h { |terminal| [terminal, LoopView::Grid.key(@rig, terminal)] }]
            end
          order =
            %w[R C Y Y2 G changeover other W1 W2 W W2_in E].select do |key|
              keys.values.any? { |place| place.value?(key) }
            end
          keys.to_h do |place, terminals|
            [place, terminals.to_h { |terminal, key| ["#{place}.#{terminal}", TOP + (ROW * order.index(key))] }]
          end
        end
    end

    def rows_foot = rows.values.flat_map(&:values).max

    def lay_out
      @devices = OutdoorDevices.new(@trace, @islands, TOP)
      own = Board::PINS.keys.select { |node| @netlist.node?(node) }
      @board = Board.new(@trace, @islands, rows.fetch("outdoor"), @devices.wanted(rows.fetch("outdoor"), own), TOP)
      @field =
        PLACES
          .each_cons(2)
          .to_h { |upper, lower| [upper, FieldCables.new(@rig, @pen, rows, [upper, lower], switch_tabs)] }
      @indoor = indoor_channel
      @copper = @board.channels(@pen)
      @pins = pin_channel
      @line = @devices.line_channel(@pen)
      @x = columns
      @height = foot.round + (@devices.not_fitted.any? ? 60 : 12)
    end

    def columns =
      Columns.new(
        a: @field["wall"].width,
        indoor: @indoor.width,
        b: @field["air_handler"].width,
        copper: @copper.map(&:width),
        pins: @pins.width,
        line: @line.width
      )

    def foot = [rows_foot + ROW, indoor_heights.values.max.to_f + ROW, @board.foot + 10, @devices.foot + 10].max

    # What stands in the air handler under the strip, each with both tabs to the left.
    def indoor_heights
      codes = [
        *("FU" if @netlist.branch?("FU")),
        *%w[FLS FRS].select { |code| @netlist.branch?(code) },
        "TRAN",
        "IFR",
        *Assembly::AirHandler.heat_codes(@rig)
      ]
      codes.each_with_index.to_h { |code, i| [code, rows_foot + (ROW * (i + 1))] }
    end

    # { tab of a switch that Y leaves the air handler by => y }
    def switch_tabs =
      Assembly::Cables.in_y(@rig).last(1).to_h { |code| ["air_handler.#{code}.2", indoor_heights.fetch(code) + TAB] }

    def indoor_channel
      tabs =
        indoor_heights.flat_map do |code, y|
          branch = @netlist[code]
          [[branch.from, y - TAB], [branch.to, y + TAB]].map { |node, at| Pin.new(node: node, side: :right, y: at) }
        end
      strip = rows.fetch("air_handler").map { |node, y| Pin.new(node: node, side: :right, y: y + (OFF * 1.5).round) }
      sets(Channel.new(LANE), tabs + strip, "factory")
    end

    def pin_channel
      sets(
        Channel.new(LANE),
        @board.pins.map { |node, y| Pin.new(node: node, side: :left, y: y) } + @devices.tabs,
        "factory"
      )
    end

    def sets(channel, pins, line)
      pins
        .group_by { |pin| @islands.root(pin.node) }
        .each_value { |set| channel.add(set) { |*at| ConnectionView.tree(@pen, set, *at, line) } if set.size > 1 }
      channel
    end

    def draw
      thermostat
      rows.each { |place, nodes| nodes.each { |node, y| @pen.screw(node, letter(node), @x[place.to_sym], y) } }
      field("wall", "air_handler", lanes_from: @x[:lanes_a], names_end: @x[:indoor_edge])
      @indoor.draw(@x[:indoor_edge] + 2, @x[:air_handler] - (SCREW / 2))
      indoor_heights.each { |code, y| indoor(code, @x[:air_handler], y) }
      field("air_handler", "outdoor", lanes_from: @x[:lanes_b], names_end: @x[:board_edge])
      board
      jumpers
      boxes
      cable_names
    end

    # The cable from the strip of one place to that of the next.
    def field(from, upto, **lanes)
      half = SCREW / 2
      @field[from].draw(@x[from.to_sym] + half, @x[upto.to_sym] - half, **lanes)
    end

    def letter(node) = Naming.letter(@rig, node.split(".").last)

    # A hook beside the strip, from screw to screw.
    def jumpers
      @rig.jumpers.each_with_index do |jumper, i|
        ends =
          [jumper.from, jumper.to].map { |terminal| "#{jumper.place}.#{terminal}" }
            .sort_by { |node| rows[jumper.place][node] }
        @pen.run([jumper.id], *ends, hook(jumper.place, ends, 6 + (i * 3)), line: "field")
      end
    end

    # Out from the strip by so much, and back to it.
    def hook(place, ends, by)
      side = place == "outdoor" ? -1 : 1
      x = @x[place.to_sym] + (side * SCREW / 2)
      out = x + (side * by)
      high, low = ends.map { |node| rows[place][node] }
      [[x, high + OFF + 3], [out, high + OFF + 3], [out, low - OFF - 3], [x, low - OFF - 3]]
    end

    def indoor(code, x, y)
      if code == "TRAN"
        @pen.transformer(x, y, SCREW, "#{format("%g", @rig[:transformer_va])} VA")
      else
        @pen.symbol_box(code, x, y, width: SCREW, text: code)
      end
    end

    def board
      half = SCREW / 2
      contacts = (@x[:contacts] - (Board::COLUMN / 2))..(@x[:contacts] + (Board::COLUMN / 2))
      @copper[0].draw(@x[:outdoor] + half, contacts.begin)
      @board.place(@pen, @x[:contacts])
      @copper[1].draw(contacts.end, @x[:pins] - half)
      @board.pins.each { |node, y| @pen.pin(node, Board::PINS.fetch(node) { letter(node) }, @x[:pins], y) }
      devices(@x[:pins] + half)
      not_fitted
    end

    def devices(from)
      edge = @x[:devices] - (OutdoorDevices::COLUMN / 2)
      @pins.draw(from, edge)
      @devices.place(@pen, @x[:devices], @x[:motors])
      @line.draw(edge + OutdoorDevices::COLUMN, @x[:motors] - (OutdoorDevices::MOTORS / 2))
    end

    def not_fitted
      return if @devices.not_fitted.empty?

      @pen.label("on the panel, not fitted", @x[:board_edge] + 10, @height - 29, size: 12.5, role: "note")
      @devices.not_fitted.each_with_index do |code, i|
        @pen.ghost(code, @x[:board_edge] + 200 + (i * 78), @height - 34, width: 60)
      end
    end

    # The thermostat's switches beside its screws, fed from R down their left side.
    def thermostat
      switched = rows.fetch("wall").except("wall.R", "wall.C")
      bus = @x[:bus]
      y = rows["wall"]["wall.R"]
      @pen.bus("wall.R", [@x[:wall] - (SCREW / 2), y], [bus, y], [bus, switched.values.max])
      switched.each do |node, row|
        terminal = node.split(".").last
        @pen.bus("wall.R", [bus, row], [@x[:switch] - 22, row])
        @pen.symbol_box("THERMOSTAT.#{terminal}", @x[:switch], row, width: 44, text: "sw")
        @pen.bus(node, [@x[:switch] + 22, row], [@x[:wall] - (SCREW / 2), row])
      end
      electronics(rows_foot + ROW)
    end

    def electronics(y)
      unless @netlist.branch?("THERMOSTAT")
        return @pen.label("thermostat on battery", 18, y + 5, size: 13, role: "note")
      end

      @pen.symbol_box("THERMOSTAT", @x[:switch] + 30, y, width: 80, text: "T’STAT")
      @pen.label("fed from R and C", @x[:switch] + 30, y + 32, anchor: "middle", size: 12, role: "sub")
    end

    def boxes
      box("wall", 6, @x[:wall_edge])
      box("air_handler", @x[:indoor_edge], @x[:air_handler] + (SCREW / 2) + 8)
      box("outdoor", @x[:board_edge], @x[:right] - 4)
      board_box
    end

    def board_box
      board_right = @x[:pins] + (SCREW / 2) + 4
      @bands << Band.new(
        id: "board",
        x: @x[:board_edge] + 4,
        y: TOP - 28,
        width: board_right - @x[:board_edge] - 4,
        height: @board.foot - TOP + 30
      )
      @pen.label(
        Catalogue.boards.fetch(@rig[:board_family]).fetch("title").then { |title| "defrost board, #{title} family" },
        @x[:contacts],
        31,
        anchor: "middle",
        size: 12.5,
        role: "note"
      )
    end

    def box(place, left, right)
      @bands << Band.new(id: place, x: left, y: 0, width: right - left, height: @height - 2)
      @pen.label(@rig.place_title(place), left + 8, 15, size: 13, weight: TextSize::BOLD, role: "band")
    end

    def cable_names
      [
        ["wall", "air_handler", :wall_edge, :indoor_edge],
        ["air_handler", "outdoor", :lanes_b, :board_edge]
      ].each do |from, to, left, right|
        cables = @rig.cables.select { |cable| [cable.from, cable.to].sort == [from, to].sort }
        middle = (@x[left] + @x[right]) / 2
        cables.each_with_index do |cable, i|
          [
            Naming.cable(cable),
            "#{cable.gauge_awg} AWG",
            "#{format("%g", cable.length_feet)} ft"
          ].each_with_index do |words, line|
            @pen.label(words, middle, 14 + (((i * 3) + line) * 14), anchor: "middle", size: 12.5, role: "note")
          end
        end
      end
    end
  end
end
