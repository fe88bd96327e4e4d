# frozen_string_literal: true

require "yaml"

module Gorvant
  module Server
    # What openapi.yml says of an address: which methods it takes, who may (`x-may`), how often (`x-limit`, see
    # limits.yml).
    module Operations
      Operation = Struct.new(:pattern, :verb, :may, :limit)
      METHODS = %w[get post put patch delete].freeze

      ALL =
        YAML
          .safe_load_file(File.join(ROOT, "server", "openapi.yml"))
          .fetch("paths")
          .flat_map do |path, said|
            pattern = /\A#{Regexp.escape(path).gsub(/\\{\w+\\}/, "[^/]+")}\z/
            said
              .slice(*METHODS)
              .map { |method, about| Operation.new(pattern, method.upcase, about.fetch("x-may"), about["x-limit"]) }
          end
          .freeze

      class << self
        # nil for an address or method that is none. Plain text before a name in braces.
        def find(method, path)
          method = "GET" if method == "HEAD"
          ALL.find { |one| one.verb == method && one.pattern.match?(path) }
        end

        # HEAD goes with GET, OPTIONS with everything; nil for an address that is none.
        def methods_of(path)
          taken = ALL.filter_map { |one| one.verb if one.pattern.match?(path) }.uniq
          taken.any? ? taken + (taken.include?("GET") ? %w[HEAD] : []) + %w[OPTIONS] : nil
        end
      end
    end
  end
end
