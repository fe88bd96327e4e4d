# frozen_string_literal: true

module Gorvant
  module Server
    # The built front end. Hashed assets are kept by the browser for ever; every other address is the one page.
    class Pages
      FOREVER = "public, max-age=31536000, immutable"
      # Packed already, and named by what they hold.
      PACKED = "#{FOREVER}, no-transform".freeze

      def initialize(folder)
        @folder = folder
        @files = Rack::Files.new(folder) if folder
      end

      def call(env)
        return missing unless @folder && File.file?(File.join(@folder, "index.html"))

        asset = env["PATH_INFO"].start_with?("/assets/") || File.extname(env["PATH_INFO"]) != ""
        env = env.merge("PATH_INFO" => "/index.html") unless asset
        status, headers, body = @files.call(env)
        [status, headers.merge("cache-control" => status == 200 ? keeps(env["PATH_INFO"]) : "no-cache"), body]
      end

      private

      def keeps(path)
        return FOREVER if path.start_with?("/assets/")

        path.start_with?("/engine/") && path.end_with?(".gz") ? PACKED : "no-cache"
      end

      def missing = [503, { "content-type" => "text/plain" }, ["The pages are not built yet: run bin/start.\n"]]
    end
  end
end
