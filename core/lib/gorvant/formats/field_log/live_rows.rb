# frozen_string_literal: true

module Gorvant
  module Formats
    # Rows that a logger sends while it measures: times since 1970 in seconds, and a value for each column in the unit
    # that recorded.yml keeps it in, nil for a gap.
    # ids: keys of recorded.yml's columns; rows: [[seconds, value, …]] by time.
    LiveRows = Value.define(:ids, :rows)

    class LiveRows
      class << self
        # From JSON. now: seconds since 1970, for a clock that is ahead. Raises BadFieldLog naming the field.
        def parse(columns, rows, now:)
          problems = [*column_problems(columns)]
          bad(problems) if problems.any?
          bad([["rows", "has to be a list of 1 to #{limit("rows")} rows"]]) unless rows_fit?(rows)
          last = -Float::INFINITY
          rows.each_with_index do |row, i|
            wrong = row_problem(row, columns, last, now)
            problems << ["rows/#{i}#{wrong[0]}", wrong[1]] if wrong
            break if problems.size >= Catalogue.recorded.dig("limits", "told_lines")

            last = row[0] unless wrong
          end
          bad(problems) if problems.any?
          new(ids: columns, rows: rows.map { |at, *values| [at.to_f, *values.map { |one| one&.to_f || Float::NAN }] })
        end

        # How a record of such rows says what its columns are. zone: in which its times are shown.
        def mapping(ids, zone)
          about = Catalogue.recorded.fetch("columns")
          FieldLogMapping.new(
            columns:
              ids.each_with_index.to_h { |id, i| [id, { "at" => i + 1, "unit" => about.fetch(id).fetch("unit") }] },
            time: [0],
            order: "seconds",
            zone: zone,
            daylight_saving: false,
            separator: ",",
            decimal_comma: false,
            skip: 0,
            encoding: "UTF-8",
            names: ["time", *ids]
          )
        end

        def limit(name) = Catalogue.recorded.fetch("live").fetch("most_#{name}")

        # Seconds without a word after which a logger counts as quiet.
        def quiet_after_seconds(interval)
          live = Catalogue.recorded.fetch("live")
          [(interval || 0) * live.fetch("quiet_intervals"), live.fetch("quiet_least_seconds")].max
        end

        private

        def bad(problems) =
          raise(BadFieldLog.new(problems.map { |at, problem| { "field" => "/#{at}", "problem" => problem } }))

        def column_problems(columns)
          known = Catalogue.recorded.fetch("columns").keys
          unless columns.is_a?(Array) && columns.any?
            return [["columns", "has to be a list of columns; known are #{known.join(", ")}"]]
          end
          return [["columns", "names one column twice"]] if columns.uniq.size < columns.size

          stray = columns.find_index { |id| !known.include?(id) }
          stray ? [["columns/#{stray}", "is no column that is read; known are #{known.join(", ")}"]] : []
        end

        def rows_fit?(rows) = rows.is_a?(Array) && rows.size.between?(1, limit("rows"))

        # [where, what], or nil.
        def row_problem(row, columns, last, now)
          unless row.is_a?(Array) && row.size == columns.size + 1
            return "", "has to be a list of the time and #{columns.size} values"
          end

          odd = row.find_index { |one| !(one.nil? || (one.is_a?(Numeric) && one.finite?)) }
          return "/#{odd}", "has to be a number, or null for a gap" if odd

          time_problem(row[0], last, now) || value_problem(row, columns)
        end

        def time_problem(time, last, now)
          unless time && FieldLogReader::YEARS.cover?(time)
            return "/0", "has to be seconds since 1970, between 1990 and 2100"
          end
          return "/0", "does not go on: it has to be after the row before it" if time <= last

          ahead = Catalogue.recorded.dig("live", "ahead_seconds")
          time > now + ahead ? ["/0", "is #{((time - now) / 60).round} min ahead: set the logger's clock"] : nil
        end

        def value_problem(row, columns)
          most = Catalogue.recorded.dig("live", "most_value")
          odd = (1..columns.size).find { |i| row[i] && row[i].abs > most }
          odd && ["/#{odd}", "has to be from -#{most.round} to #{most.round}, in the unit of “#{columns[odd - 1]}”"]
        end
      end

      # { hour => [row] }
      def by_hour = rows.group_by { |row| (row[0] / 3600).floor }
    end
  end
end
