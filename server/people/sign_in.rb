# frozen_string_literal: true

module Gorvant
  module Server
    # Lets somebody in by name, password and, where they have one, a one-time code; or says the one sentence that tells
    # nothing. A name that is not there costs the same time.
    class SignIn
      # As dear to check as a real one, and nobody's.
      STAND_IN = ->(rodauth) { @stand_in ||= rodauth.password_hash(SecureRandom.hex(16)) }

      # attempts: of the one who asks. rodauth: of this request.
      def initialize(rodauth, attempts)
        @rodauth = rodauth
        @attempts = attempts
      end

      # The account's row; its session begins. Raises TooManyTries, NotLetIn, CodeWanted.
      def by_password(name, password, code)
        @attempts.take(name)
        raise NotLetIn.new unless right?(name, password)

        @rodauth.login_session("password")
        second(code) if @rodauth.otp_exists?
        @attempts.forget(name)
        @rodauth.account
      end

      # Begins a session for somebody who has shown otherwise that they may: the start's link, an invitation.
      def let_in(user_id, how)
        @rodauth.account_from_id(user_id)
        @rodauth.login_session(how)
        @rodauth.account
      end

      private

      def right?(name, password)
        account = @rodauth.account_from_login(name)
        return @rodauth.password_match?(password) if account && account[:password_hash]

        Argon2::Password.verify_password(password, STAND_IN.call(@rodauth))
        false
      end

      # A code once used is used up.
      def second(code)
        right =
          code &&
            (
              (@rodauth.otp_valid_code?(code) && @rodauth.otp_update_last_use) ||
                @rodauth.recovery_code_match?(code.strip)
            )
        return if right

        @rodauth.remove_current_session
        @rodauth.clear_session
        raise code ? NotLetIn.new : CodeWanted.new
      end
    end
  end
end
