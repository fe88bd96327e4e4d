# frozen_string_literal: true

require "csv"

module Gorvant
  module Formats
    # Readings as a table: one row a standing reading, see docs/formats.md. What was expected and what came of it go out
    # and are not read: they follow from the rig.
    module ReadingsCsv
      HEAD = %w[taken_at call function from to place value value_high about open isolated choice instrument note].freeze
      OUT = [*HEAD, "reads", "verdict", "by"].freeze
      ASKED = [["taken_at"], ["call"], ["function"]].freeze
      MOST_ROWS = 2_000
      TIME = /\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d{1,6})?(?:Z|[+-]\d\d:\d\d)\z/
      # given: what each row says, as a reading is sent, all of them or none; refused: [{ line:, problem: }].
      Read = Value.define(:given, :rows, :refused)

      class << self
        # reads: [VisitRead].
        def dump(reads)
          CSV.generate do |csv|
            csv << OUT
            reads.each { |read| csv << row(read).map { |cell| Spreadsheet.plain(cell) } }
          end
        end

        # Never half: one bad row and nothing is taken.
        def read(text, rig) = Reader.new(text, rig).read

        private

        def row(read)
          seen = read.observation
          amount = seen.amount
          high = amount && amount.high != amount.low ? amount.high : nil
          [
            read.at,
            read.condition.call,
            seen.function,
            seen.from_node,
            seen.to_node,
            seen.place,
            amount&.low,
            high,
            flag(amount&.about),
            flag(amount&.open),
            flag(seen.isolated),
            seen.choice,
            seen.instrument,
            read.note,
            seen.says,
            read.verdict,
            read.by
          ]
        end

        def flag(value) = value ? "yes" : ""
      end

      # Reads a table line by line.
      class Reader
        def initialize(text, rig)
          @text = text
          @rig = rig
          @traces = {}
          @refused = []
        end

        def read
          table = Rows.read(@text, columns: ASKED, most: MOST_ROWS)
          if table.problem
            return Read.new(given: [], rows: 0, refused: [{ line: table.problem[0], problem: table.problem[1] }])
          end

          given = table.rows.filter_map { |line, cells| given(line, cells) }
          refuse(1, "holds no row but its head") if table.rows.empty?
          Read.new(given: @refused.empty? ? given : [], rows: table.rows.size, refused: @refused)
        end

        private

        def refuse(line, problem)
          @refused << { line: line, problem: problem }
          nil
        end

        def given(line, cells)
          cells = cells.transform_values { |cell| cell.to_s.delete_prefix("'") }
          call = cells["call"]
          unless Catalogue.calls.key?(call)
            return refuse(line, "call has to be one of #{Catalogue.calls.keys.join(", ")}")
          end
          unless TIME.match?(cells["taken_at"])
            return refuse(line, "taken_at has to be a time such as 2026-11-29T09:30:00Z")
          end

          seen = seen(cells)
          Observation.parse(seen, trace(call))
          seen.merge(
            "condition" => {
              "call" => call
            },
            "taken_at" => cells["taken_at"],
            "note" => cells["note"].to_s[0, 4_000]
          )
        rescue BadObservation => e
          refuse(line, "#{e.field.delete_prefix("/")} #{e.fields[:problem]}")
        rescue Error => e
          refuse(line, e.message[0, 200])
        end

        def trace(call) = @traces[call] ||= Trace.new(@rig, Condition.new(call: call))

        def seen(cells)
          {
            "function" => cells["function"],
            "from_node" => cells["from"],
            "to_node" => cells["to"],
            "place" => cells["place"],
            "value" => number(cells["value"]),
            "value_high" => number(cells["value_high"]),
            "about" => yes(cells["about"]),
            "open" => yes(cells["open"]),
            "isolated" => yes(cells["isolated"]),
            "choice" => choice(cells),
            "instrument" => cells["instrument"]
          }.reject { |_key, value| value.nil? || value == "" }
        end

        # What is no number is kept as it stands, so that it is named.
        def number(text) = text.to_s.empty? ? nil : Rows.number(text) || text
        def yes(text) = text.to_s.match?(/\A(?:yes|true|1|x)\z/i) || nil

        # A fact that was looked up has its own kind of value.
        def choice(cells)
          given = cells["choice"].to_s
          return given unless cells["function"] == "looked_up"

          case Catalogue.facts.dig(cells["place"], "kind")
          when "number"
            Rows.number(given) || given
          when "flag"
            { "true" => true, "yes" => true, "false" => false, "no" => false }.fetch(given.downcase, given)
          else
            Catalogue.facts.dig(cells["place"], "of").to_h.keys.find { |key| key.to_s == given } || given
          end
        end
      end
    end
  end
end
