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

      def self.standing(record)
        found = record.as_found
        return Standing::UNTOUCHED if found.landings.empty? && found.jumpers.empty?

        WiringCheck.new(record.rig, found).standing
      end
    end
  end
end
