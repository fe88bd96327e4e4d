# frozen_string_literal: true

module Gorvant
  module Formats
    # A run history as a table: a column minutes or seconds, and any lane as 0 and 1; each row holds until the next.
    module RunHistoryCsv
      TIMES = { "minutes" => 1.0, "seconds" => 60.0 }.freeze
      ON = { "0" => false, "1" => true }.freeze
      MOST_ROWS = 5_000
      MOST_PROBLEMS = 20

      class << self
        # A RunHistory. Raises BadHistory with the lines to blame.
        def read(text)
          table = Rows.read(text, columns: [TIMES.keys, ["fed"]], most: MOST_ROWS)
          refuse([table.problem]) if table.problem
          lanes = RunHistory::LANES.keys & table.head
          points = points(table.rows, (TIMES.keys & table.head).first, lanes)
          refuse([[1, "holds no row but its head"]]) if points.empty?
          temperatures =
            (RunHistory::TEMPERATURES.keys & table.head)
              .to_h { |name| [name, degrees(table.rows, points, name)] }
              .reject { |_name, list| list.empty? }
          RunHistory.new(
            spans: joined(points, lanes),
            minutes: [points.last[0], 1.0].max,
            given: RunHistory::LANES.keys & lanes,
            temperatures: temperatures
          )
        end

        private

        # [[line, words]]
        def refuse(problems) =
          raise(
            BadHistory.new(
              problems
                .first(MOST_PROBLEMS)
                .map { |line, words| { "field" => "/text", "problem" => "line #{line} #{words}" } }
            )
          )

        def points(rows, time, lanes)
          problems = []
          points =
            rows.map do |line, row|
              at = Rows.number(row[time])&.then { |number| number / TIMES.fetch(time) }
              values = lanes.to_h { |lane| [lane, ON[row[lane].to_s]] }
              wrong = [wrong_time(at, time), *wrong_lanes(row, values)].compact
              problems.concat(wrong.map { |words| [line, words] })
              [at, values]
            end
          points
            .each_cons(2)
            .with_index { |((a, _), (b, _)), i| problems << [rows[i + 1][0], "goes back in time"] if a && b && b < a }
          refuse(problems) if problems.any?
          points
        end

        def wrong_time(at, time)
          return "has no number under #{time}" if at.nil?

          most = RunHistory::MOST_MINUTES
          at.between?(0, most) ? nil : "has to lie within 0 and #{most.round} minutes"
        end

        def wrong_lanes(row, values) =
          values
            .select { |_lane, value| value.nil? }
            .keys
            .map { |lane| "has to have 0 or 1 under #{lane}, not #{row[lane].to_s[0, 20].inspect}" }

        # [[minute, °F]] where the column has a number.
        def degrees(rows, points, name)
          read =
            rows
              .zip(points)
              .map do |(line, row), (at, _)|
                [line, at, row[name].to_s.strip.empty? ? nil : Rows.number(row[name]) || :wrong]
              end
          bad = read.select { |_line, _at, value| value == :wrong || (value && !RunHistory::DEGREES.cover?(value)) }
          refuse(bad.map { |line, _at, _value| [line, "has no temperature under #{name}"] }) if bad.any?
          read.filter_map { |_line, at, value| [at, value] if value }.uniq(&:first)
        end

        def joined(points, lanes)
          all = lanes.to_h { |lane| [lane, stretches(points.map { |at, values| [at, values[lane]] })] }
          { "cold" => [], "y" => all["fed"], "cooling" => [], "unpowered" => [], "aps" => [] }.merge(all)
        end

        def stretches(points)
          points
            .each_with_index
            .chunk_while { |(a, _), (b, _)| a[1] == b[1] }
            .filter_map do |run|
              (from, on), = run.first
              after = points[run.last[1] + 1]
              [from, after ? after[0] : Float::INFINITY] if on
            end
        end
      end
    end
  end
end
