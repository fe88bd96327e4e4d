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

      def self.standing(record)
        found = record.as_found
        return Standing::UNTOUCHED if found.landings.empty? && found.jumpers.empty?

        WiringCheck.new(record.rig, found).standing
      end
    end
  end
end
