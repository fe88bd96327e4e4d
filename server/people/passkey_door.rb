# frozen_string_literal: true

require "webauthn"

module Gorvant
  module Server
    # What an authenticator is asked, and whether its answer holds (WebAuthn level 2, section 7). A passkey belongs to a
    # host's name with TLS and checks its person itself (a finger, a PIN), so it stands for password and code together.
    class PasskeyDoor
      # keys: Passkeys. opening: Opening, which knows the host.
      def initialize(keys, opening)
        @keys = keys
        @host = opening.host
        @party =
          WebAuthn::RelyingParty.new(
            allowed_origins: [opening.origin],
            id: @host,
            name: "Gorvant",
            encoding: :base64url,
            credential_options_timeout: Passkeys::OPEN_SECONDS * 1000
          )
      end

      # What the browser makes a new passkey by. viewer: whose.
      def to_make(viewer)
        name = viewer.sign_in_name || viewer.name
        here = @keys.of(viewer.user_id).select { |row| row[:host] == @host }
        options =
          @party.options_for_registration(
            user: {
              id: handle(viewer.user_id),
              name: name,
              display_name: viewer.name
            },
            exclude: here.map { |row| row[:credential_id] },
            authenticator_selection: {
              resident_key: "required",
              user_verification: "required"
            }
          )
        asked(options, viewer.user_id)
      end

      # Keeps what the authenticator made. Raises Refused where it is no answer to what was asked.
      def keep(viewer, name, challenge, credential)
        unless @keys.answer?(challenge, viewer.user_id)
          raise Refused.new(field: "/challenge", problem: "was not asked of you in the last minutes; begin again")
        end

        made = read { @party.verify_registration(credential, challenge, user_verification: true) }
        raise Refused.new(field: "/credential", problem: "is no passkey made for this address; try again") unless made

        @keys.add(
          viewer.user_id,
          name: name,
          host: @host,
          credential_id: made.id,
          public_key: made.public_key,
          sign_count: made.sign_count.to_i
        )
      end

      # What a browser asks its authenticators at the door: of nobody by name, so it tells nothing of who is here.
      def to_open = asked(@party.options_for_authentication(user_verification: "required"))

      # The id of whose passkey it is. Raises PasskeyNotKnown. Nothing can be guessed here, so tries are not counted
      # beside the limit of the route.
      def open(challenge, credential)
        raise PasskeyNotKnown.new unless @keys.answer?(challenge)

        given = read { WebAuthn::Credential.from_get(credential, relying_party: @party) }
        row = given && @keys.by_credential(given.id.to_s)
        raise PasskeyNotKnown.new unless row && read { holds?(given, row, challenge) }

        @keys.used(row[:id], given.sign_count.to_i)
        row[:user_id]
      end

      private

      def holds?(given, row, challenge)
        return false unless given.user_handle.nil? || given.user_handle == handle(row[:user_id])

        given.verify(
          challenge,
          public_key: row[:public_key],
          sign_count: row[:sign_count],
          user_presence: true,
          user_verification: true
        )
      end

      # A stranger's bytes: whatever the reading of them stumbles over, they are no answer.
      def read
        yield
      rescue StandardError
        nil
      end

      def asked(options, user_id = nil)
        @keys.ask(options.challenge, user_id)
        options.as_json
      end

      # A person as an authenticator keeps them: no name.
      def handle(user_id) = @party.encoder.encode([user_id.delete("-")].pack("H*"))
    end
  end
end
