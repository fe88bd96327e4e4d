# frozen_string_literal: true

module Gorvant
  module Formats
    # A site's weather from a table: a row an hour (time, temperature, humidity), or bins (month, temperature, humidity,
    # hours). The heading says which.
    module ClimateCsv
      MOST_ROWS = 9000
      MOST_PROBLEMS = 20

      class << self
        # given: { "kind" => of climates.yml } or { "text" => CSV }, with "wind_mph" where it is known. Raises
        # BadFieldLog.
        def climate(given)
          shipped = given["kind"]
          return with_wind(Climate.shipped(shipped), given["wind_mph"]) if shipped

          read(
            given.fetch("text"),
            wind_mph: (given["wind_mph"] || Catalogue.climates.dig("lake_village", "wind_mph")).to_f
          )
        end

        def read(text, wind_mph:)
          head = FieldLogHead.guess(text.b)
          rows = text.encode("UTF-8", invalid: :replace, undef: :replace).lines(chomp: true).drop(head.skip)
          if rows.size > MOST_ROWS
            refuse("/climate/text", "has #{rows.size} rows; at most #{MOST_ROWS}: a year of hours")
          end
          rows =
            rows
              .each_with_index
              .reject { |line, _i| line.strip.empty? }
              .map { |line, i| [FieldLogHead.cells(line, head.separator), i + head.skip + 1] }
          bins?(head) ? of_bins(head, rows, wind_mph) : of_hours(head, rows, wind_mph)
        end

        private

        def with_wind(climate, wind) = wind ? climate.with(wind_mph: wind.to_f) : climate
        def refuse(field, problem) = raise(BadFieldLog.new([{ "field" => field, "problem" => problem }]))
        def column(head, *words) = head.names.index { |name| words.any? { |word| name.downcase.include?(word) } }
        def bins?(head) = !column(head, "month").nil? && !column(head, "hours").nil?

        def columns(head, **wanted)
          found = wanted.transform_values { |words| column(head, *words) }
          missing = found.select { |_name, at| at.nil? }.keys
          if missing.any?
            refuse("/climate/text", "has no column for #{missing.join(", ")}; it has #{head.names.first(8).join(", ")}")
          end
          found
        end

        def of_bins(head, rows, wind_mph)
          at = columns(head, month: ["month"], degrees: %w[temp deg °], humidity: %w[humid rh], hours: ["hours"])
          problems = []
          bins =
            rows.filter_map do |cells, line|
              month, degrees, humidity, hours = at.values.map { |i| number(cells[i], head) }
              wrong = [
                ("month has to be 1 to 12" unless month&.between?(1, 12)),
                out_of_bounds(degrees, humidity),
                ("hours have to be 0 to 744" unless hours&.between?(0, 744))
              ].compact
              next problem(problems, line, wrong.first) if wrong.any?

              Climate::Bin.new(
                month: month.to_i,
                degrees_f: fahrenheit(degrees, head, at),
                humidity_percent: humidity,
                hours: hours
              )
            end
          finish(problems, bins.empty?)
          Climate.new(title: Catalogue.words("planner.own_bins"), bins: bins, wind_mph: wind_mph)
        end

        def of_hours(head, rows, wind_mph)
          at =
            columns(
              head,
              time: Catalogue.recorded.dig("time", "says"),
              degrees: %w[temp deg ° outdoor air],
              humidity: %w[humid rh]
            )
          order = FieldLogClock.order([head.rows.first[at[:time]].to_s])
          if order.nil? || order == "seconds"
            refuse("/climate/text", "has no time that can be read in #{head.names[at[:time]]}")
          end
          problems = []
          hours =
            rows.filter_map do |cells, line|
              hour = hour(cells, at, head, order)
              hour.is_a?(String) ? problem(problems, line, hour) : hour
            end
          finish(problems, hours.empty?)
          Climate.of_hours(hours, title: Catalogue.words("planner.own_hours", hours: hours.size), wind_mph: wind_mph)
        end

        # [month, °F, humidity] of a row, or what is wrong with it.
        def hour(cells, at, head, order)
          told = cells[at[:time]].to_s
          time = FieldLogClock.parts(told, order) or return "'#{told[0, 30]}' is no time"
          degrees, humidity = number(cells[at[:degrees]], head), number(cells[at[:humidity]], head)
          out_of_bounds(degrees, humidity) || [time[:month], fahrenheit(degrees, head, at), humidity]
        end

        def number(cell, head)
          text = cell.to_s
          Float(head.decimal_comma ? text.tr(",", ".") : text, exception: false)
        end

        def out_of_bounds(degrees, humidity)
          return "the temperature has to be a number from -60 to 130" unless degrees&.between?(-60, 130)

          "the humidity has to be 0 to 100 %" unless humidity&.between?(0, 100)
        end

        def fahrenheit(degrees, head, at)
          head.names[at[:degrees]].match?(/°\s*c\b|celsius|deg\s*c\b|\(c\)/i) ? (degrees * 1.8) + 32 : degrees
        end

        def problem(problems, line, says)
          problems << { "field" => "/climate/lines/#{line}", "problem" => says }
          nil
        end

        def finish(problems, none)
          raise BadFieldLog.new(problems.first(MOST_PROBLEMS)) if problems.any?

          refuse("/climate/text", "has no row") if none
        end
      end
    end
  end
end
