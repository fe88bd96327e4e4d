# frozen_string_literal: true

module Gorvant
  module Server
    # Who asks, and whether they may: openapi.yml says at each operation who (`x-may`), and what it does not say nobody
    # may. Behind it every statement is kept to the crew of the one who asks.
    class Access
      VIEWER = "gorvant.viewer"
      KEYS = "gorvant.session_keys"
      BEARER = /\ABearer (\S+)\z/
      # Whom a page takes for signed in: its answers and its writes are nobody else's.
      PERSON = "HTTP_X_PERSON"
      CLIENT = /\A[\w-]{8,40}\z/
      ROLES = {
        "people" => %w[owner technician apprentice],
        "technicians" => %w[owner technician],
        "owner" => %w[owner],
        "server_owner" => %w[owner]
      }.freeze
      REFUSED = {
        "technicians" => "an apprentice reads and practices; a technician or the owner does this",
        "owner" => "only the owner of the crew does this",
        "server_owner" => "only the owner of the server does this",
        "devices" => "only a device with a token of its own writes here"
      }.freeze

      def initialize(app, door, db)
        @app = app
        @door = door
        @db = db
        @dear = DearAnswers.new(db)
      end

      def call(env)
        who = Operations.find(env["REQUEST_METHOD"], env["PATH_INFO"])&.may
        env[VIEWER] = who == "devices" ? device(env) : person(env)
        check(who, env[VIEWER], env[PERSON])
        client = env["HTTP_X_CLIENT"].to_s
        env[VIEWER] = env[VIEWER].with(client: client) if env[VIEWER] && CLIENT.match?(client)
        Crew.as(env[VIEWER]&.crew_id) do
          OneEach.as(env[VIEWER]&.then { |viewer| viewer.device_id || viewer.user_id }, @dear) { served(env) }
        end
      rescue Error => e
        Problem.response(e, env)
      rescue *Database::ERRORS => e
        raise unless Database.away?(e)

        Problem.unavailable("nothing", env)
      end

      private

      # What nobody signed in asks for needs no database, most of it.
      def served(env) = env[VIEWER] ? Database.hold(@db) { @app.call(env) } : @app.call(env)

      # A token lets nobody read; a session writes nothing as a device.
      def check(who, viewer, person)
        return if who == "anyone"
        raise NotSignedIn.new unless viewer
        return if who.nil? || who == "devices"
        raise SomebodyElse.new unless [nil, viewer.user_id].include?(person)

        allowed = ROLES.fetch(who).include?(viewer.role) && (who != "server_owner" || viewer.server_owner)
        raise NotAllowed.new(problem: REFUSED.fetch(who)) unless allowed
      end

      def person(env)
        rodauth = env.fetch(Door::RODAUTH)
        user = rodauth.session_value or return nil
        key = rodauth.session[rodauth.session_id_session_key] or return nil
        env[KEYS] = rodauth.compute_hmacs(key)
        viewer = Database.hold(@door) { People.new(@door).by_session(user, env[KEYS]) }
        rodauth.clear_session unless viewer
        viewer
      end

      def device(env)
        token = env["HTTP_AUTHORIZATION"].to_s[BEARER, 1] or return nil
        row = Devices.new(@door).by_token(token) or return nil
        Viewer.new(
          crew_id: row[:crew_id],
          user_id: row[:created_by],
          name: row[:name],
          crew_name: "",
          role: row[:scope],
          device_id: row[:id]
        )
      end
    end
  end
end
