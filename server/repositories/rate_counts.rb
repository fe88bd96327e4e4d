# frozen_string_literal: true

require "digest"

module Gorvant
  module Server
    # How often somebody asked in a while, as rack-attack wants a store to be. Who it was is kept as a digest only.
    class RateCounts
      def initialize(db) = @db = db

      # The count after this one.
      def increment(key, by, expires_in:)
        till = Sequel.lit("clock_timestamp() + ? * interval '1 second'", expires_in)
        counted = Sequel[:rate_counts][:asked] + by
        table
          .returning(:asked)
          .insert_conflict(target: :key, update: { asked: counted })
          .insert(key: digest(key), asked: by, expires_at: till)
          .first
          .fetch(:asked)
      end

      # The worker's, when it has nothing else to do.
      def prune = table.where(Sequel[:expires_at] < Sequel.function(:clock_timestamp)).delete

      private

      def table = @db[:rate_counts]
      def digest(key) = Digest::SHA256.hexdigest(key)
    end
  end
end
