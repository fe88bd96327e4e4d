# frozen_string_literal: true

module Gorvant
  module Server
    class WiringRequest < Request
      json { optional(:as_found).value(:hash) }
    end

    class LandingsRequest < Request
      json { required(:text).filled(:string, max_size?: 1_000_000) }
    end
  end
end
