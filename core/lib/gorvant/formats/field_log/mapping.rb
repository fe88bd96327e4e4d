# frozen_string_literal: true

module Gorvant
  module Formats
    # Which column of a logger's file is what. columns: { id of recorded.yml => { "at" => index, "unit" => of UNITS } };
    # time: [index] or [index of the date, index of the time]; order, zone, daylight_saving, start: see FieldLogClock.
    # separator, decimal_comma, skip, encoding: see FieldLogHead; names: of all columns, so that another file of the
    # same logger is known by them.
    FieldLogMapping =
      Value.define(
        :columns,
        :time,
        :order,
        :zone,
        :daylight_saving,
        :start,
        :separator,
        :decimal_comma,
        :skip,
        :encoding,
        :names,
        :doubts,
        defaults: {
          start: nil,
          doubts: [].freeze
        }
      )

    class FieldLogMapping
      # { unit => [factor, offset] to what is kept }
      UNITS = {
        "°F" => [1.0, 0.0],
        "°C" => [1.8, 32.0],
        "K" => [1.8, -459.67],
        "%" => [1.0, 0.0],
        "V" => [1.0, 0.0],
        "A" => [1.0, 0.0],
        "on/off" => [1.0, 0.0],
        "mA" => [0.001, 0.0],
        "mV" => [0.001, 0.0]
      }.freeze
      KINDS = { "degrees" => %w[°F °C K], "percent" => ["%"], "switched" => %w[V A on/off mA mV] }.freeze
      FIELDS = %w[columns time order zone daylight_saving start separator decimal_comma skip encoding names].freeze

      class << self
        # From a head; what is not plain is left out, and what is doubtful said.
        def guess(head, zone: "UTC")
          time = time_columns(head)
          columns = columns(head, time)
          texts = head.rows.map { |row| time.map { |at| row[at] }.join(" ") }
          order = time.any? ? FieldLogClock.order(texts) : nil
          new(
            columns: columns,
            time: time,
            order: order || "ymd",
            zone: zone,
            daylight_saving: true,
            start: nil,
            separator: head.separator,
            decimal_comma: head.decimal_comma,
            skip: head.skip,
            encoding: head.encoding,
            names: head.names,
            doubts: doubts(texts, order, time)
          )
        end

        # From JSON. Raises BadFieldLog naming the field.
        def parse(given, count)
          unless given.is_a?(Hash)
            raise BadFieldLog.new([{ "field" => "/mapping", "problem" => "has to be an object" }])
          end

          problems = problems(given, count).map { |at, problem| { "field" => "/mapping/#{at}", "problem" => problem } }
          raise BadFieldLog.new(problems) if problems.any?

          columns, time = given.values_at("columns", "time")
          FieldLogClock.zone(given["zone"])
          new(
            columns: columns.transform_values { |one| one.slice("at", "unit") },
            time: time,
            order: given["order"],
            zone: given["zone"],
            daylight_saving: given["daylight_saving"] != false,
            start: given["start"],
            separator: given["separator"],
            decimal_comma: given["decimal_comma"] == true,
            skip: given["skip"],
            encoding: FieldLogHead::BOMS.values.include?(given["encoding"]) ? given["encoding"] : "Windows-1252",
            names: Array(given["names"]).map(&:to_s)
          )
        end

        private

        # [[field, problem]]
        def problems(given, count) =
          [*column_problems(given, count), *time_problems(given, count), *shape_problems(given)]

        def column_problems(given, count)
          columns = given["columns"]
          unless columns.is_a?(Hash) && columns.any?
            return [["columns", "has to name at least one column besides the time"]]
          end

          named = columns.values.filter_map { |one| one["at"] if one.is_a?(Hash) } + Array(given["time"])
          twice = named.tally.find { |_at, times| times > 1 }
          [
            *columns.map { |id, one| ["columns/#{id}", column_problem(id, one, count)] }.select(&:last),
            *(twice ? [["columns", "names column #{twice[0].to_i + 1} twice"]] : [])
          ]
        end

        def time_problems(given, count)
          time, start = given.values_at("time", "start")
          whole = time.is_a?(Array) && time.size.between?(1, 2)
          there = whole && time.all? { |at| at.is_a?(Integer) && at.between?(0, count - 1) }
          [
            (["time", "has to be one column, or two for date and time"] unless there),
            (
              unless [*FieldLogClock::ORDERS, "seconds"].include?(given["order"])
                ["order", "has to be ymd, mdy, dmy or seconds"]
              end
            ),
            (["start", "has to be a number of seconds since 1970"] unless start.nil? || start.is_a?(Numeric))
          ].compact
        end

        def shape_problems(given)
          skip = given["skip"]
          [
            (["skip", "has to be 0 to 1000 lines"] unless skip.is_a?(Integer) && skip.between?(0, 1000)),
            (["separator", "has to be one of ; tab , |"] unless FieldLogHead::SEPARATORS.include?(given["separator"]))
          ].compact
        end

        def column_problem(id, one, count)
          about = Catalogue.recorded.fetch("columns")[id]
          unless about
            return "is no column that is read; known are #{Catalogue.recorded.fetch("columns").keys.join(", ")}"
          end
          return "has to name a column by its number" unless one.is_a?(Hash) && one["at"].is_a?(Integer)
          return "names column #{one["at"] + 1} of #{count}" unless one["at"].between?(0, count - 1)

          allowed = KINDS.fetch(about.fetch("kind"))
          "has to be in #{allowed.join(", ")}" unless allowed.include?(one["unit"])
        end

        def time_columns(head)
          dated = head.names.each_index.select { |i| head.rows.all? { |row| FieldLogClock.time?(row[i].to_s) } }
          return [dated.first] if dated.any? && head.rows.all? { |row| row[dated.first].include?(":") }

          clock = head.names.each_index.find { |i| head.rows.all? { |row| row[i].to_s.match?(/\A\d{1,2}:\d{2}/) } }
          return dated.first, clock if dated.any? && clock

          named = head.names.each_index.find { |i| means?(head.names[i], Catalogue.recorded.dig("time", "says")) }
          named && head.rows.all? { |row| row[named].to_s.match?(/\A\d+(?:[.,]\d+)?\z/) } ? [named] : dated.first(1)
        end

        def columns(head, time)
          taken = time.dup
          Catalogue
            .recorded
            .fetch("columns")
            .each_with_object({}) do |(id, about), found|
              at = best(head, about, taken) or next
              taken << at
              found[id] = { "at" => at, "unit" => unit(head.names[at], about, head.rows.map { |row| row[at] }) }
            end
        end

        # The first column whose heading has the first of the words that it has at all.
        def best(head, about, taken)
          about["says"].each do |word|
            at =
              head.names.each_index.find do |i|
                !taken.include?(i) && means?(head.names[i], [word]) && !means?(head.names[i], about["not"])
              end
            return at if at
          end
          nil
        end

        # Whether a heading has one of these words; of one or two letters only as a word of its own.
        def means?(name, words)
          plain = name.downcase
          parts = plain.split(%r{[^[:alnum:]/]+})
          words.any? { |word| word.size <= 3 ? parts.include?(word) : plain.include?(word) }
        end

        def unit(name, about, cells)
          case about.fetch("kind")
          when "percent"
            "%"
          when "degrees"
            name.match?(/°\s*c\b|\bcelsius|deg\s*c\b|\(c\)|\[c\]/i) ? "°C" : "°F"
          else
            return "mA" if name.match?(/\bmA\b/)
            return "on/off" if cells.all? { |cell| cell.to_s.match?(/\A(0|1|[a-z]+|)\z/i) }

            name.match?(/\(v\)|\bv\b|volt/i) ? "V" : (about["unit"] == "V" ? "V" : "A")
          end
        end

        def doubts(texts, order, time)
          return [Catalogue.words("recorded.no_time")] if time.empty? || order.nil?
          return [Catalogue.words("recorded.seconds_start")] if order == "seconds" && texts.first.to_f < 1e8
          unless order == "mdy" && FieldLogClock.order(texts) == "mdy" &&
                   texts.all? { |text| FieldLogClock.parts(text, "dmy") }
            return []
          end

          [Catalogue.words("recorded.order_guessed", text: texts.first)]
        end
      end

      # Ids of the columns in the order in which they are kept.
      def ids = RecordHour.order(columns.keys)

      def to_json_hash = to_h.slice(*FIELDS.map(&:to_sym)).transform_keys(&:to_s)
    end
  end
end
