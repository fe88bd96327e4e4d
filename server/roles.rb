# frozen_string_literal: true

module Gorvant
  module Server
    # Who may do what in the database. The owner of DATABASE_URL makes the tables (bin/migrate); the processes that
    # serve take a role that can do less:
    # - web: what crews keep, of the crew that is set (row-level security), and names of people, no password;
    # - door: accounts, sessions, invitations, tokens of devices, and nothing that a crew keeps;
    # - worker: tasks of all crews, and beside them the crew whose task it works.
    # A backup reads all by a login that writes nothing (BACKUP), where an administrator has made it: only they can let
    # it see past the policies. Else the owner makes it, whom the policies do not bind.
    module Roles
      BACKUP = "gorvant_backup"
      NAMES = { web: "gorvant_web", door: "gorvant_door", worker: "gorvant_worker" }.freeze
      ALL = "SELECT, INSERT, UPDATE, DELETE"
      KEPT = %w[
        sites
        units
        rigs
        rig_revisions
        visits
        readings
        photos
        setting_profiles
        sensor_tables
        visit_desks
        find_marks
        tasks
        events
        archive_parts
        exports
        export_files
        export_parts
        logs
        log_parts
        log_hours
        logger_types
        drills
        courses
        drill_tries
      ].freeze
      ACCOUNTS = %w[
        users
        sessions
        one_time_keys
        recovery_codes
        passkeys
        passkey_challenges
        sign_in_attempts
        rate_counts
        invitations
        devices
      ].freeze
      PERSON = "id, crew_id, name, role, created_at, closed_at" # of users, without what opens a door
      # { role => { table => what it may do } }
      GRANTS = {
        web: {
          **KEPT.to_h { |table| [table, ALL] },
          "closings" => "SELECT, INSERT, UPDATE (reopened_at, reopened_by, reopened_why)",
          "search_words" => "SELECT",
          "users" => "SELECT (#{PERSON})",
          "crews" => "SELECT",
          "devices" => "SELECT",
          "audit_trail" => "SELECT, INSERT",
          "computed_results" => ALL,
          "dear_answers" => ALL,
          "settings" => ALL
        },
        door: {
          **ACCOUNTS.to_h { |table| [table, ALL] },
          "crews" => "SELECT, INSERT, UPDATE",
          "audit_trail" => "SELECT, INSERT"
        },
        worker: {
          **KEPT.to_h { |table| [table, "SELECT"] },
          "tasks" => "SELECT, UPDATE, DELETE",
          "events" => "SELECT, DELETE",
          **%w[sites units visits archive_parts].to_h { |table| [table, "SELECT, DELETE"] },
          "exports" => "SELECT, DELETE",
          "export_files" => ALL,
          "export_parts" => ALL,
          "closings" => "SELECT",
          "crews" => "SELECT",
          "users" => "SELECT (#{PERSON})",
          "rate_counts" => "SELECT, DELETE",
          "sign_in_attempts" => "SELECT, DELETE",
          "logs" => "SELECT, UPDATE",
          "photos" => "SELECT, UPDATE (content, object_key)",
          "stored_objects" => ALL,
          "log_parts" => "SELECT, DELETE",
          "log_hours" => ALL,
          "drills" => "SELECT, INSERT",
          "drill_tries" => "SELECT, UPDATE",
          "computed_results" => ALL
        }
      }.freeze
      # Functions that a role may call; nobody else calls any.
      FUNCTIONS = {
        web: [
          "current_crew()",
          "search_visits(tsquery, text, uuid, boolean, date, date, integer)", # for a process that is on its way out
          "search_visits(tsquery, text, uuid, boolean, date, date, text, integer)"
        ],
        door: ["current_crew()"],
        worker: ["current_crew()"]
      }.freeze
      # Tables in which a role sees every crew's rows.
      WHOLE = {
        door: %w[users invitations devices crews audit_trail],
        worker: %w[tasks events crews stored_objects]
      }.freeze

      class << self
        # Makes the roles where they are missing and grants anew what each may do. Raises Refused where the owner may
        # not make roles, with what an administrator has to say once.
        def grant(db)
          missing = NAMES.values - db[:pg_roles].where(rolname: NAMES.values).select_map(:rolname)
          make(db, missing) if missing.any?
          owner = db.literal(Sequel.identifier(db.get(Sequel.lit("current_user"))))
          NAMES.each_value { |name| member(db, name, owner) }
          there = db.tables.map(&:to_s)
          db.transaction do
            own_functions(db).each { |function| db.run("REVOKE ALL ON FUNCTION #{function} FROM PUBLIC") }
            NAMES.each { |role, name| renew(db, role, name, there) }
            let_backup_read(db)
          end
        end

        private

        def make(db, missing)
          missing.each { |name| db.run("CREATE ROLE #{name} NOLOGIN") }
        rescue Sequel::DatabaseError
          me = db.get(Sequel.lit("current_user"))
          says = missing.map { |name| "CREATE ROLE #{name} NOLOGIN; GRANT #{name} TO #{me};" }
          raise Refused.new(
                  field: "DATABASE_URL",
                  problem: "its role may not make roles; let an administrator say once: #{says.join(" ")}"
                )
        end

        def member(db, name, owner)
          db.run("GRANT #{name} TO #{owner}") unless db.get(Sequel.lit("pg_has_role(current_user, ?, 'MEMBER')", name))
        end

        # Signatures of the functions that the migrations made.
        def own_functions(db) =
          db[:pg_proc].where(
            Sequel.lit("pronamespace = 'public'::regnamespace AND proowner = current_user::regrole")
          ).select_map(Sequel.lit("oid::regprocedure::text"))

        # Those that are there by now.
        def functions(db, role)
          there = own_functions(db).map { |function| function[/\A\w+/] }
          FUNCTIONS.fetch(role).select { |function| there.include?(function[/\A\w+/]) }
        end

        def let_backup_read(db)
          return if db[:pg_roles].where(rolname: BACKUP).empty?

          db.run("GRANT USAGE ON SCHEMA public TO #{BACKUP}")
          %w[TABLES SEQUENCES].each { |kind| db.run("GRANT SELECT ON ALL #{kind} IN SCHEMA public TO #{BACKUP}") }
        end

        def renew(db, role, name, there)
          db.run("REVOKE ALL ON ALL TABLES IN SCHEMA public FROM #{name}")
          db.run("GRANT USAGE ON SCHEMA public TO #{name}")
          db.run("GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO #{name}")
          GRANTS.fetch(role).slice(*there).each { |table, may| db.run("GRANT #{may} ON #{table} TO #{name}") }
          functions(db, role).each { |function| db.run("GRANT EXECUTE ON FUNCTION #{function} TO #{name}") }
          (WHOLE.fetch(role, []) & there).each do |table|
            db.run("DROP POLICY IF EXISTS #{role}_sees_all ON #{table}")
            db.run("CREATE POLICY #{role}_sees_all ON #{table} TO #{name} USING (true) WITH CHECK (true)")
          end
        end
      end
    end
  end
end
