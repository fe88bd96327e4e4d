# frozen_string_literal: true

require "time"
require "tzinfo"

module Gorvant
  module Server
    module Reports
      # Times on paper, by the clock of whoever asked for it; UTC where nobody said. Its short name stands at each.
      class Clock
        def self.zone?(name)
          TZInfo::Timezone.get(name).current_period
          true
        rescue TZInfo::InvalidTimezoneIdentifier, TZInfo::InvalidDataSource
          false
        end

        def initialize(zone = nil) = @zone = TZInfo::Timezone.get(zone || "UTC")

        # "2026-11-23 03:05 CST" of an ISO 8601 time.
        def says(iso) = @zone.to_local(Time.iso8601(iso)).strftime("%Y-%m-%d %H:%M %Z")
      end
    end
  end
end
