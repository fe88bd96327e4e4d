# frozen_string_literal: true

require "securerandom"

module Gorvant
  module Server
    # One-time links that an owner hands over: somebody new comes in, or somebody who lost their way comes back. The
    # table holds no token, only its digest.
    class Invitations
      DAYS = 7
      HOURS = 24 # of a way back

      def initialize(db) = @db = db

      def self.digest(token) = Digest::SHA256.hexdigest("gorvant invitation #{token}")

      # [row, token]: the token is shown once. user_id: whose way back it is.
      def make(crew_id:, by:, role:, user_id: nil)
        token = SecureRandom.urlsafe_base64(24)
        fields = {
          crew_id: crew_id,
          created_by: by,
          role: role,
          user_id: user_id,
          token_digest: self.class.digest(token),
          expires_at: Time.now + (user_id ? HOURS * 3600 : DAYS * 86_400)
        }
        row =
          @db.transaction do
            # A newer way back is the only one.
            if user_id
              @db[:invitations].where(user_id: user_id, used_at: nil).update(revoked_at: Sequel::CURRENT_TIMESTAMP)
            end
            @db[:invitations].returning.insert(fields).first
          end
        [row, token]
      end

      # Those that still let somebody in, newest first.
      def open_of(crew_id) = open.where(crew_id: crew_id).reverse(:created_at).all

      # The open invitation of a token, with its crew's name; NotFound otherwise.
      def by_token(token)
        row =
          open
            .where(token_digest: self.class.digest(token))
            .join(:crews, id: :crew_id)
            .select_all(:invitations)
            .select_append(Sequel[:crews][:name].as(:crew_name))
            .first
        row || raise(NotFound.new(thing: "open invitation", id: "by that link"))
      end

      # Uses it up: of two who come by one link, one does.
      def use(id)
        return if open.where(Sequel[:invitations][:id] => id).update(used_at: Sequel::CURRENT_TIMESTAMP) == 1

        raise NotFound.new(thing: "open invitation", id: "by that link")
      end

      def revoke(crew_id, id)
        mine = @db[:invitations].where(crew_id: crew_id, id: id) if Repository::UUID.match?(id.to_s)
        raise NotFound.new(thing: "invitation", id: id.to_s[0, 60]) unless mine&.any?

        mine.where(used_at: nil, revoked_at: nil).update(revoked_at: Sequel::CURRENT_TIMESTAMP)
      end

      private

      def open =
        @db[:invitations].where(used_at: nil, revoked_at: nil).where(
          Sequel[:invitations][:expires_at] > Sequel::CURRENT_TIMESTAMP
        )
    end
  end
end
