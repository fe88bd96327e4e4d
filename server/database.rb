# frozen_string_literal: true

require "sequel"

module Gorvant
  module Server
    # The connection and its migrations.
    module Database
      MIGRATIONS = File.join(ROOT, "db", "migrations")
      LOCK = 0x676f7276 # any constant that no other program on this server uses

      class << self
        def connect(url = ENV.fetch("DATABASE_URL"))
          Sequel.default_timezone = :utc
          db = Sequel.connect(url, max_connections: Integer(ENV.fetch("DATABASE_CONNECTIONS", 6)))
          db.extension(:pg_json)
          db
        end

        # Brings the schema up to date; several starting processes wait for one another.
        def migrate(db)
          Sequel.extension(:migration)
          db.synchronize do
            db.get(Sequel.function(:pg_advisory_lock, LOCK))
            Sequel::Migrator.run(db, MIGRATIONS)
          ensure
            db.get(Sequel.function(:pg_advisory_unlock, LOCK))
          end
        end
      end
    end
  end
end
