# frozen_string_literal: true

module Gorvant
  module Server
    # Answers of the core, kept as text under the digest of all that they follow from. They hold nothing that the asker
    # did not send, so they are not kept apart by crew.
    class Computed
      MOST_KEPT = 2_000
      # Kinds that are worked out in turn.
      DEAR = %w[timeline wiring settings outlook forced_test].freeze
      # What works the answers out and writes them down: another after every change to it, so that no upgrade shows an
      # old answer.
      ENGINE =
        Digest::SHA256.hexdigest(
          Dir[File.join(ROOT, "{core/lib,server/presenters,server/desks}/**/*.rb")]
            .map { |path| File.binread(path) }
            .join
        )

      def initialize(db) = @db = db

      # The name of an answer: parts are JSON-able values that it follows from.
      def self.key(*parts) = Digest::SHA256.hexdigest(JSON.generate([ENGINE, Catalogue.digest, *parts]))

      # The answer under its parts; the block computes it as text.
      def recall(kind, *parts, &block)
        key = self.class.key(kind, *parts)
        get(key) || put(key, DEAR.include?(kind) ? Warm.dear(&block) : yield)
      end

      def get(key) = @db[:computed_results].where(key: key).get(:content)

      def put(key, content)
        @db[:computed_results].insert_conflict.insert(key: key, content: content)
        old = @db[:computed_results].reverse(:created_at).offset(MOST_KEPT).select(:key)
        @db[:computed_results].where(key: old).delete
        content
      end
    end
  end
end
