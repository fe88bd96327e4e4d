# frozen_string_literal: true

module Gorvant
  module Server
    # Coming in and going out.
    class SessionResource < Resource
      KNOWN = "gorvant_known" # a browser that has been in before
      KNOWN_SECONDS = 400 * 86_400

      get "/api/session" do
        session_of(env[Access::VIEWER])
      end

      post "/api/session" do
        input = SignInRequest.parse(body_json)
        account = sign_in(input[:name]).by_password(*input.values_at(:name, :password, :code))
        come_in(account[:id])
      end

      post "/api/session/passkey/question" do
        json passkey_door.to_open
      end

      post "/api/session/passkey" do
        input = PasskeyRequest.parse(body_json)
        come_in(sign_in("").let_in(passkey_door.open(*input.values_at(:challenge, :credential)), "passkey")[:id])
      end

      # Only the start's own secret lets in, whatever a request says of where it comes from.
      post "/api/session/local" do
        key = LocalKeyRequest.parse(body_json)[:key]
        unless settings.opening.local?(people) && settings.opening.key?(key)
          raise NotAllowed.new(
                  problem: "this link opens nothing now; sign in, or take the link that the last start printed"
                )
        end

        come_in(sign_in("").let_in(Viewer.local_owner(door).user_id, "local")[:id])
      end

      post "/api/session/end" do
        gone = env[Access::VIEWER]&.user_id
        rodauth.remove_current_session if gone
        rodauth.clear_session
        Events.new(door).look_at_sessions(gone) if gone
        session_of(nil)
      end

      post "/api/session/end-everywhere" do
        people.sign_out(viewer.user_id, except: env.fetch(Access::KEYS))
        audit.add(viewer, "signed_out")
        json(sessions: people.sessions(viewer.user_id).map { |row| Present.open_session(row) })
      end

      # Where a link leads, before anybody decides.
      post "/api/invitations/look" do
        row = invitations.by_token(TokenRequest.parse(body_json)[:token])
        person = row[:user_id] && people.member(row[:crew_id], row[:user_id])
        json(crew: row[:crew_name], role: row[:role], for: person&.dig(:name), sign_in_name: person&.dig(:sign_in_name))
      end

      post "/api/invitations/acceptance" do
        input = AcceptanceRequest.parse(body_json)
        row = invitations.by_token(input[:token])
        account = door.transaction { row[:user_id] ? come_back(row, input) : join(row, input) }
        come_in(sign_in("").let_in(account, "invitation")[:id])
      end

      private

      def people = People.new(door)
      def invitations = Invitations.new(door)
      def rodauth = env.fetch(Door::RODAUTH)

      def sign_in(name)
        SignIn.new(rodauth, Attempts.new(door, address: Caller.address(env), known: known(name)))
      end

      def come_in(user_id)
        people.name_session(user_id, env["HTTP_USER_AGENT"])
        know(user_id)
        session_of(people.by_session(user_id, rodauth.compute_hmacs(rodauth.session[rodauth.session_id_session_key])))
      end

      def session_of(viewer)
        headers CsrfToken.header(env)
        json(
          signed_in: !viewer.nil?,
          local: settings.opening.local?(people),
          passkeys: settings.opening.passkeys?,
          viewer: viewer && Present.viewer(viewer)
        )
      end

      def join(row, input)
        unless input[:name] && input[:sign_in_name]
          raise Refused.new(field: input[:name] ? "/sign_in_name" : "/name", problem: "is missing")
        end
        if people.name_taken?(input[:sign_in_name])
          raise Refused.new(field: "/sign_in_name", problem: "is taken; choose another")
        end

        invitations.use(row[:id])
        id = people.create(row[:crew_id], name: input[:name].strip, role: row[:role])
        people.change(id, sign_in_name: input[:sign_in_name], password_hash: rodauth.password_hash(input[:password]))
        written(row, id, input[:name].strip, "joined")
      end

      # A way back ends every session, the code and the passkeys: they may be lost with the device.
      def come_back(row, input)
        person = people.member(row[:crew_id], row[:user_id])
        name = person[:sign_in_name] || input[:sign_in_name]
        raise Refused.new(field: "/sign_in_name", problem: "is missing") unless name

        invitations.use(row[:id])
        people.without_others_than_password(person[:id])
        people.sign_out(person[:id])
        people.change(person[:id], sign_in_name: name, password_hash: rodauth.password_hash(input[:password]))
        written(row, person[:id], person[:name], "came_back")
      end

      def written(row, id, name, kind)
        viewer = Viewer.new(crew_id: row[:crew_id], user_id: id, name: name, crew_name: "", role: row[:role])
        AuditTrail.new(door).add(viewer, kind)
        id
      end

      # The browser keeps a mark of each account that came in by it; nobody else can make one.
      def know(user_id)
        response.set_cookie(
          KNOWN,
          value: "#{user_id}.#{mark(user_id)}",
          path: "/api/session",
          httponly: true,
          same_site: :lax,
          secure: settings.opening.https?,
          max_age: KNOWN_SECONDS
        )
      end

      def known(name)
        id, mark = request.cookies[KNOWN].to_s.split(".", 2)
        return nil unless mark && Rack::Utils.secure_compare(mark, mark(id))

        "known #{id}" if rodauth.send(:_account_from_login, name)&.dig(:id) == id
      end

      def mark(id) = OpenSSL::HMAC.hexdigest("SHA256", settings.secret, "gorvant known #{id}")
    end
  end
end
