# frozen_string_literal: true

module Gorvant
  module Formats
    # A Scene as an SVG file of its own: light, print-clean, with its title and state. Classes are the page's, tones are
    # core/data/print_style.css.
    module Svg
      HEAD = 52
      MARGIN = 12
      SHEATHS = Catalogue.colors.transform_values { |about| about.fetch("tint") }.freeze

      class << self
        # state: a line under the title. Returns text.
        def dump(scene, state: "")
          width = scene.width + (MARGIN * 2)
          height = scene.height + HEAD + MARGIN
          [
            %(<?xml version="1.0" encoding="UTF-8"?>),
            %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 #{width} #{height}" ) +
              %(width="#{width}" height="#{height}" role="img">),
            %(<title>#{text(scene.title)}</title>),
            %(<desc>#{text(state)}</desc>),
            "<style>#{Catalogue.print_style}</style>",
            %(<rect width="100%" height="100%" fill="#fff"/>),
            %(<text class="title" x="#{MARGIN}" y="22">#{text(scene.title)}</text>),
            %(<text class="state" x="#{MARGIN}" y="42">#{text(state)}</text>),
            %(<g transform="translate(#{MARGIN} #{HEAD})">),
            *body(scene),
            "</g></svg>",
            ""
          ].join("\n")
        end

        private

        def body(scene)
          tones = scene.stations.to_h { |station| [station.id, station] }
          scene.bands.map do |band|
            %(<rect class="band" x="#{band.x}" y="#{band.y}" width="#{band.width}" height="#{band.height}" rx="4"/>)
          end + scene.links.map { |link| link(link) } + scene.stations.map { |station| station(station) } +
            scene.links.flat_map { |link| gap(link) } + scene.labels.map { |label| label(label, tones[label.station]) }
        end

        def link(link)
          parts = link.parts.map { |part| link.sheath ? sheath(part, link.sheath) : wire(part) }
          chevrons =
            link.chevrons.map do |mark|
              place = "translate(#{mark[:x]} #{mark[:y]}) rotate(#{mark[:angle]})"
              %(<path class="chevron" d="M-2.5 -3.5L2 0L-2.5 3.5" transform="#{place}"/>)
            end
          marks =
            link.marks.map do |mark|
              %(<path class="mark" d="M-5 0L0 -5L5 0L0 5z" transform="translate(#{mark[:x]} #{mark[:y]})"/>)
            end
          classes = ["link", link.way, "line-#{link.line}", ("struck" if link.struck)].compact.join(" ")
          %(<g class="#{classes}">#{(parts + chevrons + marks).join}</g>)
        end

        def wire(part)
          core = part[:state] == "home" ? %(<path class="wire-core" d="#{part[:d]}"/>) : ""
          %(<path class="wire #{part[:state]}" d="#{part[:d]}"/>#{core})
        end

        # A conductor in its own color inside an ink outline; live is broad.
        def sheath(part, color)
          broad = part[:state] == "live" ? 9 : 5
          dashes = part[:state] == "floating" ? ' stroke-dasharray="2 6"' : ""
          %(<path class="jacket" stroke-width="#{broad + 2.4}"#{dashes} d="#{part[:d]}"/><path class="sheath" stroke="#{
            SHEATHS.fetch(color, "#ccc")
          }" stroke-width="#{broad}"#{dashes} d="#{part[:d]}"/>)
        end

        def station(station)
          strokes = station.strokes.map { |stroke| %(<path class="#{stroke[:role]}" d="#{stroke[:d]}"/>) }
          half = [station.width / 2, station.height / 2]
          if station.struck
            strokes << %(<path class="strike" d="M#{-half[0] - 6} #{half[1] + 3}L#{half[0] + 6} #{-half[1] - 3}"/>)
          end
          place = "translate(#{station.x} #{station.y})"
          %(<g class="station #{station.kind} #{flags(station).join(" ")}" transform="#{place}">) +
            %(<title>#{text(station.spoken)}</title>#{strokes.join}</g>)
        end

        def flags(station) =
          [
            station.state,
            { true => "on", false => "off" }[station.working],
            ("open" if station.closed == false),
            ("broken" if station.broken),
            ("struck" if station.struck)
          ].compact

        def gap(link)
          return [] unless link.gap

          x, y = link.gap.values_at(:x, :y)
          [
            %(<g class="gap"><rect x="#{x - 9}" y="#{y - 9}" width="18" height="18" rx="3"/>) +
              %(<text text-anchor="middle" x="#{x}" y="#{y + 5}">≠</text></g>)
          ]
        end

        def label(label, station)
          inside =
            station&.working && station.strokes.first[:role] == "body" && Geometry.overlap?(label.box, station.box)
          place =
            (
              if label.upright
                %(x="#{label.x}" y="#{label.y}")
              else
                %(transform="translate(#{label.x} #{label.y}) rotate(-90)")
              end
            )
          type = %(font-size="#{label.size}" font-weight="#{label.weight}")
          classes = "role-#{label.role}#{" on-text" if inside}"
          %(<text class="#{classes}" text-anchor="#{label.anchor}" #{type} #{place}>#{text(label.text)}</text>)
        end

        def text(words) =
          words
            .to_s
            .gsub("&", "&amp;")
            .gsub("<", "&lt;")
            .gsub(">", "&gt;")
            .gsub(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/, "")
      end
    end
  end
end
