# frozen_string_literal: true

require "rqrcode"
require_relative "type"

module Gorvant
  module Server
    module Reports
      # A sticker for inside the panel, as a page of its own size: which unit, how it is set up, when somebody was last
      # here. The square leads to the unit where the server has an address that others reach.
      class Label
        INCH = 72.0
        SIZES = {
          "4x2" => {
            title: "4 × 2 in",
            points: [4 * INCH, 2 * INCH]
          },
          "3x2" => {
            title: "3 × 2 in",
            points: [3 * INCH, 2 * INCH]
          },
          "62x100" => {
            title: "100 × 62 mm",
            points: [283.5, 175.7]
          },
          "2x1" => {
            title: "2 × 1 in",
            points: [2 * INCH, 1 * INCH]
          }
        }.freeze
        USUAL = "4x2"
        EDGE = 8 # points

        # number: by which the unit is known; lines: [[title, words]]; address: of the unit, nil where there is none.
        def initialize(site:, unit:, number:, crew:, lines:, last_on:, address:, size: USUAL)
          @names = [site, unit, number]
          @crew = crew
          @lines = lines
          @last_on = last_on
          @address = address
          @points = SIZES.fetch(size)[:points]
        end

        # Bytes of the document.
        def render
          @pdf =
            Prawn::Document.new(
              page_size: @points,
              margin: EDGE,
              info: {
                Title: @names.join(", "),
                Creator: "Gorvant"
              }
            )
          Type.onto(@pdf)
          width = @pdf.bounds.width - (@address ? square + 6 : 0)
          draw_square if @address
          names(width)
          facts(width)
          @pdf.render
        end

        private

        def small? = @points[1] < 100
        def square = @points[1] - (EDGE * 2) < 90 ? @points[1] - (EDGE * 2) : 84

        def names(width)
          size = small? ? 8.5 : 12
          box(@names.join(", "), @pdf.bounds.top, width, size * 2.4, size, style: :bold)
          @pdf.move_cursor_to(@pdf.bounds.top - (size * 2.5))
        end

        def facts(width)
          said = @lines.map { |title, words| "#{title}: #{words}" }
          foot = Catalogue.words("report.label_foot", on: @last_on, crew: @crew)
          bottom = small? ? 10 : 14
          box(said.join(small? ? " · " : "\n"), @pdf.cursor, width, @pdf.cursor - bottom, small? ? 6.5 : 9)
          box(foot, bottom, width, bottom, small? ? 5.5 : 8)
        end

        # Shrinks what would not fit rather than cutting it.
        def box(words, top, width, height, size, style: :normal)
          set, wide = Type.set(words)
          more = wide ? { fallback_fonts: ["Wide"] } : {}
          @pdf.text_box(
            set,
            at: [0, top],
            width: width,
            height: height,
            size: size,
            style: style,
            overflow: :shrink_to_fit,
            min_font_size: 4,
            disable_wrap_by_char: false,
            **more
          )
        end

        def draw_square
          svg =
            RQRCode::QRCode.new(@address, level: :m).as_svg(module_size: 4, offset: 16, use_path: true, viewbox: true)
          @pdf.svg(svg, at: [@pdf.bounds.right - square, @pdf.bounds.top], width: square, enable_web_requests: false)
        end
      end
    end
  end
end
