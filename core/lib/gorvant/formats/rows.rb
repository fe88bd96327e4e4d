# frozen_string_literal: true

require "csv"

module Gorvant
  module Formats
    # A table as a spreadsheet writes it: byte order mark, semicolons, any line ends. rows: [[line number, { column =>
    # cell }]], blank ones left out; head: column names in small letters; problem: [line, words] of a table that cannot
    # be read at all, else nil.
    Rows = Value.define(:head, :rows, :problem)

    class Rows
      NONE = [].freeze

      # columns: [[names of which one has to be there]]; most: rows.
      def self.read(text, columns:, most:)
        text = text.to_s.dup.force_encoding(Encoding::UTF_8).delete_prefix("\uFEFF")
        return refused(1, "is not valid UTF-8") unless text.valid_encoding?

        table = table(text)
        head = (table.shift || []).map { |cell| cell.to_s.strip.downcase }
        missing = columns.reject { |names| names.intersect?(head) }
        return refused(1, "has to name the columns #{named(columns)}; missing: #{named(missing)}") if missing.any?

        rows = body(table, head)
        return refused(1, "has #{rows.size} rows; at most #{most}") if rows.size > most

        new(head: head, rows: rows, problem: nil)
      rescue CSV::MalformedCSVError => e
        refused(e.line_number, "cannot be read as a table: #{e.message.sub(/ in line \d+\.?/, "")}")
      end

      # A number as people write it, with a point or a comma; nil for anything else, such as 1e999.
      def self.number(text)
        value = Float(text.to_s.strip.tr(",", "."), exception: false)
        value if value&.finite?
      end

      def self.table(text)
        first = text.lines.first.to_s
        separator = first.count(";") > first.count(",") ? ";" : ","
        CSV.new(text.gsub("\r\n", "\n").tr("\r", "\n"), col_sep: separator)
      end

      def self.named(columns) = columns.map { |names| names.join(" or ") }.join(", ")
      def self.refused(line, words) = new(head: NONE, rows: NONE, problem: [line, words])

      def self.body(table, head)
        rows = []
        while (cells = table.shift)
          unless cells.compact.all? { |cell| cell.strip.empty? }
            rows << [table.lineno, head.zip(cells.map { |cell| cell.to_s.strip }).to_h]
          end
        end
        rows
      end
      private_class_method :refused, :body, :table, :named
    end
  end
end
