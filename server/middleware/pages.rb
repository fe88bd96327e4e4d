# frozen_string_literal: true

module Gorvant
  module Server
    # The built front end. Hashed assets are kept by the browser for ever; every other address is the one page.
    class Pages
      FOREVER = "public, max-age=31536000, immutable"

      def initialize(folder)
        @folder = folder
        @files = Rack::Files.new(folder) if folder
      end

      def call(env)
        return missing unless @folder && File.file?(File.join(@folder, "index.html"))

        asset = env["PATH_INFO"].start_with?("/assets/") || File.extname(env["PATH_INFO"]) != ""
        env = env.merge("PATH_INFO" => "/index.html") unless asset
        status, headers, body = @files.call(env)
        [
          status,
          headers.merge(
            "cache-control" => asset && status == 200 && env["PATH_INFO"].start_with?("/assets/") ? FOREVER : "no-cache"
          ),
          body
        ]
      end

      private

      def missing = [503, { "content-type" => "text/plain" }, ["The pages are not built yet: run bin/start.\n"]]
    end
  end
end
