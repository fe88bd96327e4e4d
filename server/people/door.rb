# frozen_string_literal: true

require "argon2"
require "roda"
require "rodauth"
require "securerandom"

module Gorvant
  module Server
    # The door: who has come in by which session. Rodauth keeps passwords (argon2id), sessions in the database, one-time
    # codes and recovery codes; it answers no address of its own, the resources ask it. Runs before them as middleware.
    class Door < Roda
      RODAUTH = "gorvant.rodauth"
      SECRET_BYTES = 64
      SESSION_DAYS = 30
      IDLE_DAYS = 14
      COOKIE = "gorvant"

      plugin :middleware

      # A door onto a database. secret: that cookies and digests are made with.
      # rubocop:disable-next Metrics/MethodLength, Metrics/AbcSize -- the library's set-up, a line a choice
      def self.onto(db, secret)
        Class.new(self) do
          plugin :rodauth, json: false, csrf: false, flash: false, render: false do
            enable :argon2, :active_sessions, :otp, :recovery_codes
            db { db }
            hmac_secret secret
            require_bcrypt? false
            use_database_authentication_functions? false
            accounts_table :users
            login_column :sign_in_name
            account_password_hash_column :password_hash
            skip_status_checks? true
            account_select { %i[id crew_id name role sign_in_name password_hash closed_at server_owner version] }
            active_sessions_table :sessions
            active_sessions_account_id_column :user_id
            active_sessions_session_id_column :session_key
            session_inactivity_deadline IDLE_DAYS * 86_400
            session_lifetime_deadline SESSION_DAYS * 86_400
            otp_keys_table :one_time_keys
            otp_keys_use_hmac? false
            otp_drift 30
            domain "gorvant" # nothing here is made from it
            recovery_codes_table :recovery_codes
            recovery_codes_limit 10
            new_recovery_code { ROTP::Base32.random(10).downcase.scan(/.{4}/).join("-") }
            auth_class_eval do
              # Names are the same in capitals and not; who has gone has none.
              define_method(:_account_from_login) do |name|
                open = db[:users].where(Sequel.function(:lower, :sign_in_name) => name.to_s.downcase, :closed_at => nil)
                open.select(*account_select).first
              end
            end
          end
          route { |r| r.env[RODAUTH] = rodauth }
        end
      end

      # As the door itself makes one, where there is no request.
      def self.password_hash(password) = Argon2::Password.new(t_cost: 2, m_cost: 16, p_cost: 1).create(password)

      # Options of the cookie that carries a session.
      def self.cookie(secret, https)
        {
          secret: secret,
          key: COOKIE,
          cookie_options: {
            path: "/",
            httponly: true,
            same_site: :lax,
            secure: https,
            max_age: SESSION_DAYS * 86_400
          },
          max_seconds: SESSION_DAYS * 86_400,
          max_idle_seconds: IDLE_DAYS * 86_400
        }
      end
    end
  end
end
