# frozen_string_literal: true

module Gorvant
  module Server
    # Answers of the core, kept as text under the digest of all that they follow from. They hold nothing that the asker
    # did not send, so they are not kept apart by crew.
    class Computed
      MEGABYTE = 1_048_576
      # How much of each kind is kept, the newest of it; a kind that is not named has the last. So no drawing takes the
      # place of what a task worked out for minutes.
      BUDGETS = {
        "alike" => 40 * MEGABYTE,
        "signatures" => 80 * MEGABYTE,
        "recorded" => 60 * MEGABYTE,
        "timeline" => 60 * MEGABYTE,
        "trace" => 80 * MEGABYTE
      }.freeze
      OTHER_BUDGET = 40 * MEGABYTE
      # Kinds that are worked out in turn.
      DEAR = %w[timeline wiring settings outlook forced_test].freeze
      # What works the answers out and writes them down: another after every change to it, so that no upgrade shows an
      # old answer.
      ENGINE =
        Digest::SHA256.hexdigest(
          Dir[File.join(ROOT, "{core/lib,server/answers,server/presenters,server/desks}/**/*.rb")]
            .map { |path| File.binread(path) }
            .join
        )

      def initialize(db) = @db = db

      # The name of an answer: parts are JSON-able values that it follows from.
      def self.key(*parts) = Digest::SHA256.hexdigest(JSON.generate([ENGINE, Catalogue.digest, *parts]))

      # The answer under its parts; the block computes it as text.
      def recall(kind, *parts, &block)
        key = self.class.key(kind, *parts)
        get(key) || put(kind, key, DEAR.include?(kind) ? Warm.dear(&block) : yield)
      end

      def get(key) = @db[:computed_results].where(key: key).get(:content)

      def put(kind, key, content)
        @db[:computed_results].insert_conflict.insert(kind: kind, key: key, content: content)
        content
      end

      # Takes out what is over the budget of its kind, oldest first: the worker's, when it has nothing else to do.
      def prune
        kinds = @db[:computed_results].distinct.select_map(:kind)
        kinds.sum { |kind| @db[:computed_results].where(key: over(kind, BUDGETS.fetch(kind, OTHER_BUDGET))).delete }
      end

      private

      # Keys of a kind past so many bytes, counted from the newest.
      def over(kind, bytes)
        newest_first = { order: [Sequel.desc(:created_at), :key] }
        so_far = Sequel.function(:sum, Sequel.function(:octet_length, :content)).over(**newest_first).as(:so_far)
        sized = @db[:computed_results].where(kind: kind).select(:key, so_far)
        @db.from(sized).where(Sequel[:so_far] > bytes).select(:key)
      end
    end
  end
end
