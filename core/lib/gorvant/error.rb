# frozen_string_literal: true

module Gorvant
  # The root of every error that the core raises on purpose. Each names the thing and what would be right,
  # and keeps both as fields: `error.fields[:node]`. `field` is the JSON pointer of the input to blame, or nil.
  class Error < StandardError
    attr_reader :fields

    # The sentence, with %<name>s for each field. Arrays are joined with commas.
    def self.says(template = nil)
      template ? @template = template : (@template || superclass.says)
    end

    def self.code = name.split("::").last.gsub(/([a-z])([A-Z])/, '\1_\2').downcase

    def initialize(**fields)
      @fields = fields.freeze
      super(format(self.class.says, fields.transform_values { |value| value.is_a?(Array) ? value.join(", ") : value }))
    end

    def field = fields[:field]
  end
end
