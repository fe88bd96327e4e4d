# frozen_string_literal: true

require "sequel"

module Gorvant
  module Server
    # The connection and its migrations.
    module Database
      MIGRATIONS = File.join(ROOT, "db", "migrations")
      SPARE = 2 # connections of a pool beside one for each thread that answers
      POOL_SECONDS = 3 # to wait for a connection
      IDLE_SECONDS = 5 # after which a connection is tried before it is used
      STATEMENT_SECONDS = 10
      IDLE_IN_TRANSACTION_SECONDS = 60 # what somebody forgot to end holds up others no longer
      ERRORS = [Sequel::DatabaseError, Sequel::PoolTimeout].freeze
      LOCK = 0x676f7276 # any constant that no other program on this server uses

      class << self
        # as: the role to take (see Roles), nil for the owner of the tables. GORVANT_WEB_URL and its like name a login
        # of that role; without it the owner's connection steps down to it.
        def connect(as: nil)
          Sequel.default_timezone = :utc
          db =
            Sequel.connect(
              (as && ENV.fetch("GORVANT_#{as.upcase}_URL", nil)) || ENV.fetch("DATABASE_URL"),
              max_connections: Integer(ENV.fetch("DATABASE_CONNECTIONS") { ENV.fetch("WEB_THREADS", 8).to_i + SPARE }),
              pool_timeout: POOL_SECONDS,
              connect_timeout: POOL_SECONDS,
              connect_sqls: [
                "SET statement_timeout = '#{STATEMENT_SECONDS}s'",
                "SET idle_in_transaction_session_timeout = '#{IDLE_IN_TRANSACTION_SECONDS}s'",
                *("SET ROLE #{Roles::NAMES.fetch(as)}" if as)
              ]
            )
          db.extension(:pg_json, :connection_validator)
          db.extend(Crew::Scoped)
          db.pool.connection_validation_timeout = IDLE_SECONDS
          db
        end

        # One connection for all that the block asks. Taken anew for each piece, down to the quoting of a text, the pool
        # would give the processor away after each: under load every request waited its turn some dozen times. One that
        # broke meanwhile goes to nobody else, whatever became of the answer.
        def hold(db)
          answer = nil
          db.synchronize do |connection|
            answer = yield
            raise Sequel::DatabaseDisconnectError.new("broke") unless connection.status == PG::CONNECTION_OK
          end
          answer
        rescue Sequel::DatabaseDisconnectError
          answer or raise
        end

        # Lets a connection go for good.
        def forget(db)
          db.disconnect
          Sequel.synchronize { Sequel::DATABASES.delete(db) }
        end

        # Whether an error means that the server is gone, and not that the question was wrong: :refused where it never
        # took the question, :broke where it may have carried it out, nil for any other error.
        def away?(error)
          return :refused if error.is_a?(Sequel::DatabaseConnectionError) || error.is_a?(Sequel::PoolTimeout)
          return :broke if error.is_a?(Sequel::DatabaseDisconnectError)

          case error.wrapped_exception
          when PG::CannotConnectNow, PG::TooManyConnections, PG::QueryCanceled
            :refused
          when PG::ConnectionBad, PG::AdminShutdown, PG::CrashShutdown, PG::UnableToSend
            :broke
          end
        end

        # Brings the schema up to date; several starting processes wait for one another.
        def migrate(db)
          Sequel.extension(:migration)
          db.synchronize do
            db.run("SET statement_timeout = 0")
            db.get(Sequel.function(:pg_advisory_lock, LOCK))
            Sequel::Migrator.run(db, MIGRATIONS)
            Roles.grant(db)
          ensure
            db.get(Sequel.function(:pg_advisory_unlock, LOCK))
            db.run("SET statement_timeout = '#{STATEMENT_SECONDS}s'")
          end
        end
      end
    end
  end
end
