# frozen_string_literal: true

require "json"

module Gorvant
  module Server
    # Stands before everything: refuses bodies that are too large, of another type, too deep or no JSON, and puts the parsed
    # body into the environment. Nothing further in reads raw input.
    class Guard
      MOST_BYTES = 2 * 1024 * 1024
      MOST_PICTURE_BYTES = 16 * 1024 * 1024
      PHOTOS = %r{\A/api/visits/[^/]+/photos\z}
      MOST_DEPTH = 40
      PARSED = "gorvant.body"
      UNSAFE = %w[POST PUT PATCH DELETE].freeze

      def initialize(app) = @app = app

      def call(env)
        env[PARSED] = parse(env) if UNSAFE.include?(env["REQUEST_METHOD"])
        @app.call(env)
      rescue Error => e
        Problem.response(e)
      end

      private

      def parse(env)
        return picture(env) if env["REQUEST_METHOD"] == "POST" && PHOTOS.match?(env["PATH_INFO"])
        raise TooLarge.new(limit: MOST_BYTES) if env["CONTENT_LENGTH"].to_i > MOST_BYTES

        text = env["rack.input"]&.read(MOST_BYTES + 1).to_s
        raise TooLarge.new(limit: MOST_BYTES) if text.bytesize > MOST_BYTES
        return nil if text.empty?

        media = env["CONTENT_TYPE"].to_s.split(";").first.to_s.strip.downcase
        raise WrongMedia.new(given: media.empty? ? "nothing" : media[0, 60]) unless media == "application/json"

        read(text)
      end

      # The bytes themselves: what they are is told by their content, not by their name.
      def picture(env)
        raise TooLarge.new(limit: MOST_PICTURE_BYTES) if env["CONTENT_LENGTH"].to_i > MOST_PICTURE_BYTES

        bytes = env["rack.input"]&.read(MOST_PICTURE_BYTES + 1).to_s
        raise TooLarge.new(limit: MOST_PICTURE_BYTES) if bytes.bytesize > MOST_PICTURE_BYTES

        bytes
      end

      def read(text)
        text = text.dup.force_encoding(Encoding::UTF_8)
        raise NotJson.new(reason: "it is not valid UTF-8") unless text.valid_encoding?
        raise NotJson.new(reason: "it holds the null character") if text.include?("\\u0000")

        JSON.parse(text, max_nesting: MOST_DEPTH)
      rescue JSON::NestingError
        raise NotJson.new(reason: "it is nested deeper than #{MOST_DEPTH} levels")
      rescue JSON::ParserError => e
        raise NotJson.new(reason: e.message.lines.first.to_s.strip[0, 160])
      end
    end
  end
end
