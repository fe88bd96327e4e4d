# frozen_string_literal: true

module Gorvant
  module Formats
    # The schemas of the open formats, ready for questions from any thread. json_schemer finds what a "$ref" stands for
    # at the first question that reaches it, and takes the whole schema for it where a second question comes in between:
    # whatever is asked then is refused, at times from then on. So all of them are found before the first question.
    class Schemas
      def initialize
        @lock = Mutex.new
        @ready = {}
      end

      # The schemer of one version, such as "gorvant-rig-2".
      def of(name) = @lock.synchronize { @ready[name] ||= ready(Catalogue.schema(name)) }

      # The schemer of one part of it, by its name under "$defs".
      def part(name, part)
        @lock.synchronize { @ready[[name, part]] ||= ready(Catalogue.schema(name).merge("$ref" => "#/$defs/#{part}")) }
      end

      private

      # The one gem of the core: needed only where a file is read from outside. To bundle a schema goes through every
      # "$ref" in it.
      def ready(schema)
        require "json_schemer"
        JSONSchemer.schema(schema).tap(&:bundle)
      end
    end
  end
end
