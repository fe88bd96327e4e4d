# frozen_string_literal: true

module Gorvant
  module Server
    class StayingNotesRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:notes).value(:string, max_size?: TEXT)
      end

      rule(:notes).validate(:plain_text)
    end

    class LabelRequest < Request
      json { optional(:size).filled(:string, included_in?: Reports::Label::SIZES.keys) }
    end
  end
end
