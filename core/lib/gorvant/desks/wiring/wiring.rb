# frozen_string_literal: true

module Gorvant
  module Desks
    # Where conductors land, against the rig.
    module Wiring
      UNTOUCHED = Standing.new(mark: "untouched", says: "", looked_at: [].freeze, taken: [].freeze)

      def self.standing(record)
        found = record.as_found
        return UNTOUCHED if found.landings.empty? && found.jumpers.empty?

        WiringCheck.new(record.rig, found).standing
      end
    end
  end
end
