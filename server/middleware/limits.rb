# frozen_string_literal: true

require "rack/attack"

module Gorvant
  module Server
    # How often one caller may ask for what costs much (limits.yml, `x-limit` of openapi.yml): past it 429, with the
    # seconds until it may be asked again. Counted in the database, so that all processes count together. Behind Access,
    # which says who asks.
    module Limits
      SECONDS = 60
      ALL = YAML.safe_load_file(File.join(ROOT, "server", "limits.yml")).freeze
      CALLERS = {
        "address" => ->(env) { Caller.address(env) },
        "account" => ->(env) { env[Access::VIEWER]&.user_id },
        "device" => ->(env) { env[Access::VIEWER]&.device_id }
      }.freeze

      class << self
        # Rack::Attack, which counts in db from here on.
        def onto(db)
          Rack::Attack.cache.store = RateCounts.new(db)
          Rack::Attack.throttled_responder = method(:refuse)
          ALL.each do |name, about|
            Rack::Attack.throttle(name, limit: about.fetch("most"), period: SECONDS) do |request|
              CALLERS.fetch(about.fetch("by")).call(request.env) if limit(request.env) == name
            end
          end
          Rack::Attack
        end

        private

        def limit(env) = Operations.find(env["REQUEST_METHOD"], env["PATH_INFO"])&.limit

        def refuse(request)
          asked = request.env.fetch("rack.attack.match_data")
          left = SECONDS - (asked.fetch(:epoch_time) % SECONDS)
          Problem.response(TooOften.new(most: asked.fetch(:limit), seconds: left), request.env)
        end
      end
    end
  end
end
