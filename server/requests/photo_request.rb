# frozen_string_literal: true

module Gorvant
  module Server
    # What a photo shows, in words.
    class PhotoNoteRequest < Request
      json do
        optional(:note).value(:string, max_size?: LINE)
        optional(:of).filled(:string, included_in?: %w[panel_diagram splice board_setting thermostat other])
      end

      rule(:note).validate(:plain_text)
    end
  end
end
