# frozen_string_literal: true

module Gorvant
  module Desks
    # Where conductors land, against the rig.
    module Wiring
      # given: { "landings", "jumpers" } as AsFound has them.
      def self.keep(given, rig)
        stray = given.keys - %w[landings jumpers]
        if stray.any?
          raise BadRecord.new(
                  [{ "field" => "/#{stray.first}", "problem" => "unknown; known are landings and jumpers" }]
                )
        end

        AsFound.parse(given, rig).to_json_hash.slice("landings", "jumpers")
      end

      # Places where every end was looked at: what differs is part of the unit as found, and beside it nothing does.
      def self.evidence(record)
        found = record.as_found
        return [] if found.landings.empty?

        record
          .rig
          .layout
          .fetch("places")
          .keys
          .filter_map do |place|
            ends = found.ends(record.rig).select { |one| one.place == place }
            next unless ends.all? { |one| found.landings.include?(one) && one.seen }

            ["seen|wires_#{place}|person", "as_drawn", Catalogue.wording.fetch("find.wires_looked_at")]
          end
      end

      # What was found to land otherwise, and jumpers that should not be there or are missing.
      def self.put_back(record)
        found = record.as_found
        Differences
          .new(Target.rig(record.rig), found, record.rig)
          .all
          .reject { |one| one.kind == "setting" || one.moves.empty? }
          .map { |one| line(record.rig, one) }
      end

      # How it was found, and what each difference came to.
      def self.report(record)
        found = record.as_found
        return [Blocks.text(Catalogue.words("report.no_wiring"))] unless found.looked?

        check = WiringCheck.new(record.rig, found)
        rows =
          check
            .told
            .reject { |told| told.kind == "setting" }
            .map { |told| [told.finding.title, told.finding.says, told.moves.join(". ")] }
        head = %w[found does put_right].map { |key| Catalogue.words("report.head_#{key}") }
        [Blocks.text(check.standing.says), (Blocks.table(head, rows) if rows.any?)].compact
      end

      def self.line(rig, difference)
        bridged = bridged(rig, difference)
        PutBack.new(
          id: line_id(difference),
          says: "#{difference.moves.join(". ")}.",
          never_left: bridged.any?,
          cautions: bridged.any? ? ["safeties"] : []
        )
      end

      def self.line_id(difference) = PutBack.id("wiring", difference.kind, *difference.moves)

      # Codes of what an extra jumper leaves out.
      def self.bridged(rig, difference)
        return [] unless difference.kind == "jumper_extra"

        jumper = difference.jumper
        nodes = [jumper.from, jumper.to].map { |terminal| AsFound.node(rig, jumper.place, terminal) }
        nodes.all? ? SafetyBridge.codes(rig, *nodes) : []
      end
      private_class_method :line, :bridged

      def self.standing(record)
        found = record.as_found
        return Standing::UNTOUCHED unless found.looked?

        WiringCheck.new(record.rig, found).standing
      end
    end
  end
end
