# frozen_string_literal: true

module Gorvant
  module Server
    # Accounts, as the door sees them: of every crew. Whoever asks for a crew's people names the crew.
    class People
      MOST = 200 # of a crew
      AGENT = 160
      SEEN_EVERY_SECONDS = 600
      SHOWN = %i[id crew_id name role sign_in_name server_owner version created_at closed_at].freeze

      def initialize(db) = @db = db

      # Whether the whole server has one account.
      def alone? = @db[:users].where(closed_at: nil).limit(2).select(:id).all.one?

      # Whether an owner of the server could come in by a password.
      def owner_signs_in? = @db[:users].where(closed_at: nil, server_owner: true).exclude(password_hash: nil).any?

      def of(crew_id) =
        @db[:users].where(crew_id: crew_id, closed_at: nil).order(:created_at).select(*SHOWN, signs_in).all

      def member(crew_id, id)
        row = @db[:users].where(crew_id: crew_id, id: id, closed_at: nil).first if Repository::UUID.match?(id.to_s)
        row || raise(NotFound.new(thing: "person", id: id.to_s[0, 60]))
      end

      # The Viewer of a session, nil where it has ended. keys: digests of what the browser holds.
      def by_session(user_id, keys)
        row =
          @db[:sessions]
            .where(user_id: user_id, session_key: keys, closed_at: nil)
            .where(Sequel[:sessions][:created_at] > Time.now - (Door::SESSION_DAYS * 86_400))
            .where(Sequel[:sessions][:last_use] > Time.now - (Door::IDLE_DAYS * 86_400))
            .join(:users, id: :user_id)
            .join(:crews, id: Sequel[:users][:crew_id])
            .select(*VIEWER, :last_use, :session_key)
            .first or return nil
        seen(user_id, row) if Time.now - row[:last_use] > SEEN_EVERY_SECONDS
        Viewer.of(row)
      end

      VIEWER = [
        Sequel[:users][:id],
        Sequel[:users][:crew_id],
        Sequel[:users][:name],
        :role,
        :server_owner,
        :sign_in_name,
        Sequel[:crews][:name].as(:crew_name)
      ].freeze
      private_constant :VIEWER

      # What a browser calls itself, beside the session it begins.
      def name_session(user_id, agent)
        newest = @db[:sessions].where(user_id: user_id).reverse(:created_at).limit(1).select(:session_key)
        @db[:sessions].where(user_id: user_id, session_key: newest).update(agent: agent.to_s[0, AGENT])
      end

      # [{ agent, created_at, last_use }], newest use first.
      def sessions(user_id) =
        @db[:sessions].where(user_id: user_id).reverse(:last_use).select(:agent, :created_at, :last_use).all

      def create(crew_id, fields) = @db[:users].returning(:id).insert(crew_id: crew_id, **fields).first[:id]

      def name_taken?(sign_in_name, except: nil) =
        @db[:users]
          .where(Sequel.function(:lower, :sign_in_name) => sign_in_name.downcase)
          .exclude(id: except || NOBODY)
          .any?

      NOBODY = "00000000-0000-0000-0000-000000000000"

      # Of two who take a name at once, one does.
      def change(id, fields)
        @db[:users].where(id: id).update(**fields, version: Sequel[:version] + 1)
      rescue Sequel::UniqueConstraintViolation
        raise Refused.new(field: "/sign_in_name", problem: "is taken; choose another")
      end

      # Gives a role; the last owner stays one.
      def give_role(crew_id, id, role)
        @db.transaction do
          keep_an_owner(crew_id, id) unless role == "owner"
          change(id, role: role)
        end
      end

      # Takes an account away: what it read stays under its name.
      def close(crew_id, id)
        @db.transaction do
          keep_an_owner(crew_id, id)
          without_others_than_password(id)
          sign_out(id)
          @db[:users].where(id: id).update(
            closed_at: Sequel::CURRENT_TIMESTAMP,
            sign_in_name: nil,
            password_hash: nil,
            server_owner: false
          )
        end
      end

      # Everywhere, or everywhere but here. except: digests of the session that stays. Streams are cut too.
      def sign_out(id, except: [])
        @db[:sessions].where(user_id: id).exclude(session_key: except).delete
        Events.new(@db).look_at_sessions(id)
      end

      # A second factor taken off by who looks after the account.
      def without_code(id)
        @db[:one_time_keys].where(id: id).delete
        @db[:recovery_codes].where(id: id).delete
      end

      # Whatever else opens the account, where a device was lost or the account goes.
      def without_others_than_password(id)
        without_code(id)
        @db[:passkeys].where(user_id: id).delete
      end

      # [{ id, name, people, created_at }] of the server.
      def crews
        people = @db[:users].where(crew_id: Sequel[:crews][:id], closed_at: nil).select { count.function.* }
        @db[:crews].order(:created_at).select(:id, :name, :created_at, people.as(:people)).all
      end

      # A crew's mark for its papers, JPEG bytes; nil for none.
      def mark(crew_id) = @db[:crews].where(id: crew_id).get(:mark)&.to_s

      def keep_mark(crew_id, bytes)
        @db[:crews].where(id: crew_id).update(mark: bytes && Sequel.blob(bytes))
      end

      def make_crew(name) = @db[:crews].returning(:id).insert(name: name).first[:id]

      private

      def signs_in = Sequel.lit("(password_hash IS NOT NULL) AS signs_in")

      def seen(user_id, row)
        @db[:sessions].where(user_id: user_id, session_key: row[:session_key]).update(
          last_use: Sequel::CURRENT_TIMESTAMP
        )
      end

      # One at a time, so that two do not both go as the last but one.
      def keep_an_owner(crew_id, id)
        @db[:crews].where(id: crew_id).for_update.get(:id)
        owners = @db[:users].where(crew_id: crew_id, role: "owner", closed_at: nil).select_map(:id)
        return unless owners == [id]

        raise Refused.new(field: "/role", problem: "a crew keeps at least one owner; make somebody else one first")
      end
    end
  end
end
