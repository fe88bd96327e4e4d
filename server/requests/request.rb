# frozen_string_literal: true

require "dry/validation"

module Gorvant
  module Server
    # The shape of an incoming body. `parse` gives a Hash with symbol keys, or raises Invalid with every field to blame.
    class Request < Dry::Validation::Contract
      UUID = Repository::UUID
      LINE = 200
      TEXT = 4_000
      ROWS = 200 # points and marks that a person reads off by hand
      MOST_PROBLEMS = 20
      VERSIONS = 2_147_483_647 # as many as a column holds
      # JSON has one kind of number: 24 and 24.0 are the same reading.
      NUMBER = Dry::Types["float"].constructor { |value| value.is_a?(Integer) ? value.to_f : value }
      # { name => { gteq?:, lteq?: } } of what a visit takes down of weather and house, and of what is read off sensors.
      DEGREES =
        Catalogue
          .profile
          .values_at("visit", "sensor_degrees")
          .reduce(:merge)
          .transform_values { |low, high| { gteq?: low, lteq?: high } }
          .freeze
      config.messages.default_locale = :en

      def self.parse(body)
        raise Invalid.new([{ "field" => "/", "problem" => "has to be a JSON object" }]) unless body.is_a?(Hash)

        known = schema.key_map.map { |key| key.name.to_s }
        stray =
          (body.keys - known).map do |key|
            { "field" => "/#{key[0, 60]}", "problem" => "is not known here; known are #{known.join(", ")}" }
          end
        result = new.call(body)
        problems =
          stray +
            result
              .errors
              .first(MOST_PROBLEMS)
              .map { |error| { "field" => "/#{error.path.join("/")}", "problem" => error.text } }
        raise Invalid.new(problems) if problems.any?

        result.to_h
      end

      # For a name: something that can be seen.
      VISIBLE = /[^\p{Space}\p{Cf}\p{Cc}\u115F\u1160\u2800\u3164\uFFA0]/
      BLANK = "is blank; give a name that can be read"
      register_macro(:named) { key.failure(BLANK) if key? && value.is_a?(String) && !value.match?(VISIBLE) }

      # The same for the name of a rig file; whatever else is wrong with the file, its own reader tells.
      register_macro(:named_rig) do
        name = value.is_a?(Hash) ? value[:name] || value["name"] : nil
        key(%i[rig name]).failure(BLANK) if name.is_a?(String) && !name.match?(VISIBLE)
      end

      # For a list of rows: each column of `columns` with what is wrong about a value, or nil. Looked at one by one, up
      # to MOST_PROBLEMS.
      register_macro(:rows) do |macro:|
        next unless value.is_a?(Array)

        columns = macro.args.first
        found = 0
        value.each_with_index do |row, i|
          break if found >= MOST_PROBLEMS

          unless row.is_a?(Hash)
            key(key.path.to_a + [i]).failure("has to be an object with #{columns.keys.join(" and ")}")
            next found += 1
          end
          columns.each do |name, wrong|
            says = wrong.call(row[name]) or next
            key(key.path.to_a + [i, name]).failure(says)
            found += 1
          end
        end
      end

      BETWEEN = ->(low, high) do
        ->(value) do
          "has to be a number from #{low} to #{high}" unless value.is_a?(Numeric) && value.between?(low, high)
        end
      end
      ONE_OF = ->(known) { ->(value) { "has to be one of #{known.join(", ")}" unless known.include?(value) } }

      # For any text field: control characters would be lost or do harm in exports.
      register_macro(:plain_text) do
        if key? && value.is_a?(String) && value.match?(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/)
          key.failure("holds control characters; plain text only")
        end
      end
    end
  end
end
