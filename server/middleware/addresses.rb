# frozen_string_literal: true

require "yaml"

module Gorvant
  module Server
    # Answers what no resource did, by what openapi.yml says is there: OPTIONS with the methods of an address, 405 for a
    # method that it does not take, 404 for an address that is none.
    class Addresses
      PATHS =
        YAML
          .safe_load_file(File.join(ROOT, "server", "openapi.yml"))
          .fetch("paths")
          .map do |path, methods|
            pattern = Regexp.escape(path).gsub(/\\{\w+\\}/, "[^/]+")
            [/\A#{pattern}\z/, methods.keys.grep(/\A(get|post|put|patch|delete)\z/).map(&:upcase)]
          end
          .freeze

      # HEAD goes with GET, OPTIONS with everything; nil for an address that is none.
      def self.methods(path)
        taken = PATHS.filter_map { |pattern, methods| methods if pattern.match?(path) }.flatten.uniq
        taken.any? ? taken + (taken.include?("GET") ? %w[HEAD] : []) + %w[OPTIONS] : nil
      end

      def initialize(app) = @app = app

      def call(env)
        return @app.call(env) unless env["REQUEST_METHOD"] == "OPTIONS"

        allowed = self.class.methods(env["PATH_INFO"])
        allowed ? [204, { "allow" => allowed.join(", ") }, []] : self.class.missing(env)
      end

      def self.missing(env)
        allowed = methods(env["PATH_INFO"])
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
