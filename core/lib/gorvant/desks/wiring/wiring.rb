# frozen_string_literal: true

module Gorvant
  module Desks
    # Where conductors land, against the rig.
    module Wiring
      def self.standing(record)
        found = record.as_found
        return Standing::UNTOUCHED if found.landings.empty? && found.jumpers.empty?

        WiringCheck.new(record.rig, found).standing
      end
    end
  end
end
