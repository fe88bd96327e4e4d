# frozen_string_literal: true

module Gorvant
  module Desks
    # What the customer says, the weather, and safety first. Every point of safety is part of what it leans on.
    module Intake
      def self.standing(record)
        nobody_looked = !record.told && record.safety.empty?
        return Standing.of("intake", wrong: false, looked_at: [], taken: [], count: 0) if nobody_looked

        SafetyPoints.standing(record.rig, told: record.told, seen: record.safety)
      end

      # Every visit sets calls at the wall.
      def self.put_back(record)
        degrees = record.set_point_degrees_f
        key = degrees ? "set_point" : "set_point_unread"
        [
          PutBack.new(
            id: "set_point",
            says: Catalogue.words("put_back.#{key}", degrees: degrees && format("%g", degrees))
          )
        ]
      end
    end
  end
end
