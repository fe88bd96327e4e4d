# frozen_string_literal: true

module Gorvant
  module Server
    # What writes by itself: meters, loggers. Each has a token that lets it write one kind of thing and read nothing.
    class Devices
      MOST = 50 # of a crew
      SCOPES = %w[readings log_rows stand_in].freeze
      SEEN_EVERY_SECONDS = 60
      TOKEN = /\Agorvant-[\w-]{43}\z/

      def initialize(db) = @db = db

      def self.digest(token) = Digest::SHA256.hexdigest("gorvant device #{token}")

      def of(crew_id) = @db[:devices].where(crew_id: crew_id).reverse(:created_at).all

      # [row, token]: the token is shown once. A retry of a lost answer gets a token anew: the first was never seen.
      def make(id, viewer, name:, scope:)
        token = "gorvant-#{SecureRandom.urlsafe_base64(32)}"
        same = { id: id, crew_id: viewer.crew_id, created_by: viewer.user_id, name: name, scope: scope }
        row =
          @db.transaction do
            @db[:crews].where(id: viewer.crew_id).for_update.get(:id)
            room_for(id, viewer.crew_id)
            put(same, self.class.digest(token))
          end
        raise IdTaken.new(field: "/id", id: id) unless row

        [row, token]
      end

      # The device of a token, nil for none. Written down when it was last heard of.
      def by_token(token)
        return nil unless TOKEN.match?(token.to_s)

        row = @db[:devices].where(token_digest: self.class.digest(token), revoked_at: nil).first or return nil
        if row[:last_seen_at].nil? || Time.now - row[:last_seen_at] > SEEN_EVERY_SECONDS
          @db[:devices].where(id: row[:id]).update(last_seen_at: Sequel::CURRENT_TIMESTAMP)
        end
        row
      end

      def revoke(crew_id, id)
        mine = @db[:devices].where(crew_id: crew_id, id: id) if Repository::UUID.match?(id.to_s)
        raise NotFound.new(thing: "device", id: id.to_s[0, 60]) unless mine&.any?

        mine.where(revoked_at: nil).update(revoked_at: Sequel::CURRENT_TIMESTAMP)
        mine.first
      end

      private

      def room_for(id, crew_id)
        return if @db[:devices].where(crew_id: crew_id, revoked_at: nil).exclude(id: id).count < MOST

        raise Refused.new(field: "/", problem: "a crew keeps at most #{MOST} devices; revoke one first")
      end

      # The row, nil where another has its id; one asked for again, that was never used, takes the new token.
      def put(same, digest)
        mine =
          Sequel.expr(same.transform_keys { |column| Sequel[:devices][column] }) &
            { Sequel[:devices][:last_seen_at] => nil, Sequel[:devices][:revoked_at] => nil }
        @db[:devices]
          .returning
          .insert_conflict(target: :id, update: { token_digest: digest }, update_where: mine)
          .insert(same.merge(token_digest: digest))
          .first
      end
    end
  end
end
