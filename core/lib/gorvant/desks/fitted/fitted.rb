# frozen_string_literal: true

module Gorvant
  module Desks
    # What is fitted, each fact with where it is from.
    module Fitted
      def self.standing(record)
        rig = record.rig
        read = rig.facts.reject { |_key, fact| fact.assumed? }.keys.map { |key| title(key) }
        Standing.of(
          "fitted",
          wrong: false,
          looked_at: read,
          taken: rig.assumed.map { |key| title(key) },
          count: read.size
        )
      end

      def self.title(key) = Catalogue.facts.fetch(key).fetch("title")
      private_class_method :title
    end
  end
end
