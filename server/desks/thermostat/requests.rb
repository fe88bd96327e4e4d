# frozen_string_literal: true

module Gorvant
  module Server
    class StagingRequest < Request
      json do
        required(:script).value(:hash)
        required(:duration_seconds).filled(NUMBER)
        optional(:settings).value(:hash)
        optional(:at_seconds).filled(NUMBER, gteq?: 0.0)
      end
    end

    class SettingsRequest < Request
      json { optional(:settings).value(:hash) }
    end

    class SettingProfileRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:name).filled(:string, max_size?: 80)
        required(:labels).value(:hash)
      end

      rule(:name).validate(:plain_text, :named)
      rule(:labels) { key.failure(Desks::Thermostat::LABELS) unless Desks::Thermostat.labels?(value) }
    end
  end
end
