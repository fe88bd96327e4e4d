# frozen_string_literal: true

require "json"
require "logger"

module Gorvant
  module Server
    # One line for each answer of the API: when, which route, status, how long, and the code of what was wrong. No text
    # of a user, no ids, no addresses. GORVANT_LOG names the file, which is turned over at MOST_BYTES; without it
    # nothing is written.
    class Journal
      MOST_BYTES = 5 * 1024 * 1024
      FILES = 4
      CODE = "gorvant.code"
      ROUTE = "sinatra.route"

      class << self
        def logger
          @logger ||=
            (
              if ENV["GORVANT_LOG"].to_s.empty?
                Logger.new(nil)
              else
                Logger.new(ENV.fetch("GORVANT_LOG", nil), FILES, MOST_BYTES, formatter: method(:line))
              end
            )
        end

        # What broke, and where: class and places of the program, not the message, which may hold what somebody typed.
        def broke(error, env)
          frames = Array(error.backtrace).grep(/#{Regexp.escape(ROOT)}/).reject { |frame| frame.include?("/vendor/") }
          places = frames.first(6).map { |frame| frame.delete_prefix("#{ROOT}/") }
          logger.error({ route: env[ROUTE], error: error.class.name, at: places })
        end

        private

        def line(severity, time, _program, fields) =
          "#{JSON.generate({ at: time.utc.strftime("%FT%T.%LZ"), severity: severity, **fields })}\n"
      end

      include Steady

      def initialize(app) = @app = app

      def call(env)
        began = now
        status, headers, body = @app.call(env)
        took = now - began
        route = env[ROUTE] || env["REQUEST_METHOD"]
        Metrics.answered(env[ROUTE] || "none", status, took, env[CODE])
        self.class.logger.info({ route: route, status: status, ms: (took * 1000).round, code: env[CODE] }.compact)
        [status, headers, body]
      end
    end
  end
end
