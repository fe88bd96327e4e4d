# frozen_string_literal: true

module Gorvant
  # Balance points: below which outdoor temperature a thermostat runs no compressor, above which no auxiliary heat. They
  # follow the thermostat's own outdoor sensor; without one they do nothing. Source: docs/sources.md, staging-schools.
  module Balance
    class << self
      def in_use?(rig) = rig[:balance_points] && rig[:outdoor_sensor]
      def compressor?(rig, outdoor) =
        !in_use?(rig) || rig[:compressor_lockout] == "off_for_test" || outdoor >= rig[:compressor_balance_degrees_f]
      def auxiliary?(rig, outdoor) = !in_use?(rig) || outdoor <= rig[:auxiliary_balance_degrees_f]

      # Whether neither source may heat at this temperature: a set-up that is wrong, and no design.
      def nothing?(rig, outdoor) = !compressor?(rig, outdoor) && !auxiliary?(rig, outdoor)
    end
  end
end
