# frozen_string_literal: true

require "json"

module Gorvant
  module Server
    # Stands before everything: refuses addresses that are no text, bodies that are too large, of another type, too deep
    # or no JSON, and puts the parsed body into the environment. Nothing further in reads raw input.
    class Guard
      MOST_BYTES = 2 * 1024 * 1024
      MOST_PICTURE_BYTES = 16 * 1024 * 1024
      # Bodies that are bytes: photos, a crew's mark, and parts of an archive or of a logger's file.
      BYTES = %r{\A/api/(?:visits/[^/]+/photos|crew/mark|archives/[^/]+/parts/\d+|logs/[^/]+/files/\d+/parts/\d+)\z}
      MOST_DEPTH = 40
      MOST_QUERY = 2_000
      PARSED = "gorvant.body"
      UNSAFE = %w[POST PUT PATCH DELETE].freeze
      CONTROL = /[\u0000-\u001f\u007f]/

      def initialize(app) = @app = app

      def call(env)
        address(env["PATH_INFO"], "path")
        query(env["QUERY_STRING"].to_s)
        env[PARSED] = parse(env) if UNSAFE.include?(env["REQUEST_METHOD"])
        @app.call(env)
      rescue Error => e
        Problem.response(e, env)
      end

      private

      # Every part of an address is text in UTF-8 without control characters.
      def address(text, part)
        plain = Rack::Utils.unescape_path(text.dup.force_encoding(Encoding::UTF_8))
        raise BadAddress.new(part: part, problem: "is not valid UTF-8") unless plain.valid_encoding?
        raise BadAddress.new(part: part, problem: "holds control characters") if plain.match?(CONTROL)
      rescue ArgumentError
        raise BadAddress.new(part: part, problem: "is not written as an address is")
      end

      def query(text)
        raise BadAddress.new(part: "query", problem: "is over #{MOST_QUERY} characters") if text.size > MOST_QUERY

        Rack::Utils.parse_nested_query(text)
        address(text, "query")
      rescue Rack::QueryParser::ParameterTypeError,
             Rack::QueryParser::InvalidParameterError,
             Rack::QueryParser::QueryLimitError,
             Rack::QueryParser::ParamsTooDeepError,
             ArgumentError
        raise BadAddress.new(part: "query", problem: "is not written as name=value pairs")
      end

      def parse(env)
        return picture(env) if env["REQUEST_METHOD"] == "POST" && BYTES.match?(env["PATH_INFO"])
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

        JSON.parse(text, max_nesting: MOST_DEPTH).tap { |body| Values.new.check(body, "") }
      rescue JSON::NestingError
        raise NotJson.new(reason: "it is nested deeper than #{MOST_DEPTH} levels")
      rescue JSON::ParserError => e
        raise NotJson.new(reason: e.message.lines.first.to_s.strip[0, 160])
      end

      # What no field takes, wherever it stands: numbers that no instrument shows, names as long as a text, more values
      # than a person could have meant.
      class Values
        MOST = 50_000
        MOST_NUMBER = 1e15
        MOST_NAME = 200

        def initialize = @count = 0

        def check(value, at)
          raise NotJson.new(reason: "it holds more than #{MOST} values") if (@count += 1) > MOST

          case value
          when Hash
            value.each { |name, inner| check(inner, "#{at}/#{name(name, at)}") }
          when Array
            value.each_with_index { |inner, i| check(inner, "#{at}/#{i}") }
          when Numeric
            number(value, at)
          when String
            raise Refused.new(field: at, problem: "holds half a character") unless value.valid_encoding?
          end
        end

        private

        def name(name, at)
          if name.size > MOST_NAME
            raise Refused.new(field: at.empty? ? "/" : at, problem: "has a name of more than #{MOST_NAME} characters")
          end

          name
        end

        def number(value, at)
          if value.abs > MOST_NUMBER || (value.is_a?(Float) && !value.finite?)
            raise Refused.new(field: at, problem: "has to be a number under 10 to the 15th")
          end
        end
      end
    end
  end
end
