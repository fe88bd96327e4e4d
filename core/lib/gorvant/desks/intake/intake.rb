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
    end
  end
end
