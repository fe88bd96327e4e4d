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
        optional(:outdoor_degrees_f).maybe(NUMBER, **DEGREES.fetch("outdoor_degrees_f"))
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
        optional(:outdoor_degrees_f).maybe(NUMBER, **DEGREES.fetch("outdoor_degrees_f"))
        optional(:set_point_degrees_f).maybe(NUMBER, **DEGREES.fetch("set_point_degrees_f"))
        optional(:room_degrees_f).maybe(NUMBER, **DEGREES.fetch("room_degrees_f"))
        optional(:safety).value(:array, max_size?: ROWS).each(:string, included_in?: Catalogue.safety.keys)
      end

      rule(:complaint).validate(:plain_text)
    end

    # What a desk keeps; what is in it is the desk's own to look at, in the core.
    class DeskRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 0, lteq?: VERSIONS)
        required(:content).value(:hash)
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
