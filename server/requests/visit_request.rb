# frozen_string_literal: true

module Gorvant
  module Server
    class VisitRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        optional(:unit_id).filled(:string, format?: UUID)
        optional(:site_name).filled(:string, max_size?: LINE)
        optional(:unit_name).filled(:string, max_size?: LINE)
        optional(:rig_id).filled(:string, format?: UUID)
        optional(:as_visit_id).filled(:string, format?: UUID)
        optional(:kit).filled(:string, included_in?: Catalogue.kits.keys)
        required(:visit_on).filled(:date)
        optional(:complaint).value(:string, max_size?: TEXT)
        optional(:symptoms).value(:array, max_size?: ROWS).each(:string, included_in?: Catalogue.symptoms.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -80.0, lteq?: 150.0)
      end

      rule(:complaint).validate(:plain_text)
      rule(:rig_id, :as_visit_id, :kit) do
        given = %i[rig_id as_visit_id kit].count { |name| values[name] }
        if given.zero?
          key(:rig_id).failure(
            "is missing: give a rig_id, as_visit_id of an earlier visit whose rig to take over, or a kit"
          )
        end
        if given > 1
          key(:rig_id).failure("is one too many: give a rig_id, an as_visit_id or a kit, and not two of them")
        end
      end
      rule(:site_name).validate(:plain_text, :named)
      rule(:unit_name).validate(:plain_text, :named)
      rule(:unit_id, :site_name, :unit_name) do
        base = values.to_h
        unless base[:unit_id] || (base[:site_name] && base[:unit_name])
          key(:unit_id).failure("is missing: give a unit_id, or site_name and unit_name")
        end
      end
    end

    class VisitChangeRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        optional(:complaint).value(:string, max_size?: TEXT)
        optional(:symptoms).value(:array, max_size?: ROWS).each(:string, included_in?: Catalogue.symptoms.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -80.0, lteq?: 150.0)
        optional(:set_point_degrees_f).maybe(NUMBER, gteq?: 35.0, lteq?: 99.0)
        optional(:room_degrees_f).maybe(NUMBER, gteq?: -20.0, lteq?: 130.0)
        optional(:safety).value(:array, max_size?: ROWS).each(:string, included_in?: Catalogue.safety.keys)
        optional(:as_found).value(:hash)
        optional(:bench).value(:hash)
        optional(:setting_labels).value(:hash)
        optional(:defrost).value(:hash)
      end

      rule(:complaint).validate(:plain_text)

      # { line of the bench list => terminals seen live, or { "not_run" => why } }
      rule(:bench) do
        good =
          value.nil? ||
            (value.size <= 40 && value.all? { |line, seen| line.to_s.size <= 40 && VisitChangeRequest.bench?(seen) })
        unless good
          key.failure(
            "has to be lines of the bench list with the terminals seen live, such as {\"heat-1\": [\"Y\", \"G\"]}, " \
              "or with why it was not run, such as " \
              "{\"cool-1\": {\"not_run\": \"too cold\"}}"
          )
        end
      end

      def self.bench?(seen)
        return seen.size <= 12 && seen.all? { |one| one.is_a?(String) && one.size <= 8 } if seen.is_a?(Array)

        seen.is_a?(Hash) && seen.transform_keys(&:to_s).keys == ["not_run"] && seen.values.first.is_a?(String) &&
          seen.values.first.strip.size.between?(1, 200)
      end

      DEFROST = %w[moment history seen coil_switch thermistor test earlier].freeze
      MOST_TESTS = 12
      MOST_DEFROST_BYTES = 60_000
      rule(:defrost) do
        next unless key?

        stray = value.keys.map(&:to_s) - DEFROST
        key.failure("knows #{DEFROST.join(", ")}, not #{stray.first[0, 40]}") if stray.any?
        earlier = value[:earlier] || value["earlier"]
        unless earlier.nil? || (earlier.is_a?(Array) && earlier.size <= MOST_TESTS)
          key.failure("has earlier forced tests as a list of at most #{MOST_TESTS}")
        end
        key.failure("is over #{MOST_DEFROST_BYTES} bytes") if JSON.generate(value).bytesize > MOST_DEFROST_BYTES
      end

      rule(:setting_labels) { key.failure(LABELS) unless value.nil? || VisitChangeRequest.labels?(value) }

      LABELS =
        "has to be settings with the maker's own number or name in up to 40 characters, " \
          "such as {\"changeover_setup\": \"12\"}"
      def self.labels?(value) =
        value.all? do |key, label|
          Rig.settings.include?(key.to_s) && label.is_a?(String) && label.size <= 40 && !label.match?(/[[:cntrl:]]/)
        end
    end

    class FittedRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:revision).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:rig).value(:hash)
      end

      rule(:rig).validate(:named_rig)
    end
  end
end
