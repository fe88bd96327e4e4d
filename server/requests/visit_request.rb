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
        required(:rig_id).filled(:string, format?: UUID)
        required(:visit_on).filled(:date)
        optional(:complaint).value(:string, max_size?: TEXT)
        optional(:symptoms).array(:string, included_in?: Catalogue.symptoms.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -80.0, lteq?: 150.0)
      end

      rule(:complaint).validate(:plain_text)
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
        required(:version).filled(:integer)
        optional(:complaint).value(:string, max_size?: TEXT)
        optional(:symptoms).array(:string, included_in?: Catalogue.symptoms.keys)
        optional(:outdoor_degrees_f).maybe(NUMBER, gteq?: -80.0, lteq?: 150.0)
      end

      rule(:complaint).validate(:plain_text)
    end
  end
end
