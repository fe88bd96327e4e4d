# frozen_string_literal: true

require "json"

module Gorvant
  module Server
    # For those who look after the server, before everything else: whether this process lives (/health/live), whether it
    # can answer just now (/health/ready: the database does), and what it counts (/metrics). The counts are for this
    # machine, or for who has GORVANT_METRICS_TOKEN.
    class Health
      TEXT = { "content-type" => Prometheus::Client::Formats::Text::CONTENT_TYPE, "cache-control" => "no-store" }.freeze
      JSON_TYPE = { "content-type" => "application/json", "cache-control" => "no-store" }.freeze

      # dbs: { role => database }
      def initialize(app, dbs, token: ENV["GORVANT_METRICS_TOKEN"].to_s)
        @app = app
        @dbs = dbs
        @token = token
        @held = {}
      end

      def call(env)
        count_pools
        return @app.call(env) unless %w[GET HEAD].include?(env["REQUEST_METHOD"])

        case env["PATH_INFO"]
        when "/health/live"
          word(200, "live")
        when "/health/ready"
          away = @dbs.reject { |_role, db| answers?(db) }.keys
          away.empty? ? word(200, "ready") : word(503, "the database does not answer (#{away.join(", ")})")
        when "/metrics"
          metrics(env)
        else
          @app.call(env)
        end
      end

      private

      def word(status, says) = [status, JSON_TYPE, [JSON.generate({ "status" => says })]]

      def answers?(db)
        db.get(1) == 1
      rescue *Database::ERRORS
        false
      end

      # Each process says how many connections it holds whenever that has become another number.
      def count_pools
        @dbs.each do |role, db|
          size = db.pool.size
          Metrics::POOL.set(@held[role] = size, labels: { role: role.to_s }) unless @held[role] == size
        end
      end

      def metrics(env)
        return word(404, "nothing is here") unless may?(env)

        [200, TEXT, [Metrics.text]]
      end

      def may?(env)
        given = env["HTTP_AUTHORIZATION"].to_s[Access::BEARER, 1]
        return Rack::Utils.secure_compare(@token, given) if given

        Caller.here?(env)
      end
    end
  end
end
