# frozen_string_literal: true

module Gorvant
  module Server
    # A person's own account.
    class AccountResource < Resource
      get "/api/account" do
        json account
      end

      # Whoever has a password gives it; the first one needs a name to go with it.
      post "/api/account/password" do
        input = PasswordRequest.parse(body_json)
        prove(input[:current_password], "/current_password") if mine[:password_hash]
        name = input[:sign_in_name] || mine[:sign_in_name]
        raise Refused.new(field: "/sign_in_name", problem: "is missing") unless name
        if people.name_taken?(name, except: viewer.user_id)
          raise Refused.new(field: "/sign_in_name", problem: "is taken; choose another")
        end

        people.change(viewer.user_id, sign_in_name: name, password_hash: rodauth.password_hash(input[:password]))
        people.sign_out(viewer.user_id, except: env.fetch(Access::KEYS))
        audit.add(viewer, "password")
        json account
      end

      post "/api/account/code/secret" do
        secret = ROTP::Base32.random(20).downcase
        uri = ROTP::TOTP.new(secret, issuer: "Gorvant").provisioning_uri(viewer.sign_in_name || viewer.name)
        svg = RQRCode::QRCode.new(uri).as_svg(module_size: 6, use_path: true, viewbox: true)
        json(secret: secret, uri: uri, svg: svg)
      end

      post "/api/account/code" do
        input = CodeSecretRequest.parse(body_json)
        prove(input[:password], "/password")
        refuse("/secret", "this account asks for a code already; take it off first") if rodauth.otp_exists?
        unless ROTP::TOTP.new(input[:secret]).verify(input[:code].gsub(/\s/, ""), drift_behind: 30, drift_ahead: 30)
          refuse("/code", "is not the code of this secret now; look at the clock of the device")
        end

        codes = keep_code(input[:secret])
        audit.add(viewer, "code_on")
        json(recovery_codes: codes)
      end

      post "/api/account/code/removal" do
        prove(PasswordAgainRequest.parse(body_json)[:password], "/password")
        people.without_code(viewer.user_id)
        audit.add(viewer, "code_off")
        json account
      end

      # The question for an authenticator; whoever asks gives their password first.
      post "/api/account/passkeys/question" do
        prove(PasswordAgainRequest.parse(body_json)[:password], "/password")
        json passkey_door.to_make(viewer)
      end

      post "/api/account/passkeys" do
        input = NewPasskeyRequest.parse(body_json)
        passkey_door.keep(viewer, input[:name].strip, *input.values_at(:challenge, :credential))
        audit.add(viewer, "passkey", input[:name].strip)
        json account, 201
      end

      # Taking one off opens nothing, so it asks for no password: a device may just have been lost.
      post "/api/account/passkeys/:id/removal" do
        audit.add(viewer, "passkey_removed", passkeys.remove(viewer.user_id, params[:id])[:name])
        json account
      end

      private

      def people = People.new(door)
      def rodauth = env.fetch(Door::RODAUTH)
      def mine = people.member(viewer.crew_id, viewer.user_id)
      def refuse(field, problem) = raise(Refused.new(field: field, problem: problem))

      # Somebody at an open screen is not yet its owner.
      def prove(password, field)
        refuse(field, "is missing; set a password first") unless mine[:password_hash]
        refuse(field, "is missing") if password.to_s.empty?

        attempts = Attempts.new(door, address: env["REMOTE_ADDR"].to_s, known: "session #{viewer.user_id}")
        attempts.take(viewer.user_id)
        rodauth.account_from_session
        raise NotLetIn.new unless rodauth.password_match?(password)

        attempts.forget(viewer.user_id)
      end

      def keep_code(secret)
        door.transaction do
          rodauth.send(:_otp_add_key, secret)
          rodauth.add_recovery_codes(rodauth.recovery_codes_limit - rodauth.recovery_codes.size)
        end
        rodauth.recovery_codes
      end

      def account
        row = mine
        {
          name: row[:name],
          sign_in_name: row[:sign_in_name],
          has_password: !row[:password_hash].nil?,
          code: rodauth.otp_exists?,
          recovery_codes_left: rodauth.recovery_codes.size,
          passkeys: passkeys.of(viewer.user_id).map { |one| Present.passkey(one) },
          sessions: people.sessions(viewer.user_id).map { |one| Present.open_session(one) }
        }
      end
    end
  end
end
