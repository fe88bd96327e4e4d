# frozen_string_literal: true

require "csv"

module Gorvant
  module Formats
    # Landings and jumpers as a table: one row a conductor end or jumper, see docs/formats.md. What a spreadsheet makes
    # of it is read too: byte order mark, semicolons, Windows line ends.
    module LandingsCsv
      HEAD = %w[place cable conductor color lands_on].freeze
      JUMPER = "jumper"
      MOST_ROWS = 5_000
      # as_found: the record that the good rows make, nil when any row was refused; rows: how many were read;
      # refused: [{ line:, problem: }].
      Read = Value.define(:as_found, :rows, :refused)

      class << self
        # All ends of a rig as found, and its jumpers.
        def dump(rig, found)
          CSV.generate do |csv|
            csv << HEAD
            found
              .ends(rig)
              .each do |one|
                csv << [one.place, one.cable, one.conductor, color(rig, one), one.lands_on || one.lies].map do |cell|
                  Spreadsheet.plain(cell)
                end
              end
            AsFound
              .jumpers_of(rig)
              .reject { |own| found.jumpers.any? { |other| same?(own, other) } }
              .concat(found.jumpers)
              .each { |one| csv << [one.place, JUMPER, "", "", "#{"no " unless one.found}#{one.from}-#{one.to}"] }
          end
        end

        # Never half: one bad row and nothing is taken. settings: of the record that it goes into.
        def read(text, rig, settings: {})
          Reader.new(text, rig, settings).read
        end

        def same?(one, other) = one.place == other.place && [one.from, one.to].sort == [other.from, other.to].sort

        private

        def color(rig, one)
          conductor =
            rig.cables.find { |cable| cable.id == one.cable }&.conductors&.find { |known| known.id == one.conductor }
          (one.color || conductor&.color || one.conductor).tr("_", " ")
        end
      end

      # Reads a table line by line.
      class Reader
        def initialize(text, rig, settings)
          @text = text
          @rig = rig
          @strips = AsFound.strips(rig)
          @settings = settings
          @refused = []
          @landings = {}
          @jumpers = {}
          @lines = {}
        end

        def read
          table = Rows.read(@text, columns: (HEAD - ["color"]).map { |name| [name] }, most: MOST_ROWS)
          return refuse(*table.problem) && answer(0) if table.problem

          table.rows.each { |line, cells| row(line, cells) }
          if @refused.empty? && @landings.size > AsFound::MOST
            refuse(1, "makes #{@landings.size} conductor ends; a visit keeps at most #{AsFound::MOST}")
          end
          answer(table.rows.size)
        end

        private

        def refuse(line, problem) = @refused << { line: line, problem: problem }

        def answer(rows)
          refuse(1, "holds no row but its head") if rows.zero? && @refused.empty?
          found =
            (
              if @refused.empty?
                AsFound.new(landings: @landings.values, jumpers: @jumpers.values, settings: @settings)
              else
                nil
              end
            )
          Read.new(as_found: found, rows: rows, refused: @refused)
        end

        def row(line, cells)
          cells["cable"].to_s.downcase == JUMPER ? jumper(line, cells) : landing(line, cells)
        end

        def landing(line, cells)
          lands = cells["lands_on"].to_s
          lies = %w[capped bare].include?(lands.downcase) ? lands.downcase : "landed"
          given = {
            "place" => slug(cells["place"]),
            "cable" => slug(cells["cable"]),
            "conductor" => slug(cells["conductor"]),
            "lies" => lies,
            "lands_on" => lies == "landed" ? terminal(slug(cells["place"]), lands) : nil,
            "color" => cells["color"].to_s.empty? ? nil : cells["color"]
          }
          one = checked(line, { "landings" => [given] })&.landings&.first or return
          key = [one.cable, one.conductor, one.place]
          @landings[key] = drawn_color?(one) ? one.with(color: nil) : one if once?(key, line, "this end")
        end

        # Each end and each jumper stands in one row.
        def once?(key, line, what)
          before = @lines[key]
          refuse(line, "#{what} stands on line #{before} already") if before
          @lines[key] ||= line
          before.nil?
        end

        def drawn_color?(one)
          conductor =
            @rig.cables.find { |cable| cable.id == one.cable }.conductors.find { |known| known.id == one.conductor }
          conductor && one.color.to_s.tr("_", " ").casecmp?(conductor.color.tr("_", " "))
        end

        def jumper(line, cells)
          found = !cells["lands_on"].to_s.start_with?("no ")
          from, to =
            cells["lands_on"]
              .to_s
              .delete_prefix("no ")
              .split(/[-–]/, 2)
              .map { |terminal| terminal(slug(cells["place"]), terminal.strip) }
          one =
            checked(
              line,
              { "jumpers" => [{ "place" => slug(cells["place"]), "from" => from, "to" => to, "found" => found }] }
            )&.jumpers&.first
          return unless one

          key = [one.place, *[one.from, one.to].sort]
          @jumpers[key] = one if once?(key, line, "this jumper")
        end

        def checked(line, given)
          AsFound.parse(given, @rig, @strips)
        rescue BadAsFound => e
          refuse(
            line,
            e.problems.map { |problem| "#{problem["field"].split("/").last}: #{problem["problem"]}" }.join("; ")
          ) && nil
        end

        def slug(text) = text.to_s.strip.downcase.tr(" -", "__")

        # As the strip has it, whatever the letters' case and with or without "W2 out" in two words.
        def terminal(place, text)
          known = @rig.layout.fetch("places").key?(place) ? @strips[place] : []
          known.find do |one|
            [one, Naming.letter(@rig, one)].any? { |name| name.tr("_ ", "").casecmp?(text.tr("_ ", "")) }
          end || text
        end
      end
    end
  end
end
