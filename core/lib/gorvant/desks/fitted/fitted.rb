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

      # What is fitted, each fact with where it is from, and what nobody read.
      def self.report(record)
        rig = record.rig
        read = rig.facts.reject { |_key, fact| fact.assumed? }
        rows = read.map { |key, fact| [title(key), Comparison.words(key, fact.value), from(fact.provenance)] }
        taken = rig.assumed.map { |key| "#{title(key)}: #{Comparison.words(key, rig[key.to_sym])}" }
        [
          (Blocks.table(%w[fact is from].map { |key| Catalogue.words("report.head_#{key}") }, rows) if rows.any?),
          (Blocks.text(Catalogue.words("report.taken", count: taken.size, list: taken.join("; "))) if taken.any?)
        ].compact
      end

      def self.from(provenance)
        source = Catalogue.words("report.source_#{provenance.source}")
        [source, provenance.by, provenance.at.to_s[0, 10]].reject { |part| part.to_s.empty? }.join(", ")
      end
      private_class_method :from

      def self.title(key) = Catalogue.facts.fetch(key).fetch("title")
      private_class_method :title
    end
  end
end
