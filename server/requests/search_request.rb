# frozen_string_literal: true

module Gorvant
  module Server
    class SearchRequest < Request
      json do
        optional(:text).value(:string, max_size?: LINE)
        optional(:symptom).filled(:string, included_in?: Catalogue.symptoms.keys)
        optional(:by).filled(:string, format?: UUID)
        optional(:cause).filled(:string, max_size?: TEXT)
        optional(:closed).filled(:bool)
        optional(:since).filled(:date)
        optional(:until).filled(:date)
      end
    end
  end
end
