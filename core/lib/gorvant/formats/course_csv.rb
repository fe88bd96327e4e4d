# frozen_string_literal: true

require "csv"

module Gorvant
  module Formats
    # Temperatures over time from CSV to moves of a script: a column of seconds or minutes, and any of outdoor, coil, room in °F.
    # Between two rows the temperature goes in a straight line.
    module CourseCsv
      MOST_ROWS = 160 # three columns of it still make a script
      TIMES = { "seconds" => 1.0, "minutes" => 60.0 }.freeze

      class << self
        # [Hash] as Script.parse reads them. Raises BadScript with the line to blame.
        def parse(text)
          rows = CSV.parse(text.delete_prefix("\uFEFF").tr(";", ","), headers: true, header_converters: ->(head) { head.to_s.strip.downcase }, skip_blanks: true)
          time, columns = columns(rows)
          wrong(MOST_ROWS + 2, "has #{rows.size} rows; at most #{MOST_ROWS}") if rows.size > MOST_ROWS
          points = rows.each_with_index.map { |row, i| [number(row[time], i, time) * TIMES.fetch(time), columns.to_h { |name| [name, row[name] && number(row[name], i, name)] }] }
          columns.flat_map { |name| moves(name, points) }.sort_by.with_index { |move, i| [move["at_seconds"], i] }
        rescue CSV::MalformedCSVError => e
          wrong(1, "is no CSV that can be read: #{e.message[0, 100]}")
        end

        private

        def wrong(line, problem) = raise(BadScript.new(field: "/text", problem: "line #{line} #{problem}"))

        def columns(rows)
          heads = rows.headers.compact
          time = heads.find { |head| TIMES.key?(head) } or wrong(1, "needs a column 'seconds' or 'minutes'")
          known = heads & Script::TEMPERATURES
          wrong(1, "needs a column 'outdoor', 'coil' or 'room'") if known.empty?
          [time, known]
        end

        def number(text, index, name)
          Float(text.to_s.strip, exception: false) || wrong(index + 2, "has no number under '#{name}': #{text.to_s[0, 20].inspect}")
        end

        def moves(name, points)
          own = points.filter_map { |at, values| [at, values[name]] if values[name] }
          own.each_cons(2) { |(before, _), (after, _)| wrong(points.index { |at, _| at == after } + 2, "goes back in time") if after <= before }
          return [] if own.empty?

          [{ "at_seconds" => own[0][0], "what" => name, "value" => own[0][1], "over_seconds" => 0.0 }] +
            own.each_cons(2).map { |(from, _), (to, value)| { "at_seconds" => from, "what" => name, "value" => value, "over_seconds" => to - from } }
        end
      end
    end
  end
end
