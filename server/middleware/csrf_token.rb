# frozen_string_literal: true

require "rack/protection"

module Gorvant
  module Server
    # A write by a session carries the token that a page of that session was told (answers of the session's own
    # addresses, and a refusal, say it in HEADER): what another site sends along with the cookie does not know it.
    # Beside the check of origins. A device has a token of its own and no session.
    class CsrfToken < Rack::Protection::AuthenticityToken
      HEADER = "x-csrf-token"

      default_options logging: false

      # { HEADER => a token for the session of this request }
      def self.header(env) = { HEADER => token(env.fetch("rack.session"), path: nil) }

      # Whether a request passes; only a write, and never a device's, looks at the session.
      def accepts?(env) = safe?(env) || !env[Access::VIEWER]&.device_id.nil? || super

      def default_reaction(env)
        status, headers, body = Problem.response(OldToken.new, env)
        [status, headers.merge(self.class.header(env)), body]
      end
    end
  end
end
