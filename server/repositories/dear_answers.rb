# frozen_string_literal: true

require "securerandom"

module Gorvant
  module Server
    # Who has a dear answer worked out just now, in whichever process: one each. A process that died holds its own no
    # longer than LONGEST_SECONDS, which no answer takes.
    class DearAnswers
      LONGEST_SECONDS = (Float(ENV.fetch("GORVANT_MOST_SECONDS", 3)) * 4) + 3 # see Budget

      def initialize(db) = @db = db

      # A word to let go by; nil where this account has one already.
      def take(user_id)
        holder = SecureRandom.uuid
        till = Sequel.lit("clock_timestamp() + ? * interval '1 second'", LONGEST_SECONDS)
        free = Sequel[:dear_answers][:until] < Sequel.function(:clock_timestamp)
        table
          .returning(:holder)
          .insert_conflict(target: :user_id, update: { holder: holder, until: till }, update_where: free)
          .insert(user_id: user_id, holder: holder, until: till)
          .dig(0, :holder)
      end

      def let_go(holder) = table.where(holder: holder).delete

      private

      def table = @db[:dear_answers]
    end
  end
end
