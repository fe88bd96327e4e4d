# frozen_string_literal: true

module Gorvant
  module Server
    class FindRequest < Request
      json do
        optional(:stands).filled(:string, included_in?: %w[wall air_handler outdoor])
        optional(:call).filled(:string, included_in?: Catalogue.calls.keys)
        optional(:mode).filled(:string, included_in?: Diagnosis::NextTests::MODES)
        optional(:skip).value(:array, max_size?: 60).each(:string, max_size?: 200)
        optional(:early).filled(:bool)
        optional(:about).filled(:string, max_size?: 200)
      end
    end
  end
end
