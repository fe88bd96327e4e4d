# frozen_string_literal: true

require "csv"

module Gorvant
  module Formats
    # What the first lines of a logger's file look like: encoding, separator, decimal comma, where the rows begin and
    # what the columns are called. A guess, shown before anything is read.
    # skip: lines before the first row; names: of the columns; rows: [[String]] of the first rows.
    FieldLogHead = Value.define(:encoding, :separator, :decimal_comma, :skip, :names, :rows)

    class FieldLogHead
      SEPARATORS = [";", "\t", ",", "|"].freeze
      BOMS = { "\xEF\xBB\xBF".b => "UTF-8", "\xFF\xFE".b => "UTF-16LE", "\xFE\xFF".b => "UTF-16BE" }.freeze
      SHOWN = 8
      # No digit can be taken in two ways: a cell of a million of them is read as fast as it is long.
      NUMBER = /\A[-+]?(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:e[-+]?\d+)?\z/i

      class << self
        # bytes: the beginning of the file, some lines at least. Raises BadFieldLog.
        def guess(bytes)
          encoding = encoding(bytes)
          lines = lines_of(bytes, encoding)
          separator = separator(lines)
          cells = lines.map { |line| cells(line, separator) }
          skip = first_row(cells)
          refuse("/file", "has no row with numbers among its first #{lines.size} lines") unless skip
          columns = cells[skip].size
          refuse("/file", "has #{columns} columns; at most #{limit("most_columns")}") if columns > limit("most_columns")
          rows = cells[skip..].select { |row| row.size == columns }.first(SHOWN)
          new(
            encoding: encoding,
            separator: separator,
            decimal_comma: decimal_comma?(cells[skip..], separator),
            skip: skip,
            names: names(cells, skip, columns),
            rows: rows
          )
        end

        # Cells of a line; quotes as CSV has them.
        def cells(line, separator)
          return line.split(separator, -1).map(&:strip) unless line.include?('"')

          (CSV.parse_line(line, col_sep: separator) || []).map { |cell| cell.to_s.strip }
        rescue CSV::MalformedCSVError
          line.split(separator, -1).map(&:strip)
        end

        private

        def lines_of(bytes, encoding)
          lines = decoded(bytes, encoding).split(/\r\n|\n|\r/).first(limit("head_lines"))
          lines.pop if lines.size > 3 && !bytes.end_with?("\n") # cut off in its middle
          return lines unless lines.all? { |line| line.strip.empty? }

          refuse("/file", "is empty; a row a sample is expected, with a time in it")
        end

        def limit(name) = Catalogue.recorded.fetch("limits").fetch(name)
        def refuse(field, problem) = raise(BadFieldLog.new([{ "field" => field, "problem" => problem }]))

        def encoding(bytes)
          mark = BOMS.keys.find { |bom| bytes.b.start_with?(bom) }
          return BOMS.fetch(mark) if mark
          return "UTF-16LE" if bytes.b[1, 200].to_s.bytes.each_slice(2).first(60).count { |pair| pair[0].zero? } > 40

          bytes.dup.force_encoding("UTF-8").scrub("").bytesize < bytes.bytesize - 3 ? "Windows-1252" : "UTF-8"
        end

        def decoded(bytes, encoding) =
          bytes
            .dup
            .force_encoding(encoding)
            .encode("UTF-8", invalid: :replace, undef: :replace, replace: "?")
            .delete_prefix("\uFEFF")

        # The one that most lines have equally often, more than once each where it can be.
        def separator(lines)
          SEPARATORS.max_by do |mark|
            counts = lines.map { |line| line.count(mark) }.reject(&:zero?).tally
            often, alike = counts.max_by { |count, lines_alike| [lines_alike, count] }
            often ? [alike * Math.sqrt(often), -SEPARATORS.index(mark)] : [0, -SEPARATORS.index(mark)]
          end
        end

        def first_row(cells)
          cells.each_index.find do |i|
            after = cells[(i + 1)..].find { |row| row.any? { |cell| !cell.empty? } } || cells[i]
            cells[i].size > 1 && cells[i].any? { |cell| cell.match?(/\d/) } &&
              cells[i].count { |cell| value?(cell) } >= cells[i].size * 0.6 && cells[i].size == after.size
          end
        end

        def value?(cell) =
          cell.match?(NUMBER) || FieldLogClock.time?(cell) ||
            Catalogue.recorded.fetch("words").any? { |_state, words| words.include?(cell.downcase) }

        def decimal_comma?(rows, separator)
          return false if separator == ","

          all = rows.flatten
          all.count { |cell| cell.match?(/\A-?\d+,\d+\z/) } > all.count { |cell| cell.match?(/\A-?\d+\.\d+\z/) }
        end

        def names(cells, skip, columns)
          above = cells[0...skip].reverse.find { |row| row.size == columns && row.any? { |cell| !cell.empty? } } || []
          Array.new(columns) { |i| above[i].to_s.empty? ? "Column #{i + 1}" : above[i].gsub(/\s+/, " ")[0, 60] }
        end
      end

      def to_json_hash = to_h.transform_keys(&:to_s)
    end
  end
end
