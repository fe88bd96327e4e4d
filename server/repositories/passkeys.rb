# frozen_string_literal: true

module Gorvant
  module Server
    # People's passkeys, and the questions (challenges) that wait for an authenticator's answer. Public keys only; a
    # question stands as its digest, for some minutes, and is answered once.
    class Passkeys
      MOST = 20 # of a person
      OPEN_SECONDS = 300

      def initialize(db) = @db = db

      def of(user_id) = @db[:passkeys].where(user_id: user_id).order(:created_at).all

      # The passkey of a credential, where its person is still here; nil otherwise.
      def by_credential(credential_id) =
        @db[:passkeys]
          .where(credential_id: credential_id)
          .where(user_id: @db[:users].where(closed_at: nil).select(:id))
          .first

      # Raises Refused where this authenticator is known or the person has as many as there may be.
      def add(user_id, fields)
        @db.transaction do
          @db[:users].where(id: user_id).for_update.get(:id)
          if @db[:passkeys].where(user_id: user_id).count >= MOST
            raise Refused.new(field: "/credential", problem: "is one too many: an account has at most #{MOST} passkeys")
          end

          @db[:passkeys].insert(user_id: user_id, **fields)
        end
      rescue Sequel::UniqueConstraintViolation
        raise Refused.new(field: "/credential", problem: "is a passkey already")
      end

      def used(id, sign_count) =
        @db[:passkeys].where(id: id).update(sign_count: sign_count, last_use: Sequel::CURRENT_TIMESTAMP)

      # The row that went; NotFound where it is nobody's or another's.
      def remove(user_id, id)
        mine = @db[:passkeys].where(user_id: user_id, id: id) if Repository::UUID.match?(id.to_s)
        gone = mine ? mine.returning.delete.first : nil
        gone || raise(NotFound.new(thing: "passkey", id: id.to_s[0, 60]))
      end

      # user_id: whom the answer is for; nil at the door, where nobody is known yet.
      def ask(challenge, user_id = nil)
        @db[:passkey_challenges].where(Sequel[:made_at] < Time.now - OPEN_SECONDS).delete
        @db[:passkey_challenges].insert(digest: digest(challenge), user_id: user_id)
      end

      # Whether that was asked and not answered yet; it is answered from here on.
      def answer?(challenge, user_id = nil)
        asked = @db[:passkey_challenges].where(digest: digest(challenge), user_id: user_id)
        asked.where(Sequel[:made_at] > Time.now - OPEN_SECONDS).delete == 1
      end

      private

      def digest(challenge) = Digest::SHA256.hexdigest("gorvant passkey #{challenge}")
    end
  end
end
