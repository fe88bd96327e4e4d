# frozen_string_literal: true

module Gorvant
  module Desks
    # The settings as read at the wall, against what is fitted.
    module Thermostat
      def self.standing(record)
        return Standing::UNTOUCHED if record.as_found.settings.empty?

        SettingsCheck.new(record.rig, record.as_found, set_point_degrees_f: record.set_point_degrees_f).standing
      end
    end
  end
end
