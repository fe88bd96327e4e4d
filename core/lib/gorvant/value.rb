# frozen_string_literal: true

module Gorvant
  # A frozen value with named fields: Data's interface for Ruby 3.1 (define, with, to_h, ==), to be replaced by Data
  # later. Every field must be given; a field that may be left out has its default in the block's `defaults`.
  module Value
    # Returns a class. defaults is { field => value } for fields that may be left out.
    def self.define(*fields, defaults: {}, &body)
      Struct.new(*fields, keyword_init: true) do
        fields.each { |field| undef_method(:"#{field}=") }
        const_set(:DEFAULTS, defaults.freeze)
        const_set(:SIZE, fields.size) # members would make a list each time

        def initialize(**given)
          whole = given.size == self.class::SIZE
          missing = whole ? [] : self.class.members - given.keys - self.class::DEFAULTS.keys
          raise ArgumentError.new("missing #{missing.join(", ")} for #{self.class}") if missing.any?

          whole ? super : super(**self.class::DEFAULTS, **given)
          freeze
        end

        # A copy with some fields changed: half of what a run makes, so it is not built anew.
        def with(**changes)
          copy = dup
          changes.each { |field, value| copy[field] = value }
          copy.freeze
        end

        class_eval(&body) if body
      end
    end
  end
end
