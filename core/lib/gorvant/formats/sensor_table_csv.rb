# frozen_string_literal: true

module Gorvant
  module Formats
    # A maker's thermistor table: degrees_f or degrees_c, and ohms or kilohms. One wrong row refuses it, each with its
    # line.
    module SensorTableCsv
      DEGREES = %w[degrees_f degrees_c].freeze
      OHMS = %w[ohms kilohms].freeze
      MOST_ROWS = 5_000
      # table: nil when any row was refused. refused: [{ line:, problem: }].
      Read = Value.define(:table, :rows, :refused)

      def self.read(text, id:, title:, tolerance_degrees_f: 2.0) = Reader.new(text).read(id, title, tolerance_degrees_f)

      # Reads a table line by line.
      class Reader
        def initialize(text)
          @text = text
          @refused = []
        end

        def read(id, title, tolerance)
          table = Rows.read(@text, columns: [DEGREES, OHMS], most: MOST_ROWS)
          return answer(nil, 0) if table.problem && refuse(*table.problem)

          @degrees, @ohms = [DEGREES, OHMS].map { |names| (names & table.head).first }
          points = table.rows.filter_map { |line, row| point(line, row) }.sort
          check(points, table.rows) if @refused.empty?
          answer(
            (
              if @refused.empty?
                ThermistorTable.new(id: id, title: title, tolerance_degrees_f: tolerance, points: points)
              else
                nil
              end
            ),
            table.rows.size
          )
        end

        private

        def answer(table, rows) = Read.new(table: table, rows: rows, refused: @refused)
        def refuse(line, problem) = @refused << { line: line, problem: problem }

        def point(line, row)
          degrees, ohms = [row[@degrees], row[@ohms]].map { |cell| Rows.number(cell) }
          unless degrees
            return refuse(line, "has no number under #{@degrees}: #{row[@degrees].to_s[0, 20].inspect}") && nil
          end
          unless ohms&.positive?
            return refuse(line, "has to have ohms above 0 under #{@ohms}, not #{row[@ohms].to_s[0, 20].inspect}") && nil
          end

          degrees = (degrees * 1.8) + 32 if @degrees == "degrees_c"
          unless degrees.between?(-100, 400)
            return refuse(line, "#{format("%g", degrees)} °F is no temperature of a sensor; -100 to 400") && nil
          end

          [degrees, @ohms == "kilohms" ? ohms * 1000 : ohms]
        end

        def check(points, rows)
          return refuse(1, "has #{points.size} good rows; a table needs at least 3") if points.size < 3

          line_of = rows.to_h { |line, row| [point(line, row)[0], line] }
          points.each_cons(2) { |colder, warmer| step(colder, warmer, line_of[warmer[0]]) }
        end

        def step(colder, warmer, line)
          (low, high_ohms), (high, low_ohms) = [colder, warmer].map { |pair| pair.map { |value| format("%g", value) } }
          return refuse(line, "#{high} °F stands twice") if colder[0] == warmer[0]

          if warmer[1] >= colder[1]
            refuse(
              line,
              "ohms have to fall as it gets warmer: #{low_ohms} Ω at #{high} °F " \
                "is not below #{high_ohms} Ω at #{low} °F"
            )
          end
        end
      end
    end
  end
end
