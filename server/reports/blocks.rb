# frozen_string_literal: true

require_relative "type"

module Gorvant
  module Server
    module Reports
      # Draws the blocks of a report on a page, one under the other. Rows of a table are drawn as rows, each with its
      # own height; a head stands again on every page.
      class Blocks
        PAD = 6 # points between columns
        LONGEST = 60 # letters beyond which a column is no wider
        TEXT = "Text"
        WIDEST = 0.75 # of a letter, by its size: no line of a text is longer
        AXIS = [110, 150].freeze # points left and right of an axis
        MOST_PHOTO = 300 # points high

        def initialize(pdf, photo, clock = Clock.new)
          @pdf = pdf
          @photo = photo
          @clock = clock
        end

        def all(blocks, size:) = blocks.each { |block| send(:"draw_#{block["kind"]}", block, size) }

        def heading(words, size)
          room(size * 4)
          @pdf.move_down(12)
          line(words, size: size, bold: true)
          @pdf.stroke_color(Paper::INK)
          @pdf.line_width(1.2)
          @pdf.stroke_horizontal_line(0, 46, at: @pdf.cursor - 1)
          @pdf.move_down(7)
        end

        def line(words, size:, bold: false, color: Paper::INK)
          set, wide = Type.set(words)
          return if set.strip.empty?

          @pdf.fill_color(color)
          @pdf.text(set, size: size, style: bold ? :bold : :normal, leading: size * 0.22, **wide(wide))
          @pdf.fill_color(Paper::INK)
        end

        def rule
          @pdf.move_down(6)
          @pdf.stroke_color(Paper::RULE)
          @pdf.line_width(0.6)
          @pdf.stroke_horizontal_rule
        end

        # A new page where less than this is left of the one in hand.
        def room(points) = @pdf.cursor < points ? @pdf.start_new_page : nil

        def foot(says, page, pages)
          @pdf.fill_color(Paper::SOFT)
          width = @pdf.bounds.width - (Paper::MARGIN * 2)
          { left: says, right: "#{page} / #{pages}" }.each do |align, words|
            set, wide = Type.set(words)
            at = [Paper::MARGIN, Paper::MARGIN - 8]
            @pdf.text_box(
              set,
              at: at,
              width: width,
              height: 12,
              size: 8,
              align: align,
              overflow: :shrink_to_fit,
              **wide(wide)
            )
          end
          @pdf.fill_color(Paper::INK)
        end

        private

        def wide(needed) = needed ? { fallback_fonts: ["Wide"] } : {}

        def words(cell)
          return cell.to_s unless cell.is_a?(Hash)

          cell["at"] ? @clock.says(cell["at"]) : cell["own"].to_s
        end

        def draw_text(block, size)
          line(block["says"] || block["own"], size: size)
          @pdf.move_down(4)
        end

        def draw_large(block, _size)
          @pdf.move_down(4)
          says = [block["says"], block["own"]].compact.join("\n")
          set, wide = Type.set(says)
          height = @pdf.height_of(set, size: 17, style: :bold, width: @pdf.bounds.width - 24, **wide(wide)) + 20
          room(height)
          top = @pdf.cursor
          @pdf.stroke_color(Paper::ALARM)
          @pdf.line_width(2.5)
          @pdf.stroke_rectangle([0, top], @pdf.bounds.width, height)
          @pdf.fill_color(Paper::ALARM)
          @pdf.text_box(set, at: [12, top - 10], width: @pdf.bounds.width - 24, size: 17, style: :bold, **wide(wide))
          @pdf.fill_color(Paper::INK)
          @pdf.move_cursor_to(top - height - 8)
        end

        def draw_list(block, size)
          block["lines"].each { |says| row([["–", 12], [says, @pdf.bounds.width - 12]], size) }
          @pdf.move_down(5)
        end

        def draw_facts(block, size)
          block["pairs"].each { |title, says| row([[title, 110, :bold], [words(says), @pdf.bounds.width - 110]], size) }
          @pdf.move_down(5)
        end

        def draw_table(block, size)
          size -= 1.5
          widths = widths(block, size)
          head = -> do
            row(block["head"].zip(widths).map { |title, width| [title, width, :bold] }, size, line: Paper::INK)
          end
          room(60)
          head.call
          block["rows"].each do |cells|
            row(cells.map { |cell| words(cell) }.zip(widths), size, line: Paper::RULE, again: head)
          end
          @pdf.move_down(8)
        end

        # Widths by how much there is to say in each column; no word is broken that could stand whole.
        def widths(block, size)
          weights =
            block["head"].each_with_index.map do |title, i|
              weight([title, *block["rows"].first(60).map { |cells| words(cells[i]) }], size)
            end
          least = weights.sum(&:last)
          spare = [@pdf.bounds.width - least, 0].max
          scale = [@pdf.bounds.width / least, 1.0].min
          total = weights.sum(&:first)
          weights.map { |weight, word| (word * scale) + (spare * weight / total) }
        end

        # How much a column has to say, and how wide its longest word is.
        def weight(cells, size)
          longest = cells.map { |cell| [cell.size, LONGEST].min }.max
          word = cells.flat_map(&:split).map(&:size).max || 0
          [[longest, 3].max**0.75, ([word, 18].min * size * 0.58) + (PAD * 2)]
        end

        # cells: [[words, width, style]]. A row higher than a page goes on over the next ones.
        def row(cells, size, line: nil, again: nil)
          set = cells.map { |says, width, style| [*Type.set(says), width, style || :normal] }
          height = set.map { |says, wide, width, style| height(says, wide, width, style, size) }.max + PAD
          if height > @pdf.cursor && height < @pdf.bounds.height - 40
            @pdf.start_new_page
            again&.call
          end
          height > @pdf.bounds.height - 40 ? long_row(set, size) : short_row(set, size, height)
          return unless line

          @pdf.stroke_color(line)
          @pdf.line_width(line == Paper::INK ? 1 : 0.3)
          @pdf.stroke_horizontal_line(0, @pdf.bounds.width, at: @pdf.cursor + 1)
        end

        def height(says, wide, width, style, size)
          return 0 if says.empty?
          return @pdf.height_of(says, size: size, style: style, width: width - PAD, **wide(wide)) if wide

          lines(says, width, style, size).size * font(style, size).first
        end

        # A cell's words line by line. To break them is dear, and many cells say the same.
        def lines(says, width, style, size)
          @lines ||= {}
          @lines[[says, width, style, size]] ||= (
            if one_line?(says, width, size)
              [says]
            else
              broken(says, width, style, size)
            end
          )
        end

        # Whether it is surely set without a break.
        def one_line?(says, width, size) = !says.include?("\n") && says.size * size * WIDEST < width - PAD

        def broken(says, width, style, size)
          box =
            Prawn::Text::Box.new(
              says,
              document: @pdf,
              at: [0, 1_000_000],
              width: width - PAD,
              height: 1_000_000,
              size: size,
              style: style
            )
          box.render(dry_run: true)
          box.text.split("\n", -1)
        end

        def short_row(set, size, height)
          left = 0
          top = @pdf.cursor
          set.each do |says, wide, width, style|
            cell(says, wide, [left, top], width, style, size) unless says.empty?
            left += width
          end
          @pdf.move_cursor_to(top - height)
        end

        def cell(says, wide, at, width, style, size)
          return @pdf.text_box(says, at: at, width: width - PAD, size: size, style: style, **wide(wide)) if wide

          high, above = font(style, size)
          lines(says, width, style, size).each_with_index do |line, i|
            baseline = at[1] - above - (i * high)
            @pdf.draw_text(line, at: [at[0], baseline], size: size, style: style) unless line.empty?
          end
        end

        # [height of a line, how far its letters stand above their foot], in points.
        def font(style, size)
          (@fonts ||= {})[[style, size]] ||= [].tap do |told|
            @pdf.font(TEXT, style: style, size: size) { told.push(@pdf.font.height, @pdf.font.ascender) }
          end
        end

        # Cell under cell, flowing over pages.
        def long_row(set, size)
          set.each do |says, wide, _width, style|
            @pdf.text(says, size: size, style: style, **wide(wide)) unless says.empty?
          end
        end

        # Words of a drawing hold signs that the narrow type lacks, so all of them are set in the wide one.
        def draw_drawing(block, _size)
          width = @pdf.bounds.width
          view = block["svg"][/viewBox="0 0 ([\d.]+) ([\d.]+)"/] && Regexp.last_match.captures.map(&:to_f)
          height = view ? width * view[1] / view[0] : 300
          room([height + 8, @pdf.bounds.height - 60].min)
          svg = block["svg"].gsub(/font-family\s*:[^;}"]+/, "font-family: Wide")
          drawn = [width, (@pdf.cursor - 4) * width / height].min
          @pdf.svg(svg, width: drawn, enable_web_requests: false, fallback_font_name: "Wide")
          @pdf.move_down(8)
        end

        # Marks on a watch: a ring where the program expects it, a filled square where it was seen.
        def draw_tape(block, size)
          axis(block["seconds"], block["rows"].size)
          block["rows"].each do |row|
            room(16)
            y = @pdf.cursor - 6
            label(row["title"], y, size)
            marks(row, block["seconds"], y)
            said = %w[expected seen].select { |one| row[one] }.map { |one| "#{one} #{clock(row[one])}" }
            note(said.join(", "), y, size)
            @pdf.move_down(14)
          end
          @pdf.move_down(6)
        end

        def marks(row, most, y)
          @pdf.stroke_color(Paper::INK)
          @pdf.stroke_circle([x(row["expected"], most), y], 3.2) if row["expected"]
          @pdf.fill_rectangle([x(row["seen"], most) - 2.5, y + 2.5], 5, 5) if row["seen"]
        end

        def draw_stages(block, size)
          axis(block["seconds"], block["rows"].size)
          block["rows"].each do |row|
            room(16)
            y = @pdf.cursor - 6
            label(row["title"], y, size)
            bar(row, block["seconds"], y)
            note(clock(row["from"]), y, size)
            @pdf.move_down(12)
            row([["", 76], [row["says"].to_s, @pdf.bounds.width - 76]], size - 1.5)
          end
          @pdf.move_down(6)
        end

        # From where a stage begins to where it ends, or to the end of the axis.
        def bar(row, most, y)
          from, to = [row["from"], row["to"] || most].map { |seconds| x(seconds, most) }
          @pdf.fill_rectangle([from, y + 3], [to - from, 1.5].max, 6)
        end

        def x(seconds, most) =
          AXIS[0] + ((@pdf.bounds.width - AXIS.sum) * (most.to_f.positive? ? seconds / most.to_f : 0))

        def axis(most, rows)
          room([30 + (rows * 14), @pdf.bounds.height - 60].min)
          @pdf.stroke_color(Paper::RULE)
          @pdf.line_width(0.6)
          @pdf.stroke_horizontal_line(AXIS[0], @pdf.bounds.width - AXIS[1], at: @pdf.cursor - 10)
          { left: "0:00", right: clock(most) }.each do |align, says|
            @pdf.text_box(says, at: [AXIS[0], @pdf.cursor], width: @pdf.bounds.width - AXIS.sum, size: 8, align: align)
          end
          @pdf.move_down(16)
        end

        def label(says, y, size) = boxed(says, [0, y + 5], AXIS[0] - 8, size)
        def note(says, y, size) = boxed(says, [@pdf.bounds.width - AXIS[1] + 8, y + 5], AXIS[1] - 8, size)

        def boxed(says, at, width, size)
          set, wide = Type.set(says)
          @pdf.text_box(set, at: at, width: width, height: 13, size: size - 1, overflow: :shrink_to_fit, **wide(wide))
        end

        def clock(seconds) = "#{seconds.floor / 60}:#{(seconds.floor % 60).to_s.rjust(2, "0")}"

        def draw_photo(block, size)
          bytes = @photo.call(block["id"])
          room(MOST_PHOTO + 30)
          @pdf.image(StringIO.new(bytes), fit: [@pdf.bounds.width, MOST_PHOTO])
          line([block["title"], block["own"]].reject(&:empty?).join(": "), size: size)
          @pdf.move_down(8)
        rescue NotFound
          line(Catalogue.words("report.photo_gone", title: block["title"]), size: size)
        end
      end
    end
  end
end
