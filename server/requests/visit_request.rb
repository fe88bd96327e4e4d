# frozen_string_literal: true

module Gorvant
  module Server
    # A new visit: a known unit, or the names of a site and a unit; a rig of the library.
    class VisitRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        optional(:unit_id).filled(:string, format?: UUID)
        optional(:site_name).filled(:string, max_size?: LINE)
        optional(:unit_name).filled(:string, max_size?: LINE)
        optional(:rig_id).filled(:string, format?: UUID)
        optional(:as_visit_id).filled(:string, format?: UUID)
        required(:visit_on).filled(:date)
        optional(:complaint).value(:string, max_size?: TEXT)
        optional(:symptoms).array(:string, included_in?: Catalogue.symptoms.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -80.0, lteq?: 150.0)
      end

      rule(:complaint).validate(:plain_text)
      rule(:rig_id, :as_visit_id) do
        key(:rig_id).failure("is missing: give a rig_id, or as_visit_id of an earlier visit whose rig to take over") unless values[:rig_id] || values[:as_visit_id]
      end
      rule(:site_name).validate(:plain_text)
      rule(:unit_name).validate(:plain_text)
      rule(:unit_id, :site_name, :unit_name) do
        base = values.to_h
        key(:unit_id).failure("is missing: give a unit_id, or site_name and unit_name") unless base[:unit_id] || (base[:site_name] && base[:unit_name])
      end
    end

    # A change to a visit, with the version that the change was made on.
    class VisitChangeRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        optional(:complaint).value(:string, max_size?: TEXT)
        optional(:symptoms).array(:string, included_in?: Catalogue.symptoms.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -80.0, lteq?: 150.0)
        optional(:set_point_degrees_f).maybe(NUMBER, gteq?: 35.0, lteq?: 99.0)
        optional(:room_degrees_f).maybe(NUMBER, gteq?: -20.0, lteq?: 130.0)
        optional(:safety).array(:string, included_in?: Catalogue.safety.keys)
        optional(:as_found).value(:hash)
        optional(:bench).value(:hash)
        optional(:setting_labels).value(:hash)
        optional(:defrost).value(:hash)
      end

      rule(:complaint).validate(:plain_text)

      # { line of the bench list => terminals seen live }
      rule(:bench) do
        good = value.nil? || (value.size <= 40 && value.all? do |line, seen|
          line.to_s.size <= 40 && seen.is_a?(Array) && seen.size <= 12 && seen.all? do |one|
            one.is_a?(String) && one.size <= 8
          end
        end)
        key.failure("has to be lines of the bench list with the terminals seen live, such as {\"heat-1\": [\"Y\", \"G\"]}") unless good
      end

      DEFROST = %w[moment history seen coil_switch thermistor test].freeze
      MOST_DEFROST_BYTES = 60_000
      rule(:defrost) do
        next unless key?

        stray = value.keys.map(&:to_s) - DEFROST
        key.failure("knows #{DEFROST.join(', ')}, not #{stray.first[0, 40]}") if stray.any?
        key.failure("is over #{MOST_DEFROST_BYTES} bytes") if JSON.generate(value).bytesize > MOST_DEFROST_BYTES
      end

      rule(:setting_labels) { key.failure(LABELS) unless value.nil? || VisitChangeRequest.labels?(value) }

      LABELS = "has to be settings with the maker's own number or name in up to 40 characters, such as {\"changeover_setup\": \"12\"}"
      def self.labels?(value) = value.all? { |key, label| Rig.settings.include?(key.to_s) && label.is_a?(String) && label.size <= 40 && !label.match?(/[[:cntrl:]]/) }
    end

    # The rig as a visit has it now.
    class FittedRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:rig).value(:hash)
      end
    end

    # A wiring as found that is being looked at; nothing is kept.
    class WiringRequest < Request
      json { optional(:as_found).value(:hash) }
    end

    # Landings as a table.
    class LandingsRequest < Request
      json { required(:text).filled(:string, max_size?: 1_000_000) }
    end

    # A thermostat's stages over time, with settings as found that are being looked at.
    class StagingRequest < Request
      json do
        required(:script).value(:hash)
        required(:duration_seconds).filled(NUMBER)
        optional(:settings).value(:hash)
        optional(:at_seconds).filled(NUMBER, gteq?: 0.0)
      end
    end

    # Settings that are being looked at.
    class SettingsRequest < Request
      json { optional(:settings).value(:hash) }
    end

    # A maker's own setting numbers, to be used again.
    class SettingProfileRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:name).filled(:string, max_size?: 80)
        required(:labels).value(:hash)
      end

      rule(:name).validate(:plain_text)
      rule(:labels) { key.failure(VisitChangeRequest::LABELS) unless VisitChangeRequest.labels?(value) }
    end
  end
end
