# frozen_string_literal: true

module Gorvant
  module Server
    # How often somebody tried a name from a place, and how long they have to wait before the next try: ever longer, and
    # never for good. A browser that has been in before is counted by itself, so that a stranger who tries its owner's
    # name does not keep the owner out, also where a proxy makes all addresses look the same.
    class Attempts
      FREE = 3 # tries of one name from one place
      MOST_SECONDS = 60
      FREE_OF_ADDRESS = 20 # tries of any names from one address
      MOST_SECONDS_OF_ADDRESS = 30
      KEPT_SECONDS = 86_400

      # place: a browser that was in before, or the address.
      def initialize(db, address:, known: nil)
        @db = db
        @address = address
        @known = known
      end

      # Counts a try; raises TooManyTries where it comes too early, which does not count.
      def take(name)
        @db.transaction do
          claim("address #{@address}", FREE_OF_ADDRESS, MOST_SECONDS_OF_ADDRESS) unless @known
          claim(pair(name), FREE, MOST_SECONDS)
        end
      end

      # What was tried before is forgiven to who got in.
      def forget(name) = table.where(key: pair(name)).delete

      # Takes away those of yesterday, whoever they were of.
      def self.prune(db) = db[:sign_in_attempts].where(Sequel[:last_at] < Time.now - KEPT_SECONDS).delete

      # Seconds to wait after so many failures.
      def self.wait(failures, free, most) = failures < free ? 0 : [2**(failures - free), most].min

      private

      def table = @db[:sign_in_attempts]
      def pair(name) = "name #{Digest::SHA256.hexdigest(name.to_s.downcase)} #{@known || @address}"

      # One at a time: those who try all at once wait for one another and find each other's counted.
      def claim(key, free, most)
        table.insert_conflict.insert(key: key)
        row = table.where(key: key).for_update.first
        since = @db.get(Sequel.function(:clock_timestamp)) - row[:last_at]
        failures = since > KEPT_SECONDS ? 0 : row[:failures]
        left = self.class.wait(failures, free, most) - since
        raise TooManyTries.new(seconds: left.ceil) if left.positive?

        table.where(key: key).update(failures: failures + 1, last_at: Sequel.function(:clock_timestamp))
      end
    end
  end
end
