# frozen_string_literal: true

module Gorvant
  module Server
    # What every answer says to the browser beside its content. Answers of the API are a crew's own: nothing between
    # keeps them, unless the answer itself says otherwise (a photo never changes).
    class Headers
      ALL = {
        "referrer-policy" => "same-origin",
        "x-content-type-options" => "nosniff",
        "permissions-policy" => "camera=(self), microphone=(), geolocation=(), payment=(), usb=()"
      }.freeze

      # Which start of the program answers, for the one who looks after it.
      INSTANCE =
        ENV["GORVANT_INSTANCE"].to_s.empty? ? {} : { "x-gorvant-instance" => ENV.fetch("GORVANT_INSTANCE", nil) }

      PAGES = File.join(ROOT, "web", "dist", "index.html")
      # Which pages belong to this server: an open one of an older build sees that it is.
      BUILD = File.file?(PAGES) ? { "x-gorvant-build" => Digest::SHA256.file(PAGES).hexdigest[0, 16] } : {}

      def initialize(app) = @app = app

      def call(env)
        status, headers, body = @app.call(env)
        own = env["PATH_INFO"].start_with?("/api/") ? { "cache-control" => "no-store", **BUILD, **time } : {}
        [status, { **ALL, **own, **INSTANCE, **headers }, body]
      end

      private

      # By which each device knows how far its clock lies from the server's.
      def time = { "x-gorvant-time" => Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond).to_s }
    end
  end
end
