# frozen_string_literal: true

module Gorvant
  class ConnectionView
    # A pen that knows terminal blocks and boxes with their tabs.
    class ConnectionPen < Pen
      # A screw of a terminal strip.
      def screw(node, text, x, y, width: SCREW, id: node)
        state = @trace.state(node)
        strokes =
          Symbols.box(width, 30) +
            (state == "live" ? [{ role: "pip", d: "M#{(width / 2) - 12} 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0z" }] : [])
        add(
          id: id,
          part: node,
          kind: "terminal",
          label: text,
          x: x,
          y: y,
          width: width,
          height: 30,
          nodes: [node],
          ends: [[x, y]],
          state: state,
          far_state: state,
          strokes: strokes,
          spoken: "#{@netlist.label(node)}, #{Catalogue.words("state.#{state}")}"
        )
        label(
          text,
          x - 6,
          y + 5,
          anchor: "middle",
          size: text.size > 5 ? 12.5 : NAME,
          weight: TextSize::BOLD,
          role: "terminal",
          station: id
        )
      end

      # A pin of the board; its terminals' own name is on the other side.
      def pin(node, text, x, y)
        screw(node, text, x, y, id: "pin/#{node}")
      end

      # A leg of a net between two of its points, and the trunk that legs share.
      def leg(hub, node, points, line)
        branches = wires(hub, node)
        color = line == "factory" ? factory_color(node, hub) : nil
        run(
          branches,
          hub,
          node,
          points,
          way: way(hub),
          line: line,
          **(color ? { color: color, sheath: color.downcase.tr(" ", "_") } : {})
        )
      end

      def trunk(hub, x, heights, line) = bus(hub, [x, heights[0]], [x, heights[1]], way: way(hub), line: line)

      def transformer(x, y, width, sub)
        put(@netlist["TRAN"], [x, y], [width, 34], strokes: Symbols.box(width, 34), label: "TRAN", sub: sub)
        label("TRAN", x, y - 2, anchor: "middle", size: NAME, weight: TextSize::BOLD, role: "name", station: "TRAN")
        label(sub, x, y + 12, anchor: "middle", size: 12, role: "sub", station: "TRAN")
      end

      # A branch as a box with its name, whatever its kind.
      def symbol_box(id, x, y, width:, text:, height: 34)
        branch = @netlist[id]
        closed = branch.switching? ? @solution.conducts?(branch) : true
        put(
          branch,
          [x, y],
          [width, height],
          strokes: Symbols.box(width, height, branch.kind == :coil ? 10 : 2),
          label: text
        )
        label(
          text,
          x - (height > 50 ? 10 : 0),
          y + (closed ? 5 : -1),
          anchor: "middle",
          size: text.size > 6 ? 12 : NAME,
          weight: TextSize::BOLD,
          role: "name",
          station: id
        )
        label("open", x, y + 12, anchor: "middle", size: 12, role: "sub", station: id) unless closed
      end

      # A box of line voltage with a row of tabs on its left.
      def line_box(code, x, y, width:, height:, nodes:)
        branch = @netlist.branch?(code) ? @netlist[code] : nil
        id = "line/#{code}"
        if branch
          put(branch, [x, y], [width, height], strokes: Symbols.box(width, height, 6), label: code, id: id)
        else
          block(
            id,
            x,
            y,
            width: width,
            height: height,
            nodes: nodes.first(2),
            component: code,
            spoken: code == "DISC" ? "outdoor disconnect" : Naming.component(code)
          )
        end
        label(code, x + 22, y + 5, anchor: "middle", size: NAME, weight: TextSize::BOLD, role: "name", station: id)
      end

      # On the panel's diagram, not fitted here.
      def ghost(code, x, y, width:)
        add(
          id: "struck/#{code}",
          part: code,
          kind: "load",
          label: code,
          x: x,
          y: y,
          width: width,
          height: 28,
          nodes: [],
          ends: [],
          state: "dead",
          far_state: "dead",
          component: code,
          strokes: Symbols.box(width, 28),
          struck: true,
          spoken: "#{Naming.component(code)}, not fitted"
        )
        label(
          code,
          x,
          y + 5,
          anchor: "middle",
          size: NAME,
          weight: TextSize::BOLD,
          role: "name",
          station: "struck/#{code}"
        )
      end

      private

      def way(node) = @netlist.label(node).end_with?(" C") || @trace.state(node) == "home" ? "home" : "out"
    end
  end
end
