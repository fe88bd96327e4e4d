# frozen_string_literal: true

module Gorvant
  # A drawing as data, in pixels of a 1280 × 800 screen: what the page, an export and a screen reader's list render
  # alike. view: key of Views. bands: [Band]; links: [Link]; stations: [Station]; labels: [Label]. States are live,
  # dead, home, between, floating. folded: [{ id, title }], functions left out because this call does not use them.
  Scene =
    Value.define(
      :view,
      :title,
      :width,
      :height,
      :bands,
      :links,
      :stations,
      :labels,
      :folded,
      defaults: {
        bands: [].freeze,
        folded: [].freeze
      }
    )

  # A place: wall, air handler, outdoor, the board.
  Band = Value.define(:id, :x, :y, :width, :height)

  # Words at a point, with the size and weight they are set in; role decides the tone: name, sub, terminal, note, band,
  # color, break or reading. station: id of the station they belong to, nil for none.
  Label =
    Value.define(
      :text,
      :x,
      :y,
      :anchor,
      :size,
      :weight,
      :role,
      :station,
      :upright,
      defaults: {
        anchor: "start",
        size: 13,
        weight: TextSize::PLAIN,
        station: nil,
        upright: true
      }
    )

  class Label
    def box
      return TextSize.box(text, x, y, size: size, weight: weight, anchor: anchor) if upright

      left, top, right, bottom = TextSize.box(text, 0, 0, size: size, weight: weight, anchor: anchor)
      [x + top, y + left, x + bottom, y + right] # turned a quarter to the left
    end
  end

  # A drawn connection. way: "out" or "home". line: field, factory, copper or line_voltage. sheath: the conductor's
  # color where it is drawn in it. parts: [{ d, state }], two where it is broken. gap: { x, y } or nil. points: the
  # polyline itself. chevrons: [{ x, y, angle }], the way current flows. marks: [{ kind, x, y }], splices.
  Link =
    Value.define(
      :id,
      :branches,
      :nodes,
      :way,
      :line,
      :sheath,
      :points,
      :parts,
      :gap,
      :chevrons,
      :marks,
      :color,
      :struck,
      :spoken,
      defaults: {
        line: "factory",
        sheath: nil,
        marks: [].freeze,
        color: nil,
        struck: false
      }
    )

  class Link
    WIDTHS = { "live" => 6.5, "home" => 5.5, "between" => 4.0, "floating" => 3.0, "dead" => 2.0 }.freeze

    # The boxes that its straight stretches fill.
    def boxes
      width = parts.map { |part| WIDTHS.fetch(part[:state]) }.max
      points.each_cons(2).map { |from, to| Geometry.stretch(from, to, width) }
    end
  end

  # Something to tap. kind: terminal, switch, contact, coil, load, fuse, capacitor or source. x, y: its center; width,
  # height: of the symbol; hit: [width, height] that a finger may touch. part: what it is in every view (a code, a
  # branch or a node). nodes: one or two points. state: of its feed side; far_state: of its far side; broken: open where
  # the loop needs it closed; closed: nil where it makes no sense; struck: on the panel's diagram, not fitted here.
  # strokes: [{ role, d }] around its center. ends: [[x, y], [x, y]] where probes touch its nodes.
  Station =
    Value.define(
      :id,
      :part,
      :kind,
      :label,
      :sub,
      :x,
      :y,
      :width,
      :height,
      :hit,
      :nodes,
      :ends,
      :state,
      :far_state,
      :closed,
      :working,
      :broken,
      :struck,
      :component,
      :strokes,
      :spoken,
      defaults: {
        sub: nil,
        closed: nil,
        working: nil,
        broken: false,
        struck: false,
        component: nil
      }
    )

  class Station
    TOUCH = 44

    def box = around(width, height)
    # The area that a finger may hit, and no other station's.
    def hit_box = around(*hit)

    private

    def around(wide, high) = [x - (wide / 2.0), y - (high / 2.0), x + (wide / 2.0), y + (high / 2.0)]
  end
end
