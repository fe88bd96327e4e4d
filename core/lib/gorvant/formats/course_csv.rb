# frozen_string_literal: true

module Gorvant
  module Formats
    # Temperatures over time from CSV to moves of a script: a column of seconds or minutes, and any of outdoor, coil,
    # room in °F. Between two rows the temperature goes in a straight line.
    module CourseCsv
      MOST_ROWS = 160 # three columns of it still make a script
      TIMES = { "seconds" => 1.0, "minutes" => 60.0 }.freeze

      class << self
        # [Hash] as Script.parse reads them. Raises BadScript with the line to blame.
        def parse(text)
          table = Rows.read(text, columns: [TIMES.keys, Script::TEMPERATURES], most: MOST_ROWS)
          wrong(*table.problem) if table.problem
          time = (TIMES.keys & table.head).first
          columns = table.head & Script::TEMPERATURES
          points =
            table.rows.map do |line, row|
              [
                line,
                number(row, line, time) * TIMES.fetch(time),
                columns.to_h { |name| [name, row[name].to_s.empty? ? nil : number(row, line, name)] }
              ]
            end
          columns.flat_map { |name| moves(name, points) }.sort_by.with_index { |move, i| [move["at_seconds"], i] }
        end

        private

        def wrong(line, problem) = raise(BadScript.new(field: "/text", problem: "line #{line} #{problem}"))
        def number(row, line, name) =
          Rows.number(row[name]) || wrong(line, "has no number under '#{name}': #{row[name].to_s[0, 20].inspect}")

        def moves(name, points)
          own = points.filter_map { |line, at, values| [at, values[name], line] if values[name] }
          own.each_cons(2) { |(before, *), (after, _, line)| wrong(line, "goes back in time") if after <= before }
          return [] if own.empty?

          [{ "at_seconds" => own[0][0], "what" => name, "value" => own[0][1], "over_seconds" => 0.0 }] +
            own
              .each_cons(2)
              .map do |(from, *), (to, value)|
                { "at_seconds" => from, "what" => name, "value" => value, "over_seconds" => to - from }
              end
        end
      end
    end
  end
end
