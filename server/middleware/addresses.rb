# frozen_string_literal: true

module Gorvant
  module Server
    # Answers what no resource did, by what openapi.yml says is there: OPTIONS with the methods of an address, 405 for a
    # method that it does not take, 404 for an address that is none.
    class Addresses
      def initialize(app) = @app = app

      def call(env)
        return @app.call(env) unless env["REQUEST_METHOD"] == "OPTIONS"

        allowed = Operations.methods_of(env["PATH_INFO"])
        allowed ? [204, { "allow" => allowed.join(", ") }, []] : self.class.missing(env)
      end

      def self.missing(env)
        allowed = Operations.methods_of(env["PATH_INFO"])
        unless allowed
          return(
            Problem.plain(
              404,
              "Not found",
              "nothing is at #{env["PATH_INFO"].dup.force_encoding(Encoding::UTF_8).scrub[0, 200]}"
            )
          )
        end

        status, headers, body =
          Problem.plain(
            405,
            "Not done here",
            "this address takes #{allowed.join(", ")}, not #{env["REQUEST_METHOD"].to_s[0, 20]}"
          )
        [status, headers.merge("allow" => allowed.join(", ")), body]
      end
    end
  end
end
