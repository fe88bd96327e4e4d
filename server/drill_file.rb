# frozen_string_literal: true

require "argon2"
require "openssl"

module Gorvant
  module Server
    # gorvant-drill/1: drills in a file, what is really so sealed under a passphrase (argon2id, AES-256-GCM). The title
    # and what kinds they are can be read; it is bound to what is sealed, so that neither can be changed alone.
    module DrillFile
      FORMAT = "gorvant-drill/1"
      KDF = { "name" => "argon2id", "t_cost" => 3, "m_cost" => 16, "p_cost" => 1 }.freeze # 2^16 KB
      MOST_BYTES = 4 * 1_048_576

      class << self
        # rows: of drills, opened nowhere else. Returns a Hash for JSON.
        def dump(title, rows, passphrase)
          open = { "format" => FORMAT, "title" => title, "drills" => rows.map { |row| head(row) } }
          salt = SecureRandom.bytes(16)
          cipher = OpenSSL::Cipher.new("aes-256-gcm").encrypt
          cipher.key = key(passphrase, salt)
          nonce = cipher.random_iv
          cipher.auth_data = JSON.generate(open)
          sealed = cipher.update(JSON.generate(rows.map { |row| body(row) })) + cipher.final
          open.merge(
            "kdf" => KDF,
            "salt" => text(salt),
            "nonce" => text(nonce),
            "tag" => text(cipher.auth_tag),
            "sealed" => text(sealed)
          )
        end

        # [title, [Practice::Drill]]. Raises Refused by its field.
        def load(file, passphrase)
          wrong("/file/format", "has to be #{FORMAT}") unless file["format"] == FORMAT
          wrong("/file/kdf", "is another than this server's") unless file["kdf"] == KDF
          [file["title"].to_s[0, Request::LINE], drills(opened(file, passphrase))]
        rescue KeyError, TypeError, NoMethodError
          wrong("/file", "holds no drills that this server can read")
        end

        # [Practice::Drill] of the text that was sealed. Raises Refused.
        def drills(text)
          whole = text.dup.force_encoding(Encoding::UTF_8)
          raise ArgumentError.new("no text") unless whole.valid_encoding?

          JSON.parse(whole).first(Courses::MOST_DRILLS).map { |row| drill(row) }
        rescue JSON::ParserError, KeyError, TypeError, NoMethodError, ArgumentError
          wrong("/file", "holds no drills that this server can read")
        end

        private

        def wrong(field, problem) = raise(Refused.new(field: field, problem: problem))
        def text(bytes) = [bytes].pack("m0")

        def bytes(file, name)
          file.fetch(name).unpack1("m0")
        rescue ArgumentError, KeyError, NoMethodError
          wrong("/file/#{name}", "is missing, or is not base64")
        end

        def key(passphrase, salt)
          hex = Argon2::Engine.hash_argon2id(passphrase, salt, KDF["t_cost"], KDF["m_cost"], KDF["p_cost"], 32)
          [hex].pack("H*")
        end

        def head(row) = row.slice(:form, :subject, :level, :rig_name).transform_keys(&:to_s)
        def body(row) = { "rig" => row[:content].to_hash, "drill" => row[:sealed].to_hash }

        def opened(file, passphrase)
          cipher = OpenSSL::Cipher.new("aes-256-gcm").decrypt
          cipher.key = key(passphrase, bytes(file, "salt"))
          cipher.iv = bytes(file, "nonce")
          cipher.auth_tag = bytes(file, "tag")
          cipher.auth_data = JSON.generate(file.slice("format", "title", "drills"))
          cipher.update(bytes(file, "sealed")) + cipher.final
        rescue OpenSSL::Cipher::CipherError, Argon2::ArgonHashFail, ArgumentError
          wrong("/passphrase", "does not open this file, or the file was changed")
        end

        def drill(row)
          drill = Practice::Drill.from(row.fetch("drill"), Formats::RigJson.read(row.fetch("rig")))
          known?(drill) ? drill : wrong("/file", "holds a drill of a kind that this server does not know")
        end

        def known?(drill)
          practice = Catalogue.practice
          kinds = { "forms" => drill.form, "subjects" => drill.subject, "levels" => drill.level }
          return false unless kinds.all? { |table, id| practice[table].key?(id) }

          drill.form == "find" ? drill.truth && drill.par : drill.asks.is_a?(Array)
        end
      end
    end
  end
end
