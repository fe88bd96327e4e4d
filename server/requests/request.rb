# frozen_string_literal: true

require "dry/validation"

module Gorvant
  module Server
    # The shape of an incoming body. `parse` gives a Hash with symbol keys, or raises Invalid with every field to blame.
    class Request < Dry::Validation::Contract
      UUID = Repository::UUID
      LINE = 200
      TEXT = 4_000
      VERSIONS = 2_147_483_647 # as many as a column holds
      # JSON has one kind of number: 24 and 24.0 are the same reading.
      NUMBER = Dry::Types["float"].constructor { |value| value.is_a?(Integer) ? value.to_f : value }
      config.messages.default_locale = :en

      def self.parse(body)
        raise Invalid.new([{ "field" => "/", "problem" => "has to be a JSON object" }]) unless body.is_a?(Hash)

        known = schema.key_map.map { |key| key.name.to_s }
        stray = (body.keys - known).map { |key| { "field" => "/#{key[0, 60]}", "problem" => "is not known here; known are #{known.join(', ')}" } }
        result = new.call(body)
        problems = stray + result.errors.map { |error| { "field" => "/#{error.path.join('/')}", "problem" => error.text } }
        raise Invalid.new(problems) if problems.any?

        result.to_h
      end

      # For any text field: control characters would be lost or do harm in exports.
      register_macro(:plain_text) do
        key.failure("holds control characters; plain text only") if key? && value.is_a?(String) && value.match?(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/)
      end
    end
  end
end
