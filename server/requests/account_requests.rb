# frozen_string_literal: true

module Gorvant
  module Server
    # What accounts and their owners send.
    class AccountRequest < Request
      LEAST_CHARACTERS = 10
      MOST_CHARACTERS = 200
      NAME = /\A[\p{L}\p{N}](?:[\p{L}\p{N}._@+ -]{0,58}[\p{L}\p{N}])?\z/

      # Length is what makes a password hard to guess; no rule about its characters makes people write it down.
      register_macro(:good_password) do
        next unless key? && value.is_a?(String)

        key.failure("has to have #{LEAST_CHARACTERS} characters or more") if value.size < LEAST_CHARACTERS
        key.failure("has to have #{MOST_CHARACTERS} characters or fewer") if value.size > MOST_CHARACTERS
        key.failure("repeats one character; take several words") if value.chars.uniq.size < 4
      end

      register_macro(:sign_in_name) do
        next unless key? && value.is_a?(String)

        key.failure("has to be 1 to 60 letters and digits; . _ - @ + and spaces between") unless value.match?(NAME)
      end
    end

    class SignInRequest < AccountRequest
      json do
        required(:name).filled(:string, max_size?: LINE)
        required(:password).filled(:string, max_size?: AccountRequest::MOST_CHARACTERS)
        optional(:code).maybe(:string, max_size?: 60)
      end
    end

    class LocalKeyRequest < AccountRequest
      json { required(:key).filled(:string, max_size?: LINE) }
    end

    class PasswordRequest < AccountRequest
      json do
        optional(:sign_in_name).maybe(:string)
        optional(:current_password).maybe(:string, max_size?: AccountRequest::MOST_CHARACTERS)
        required(:password).filled(:string)
      end

      rule(:password).validate(:good_password)
      rule(:sign_in_name).validate(:sign_in_name)
      rule(:password, :sign_in_name) do
        same = values[:sign_in_name].to_s.casecmp?(values[:password].to_s)
        key(:password).failure("is the name itself; take another") if same
      end
    end

    class CodeSecretRequest < AccountRequest
      json do
        required(:secret).filled(:string, format?: /\A[a-z2-7]{32}\z/)
        required(:code).filled(:string, max_size?: 20)
        required(:password).filled(:string, max_size?: AccountRequest::MOST_CHARACTERS)
      end
    end

    class PasswordAgainRequest < AccountRequest
      json { required(:password).filled(:string, max_size?: AccountRequest::MOST_CHARACTERS) }
    end

    # What an authenticator answered, as browsers write it: base64url throughout.
    class PasskeyRequest < AccountRequest
      MOST_OF_ANSWER = 16_384

      json do
        required(:challenge).filled(:string, max_size?: 200, format?: /\A[\w-]+\z/)
        required(:credential).filled(:hash)
      end

      rule(:credential) do
        key(:credential).failure("is too long") if JSON.generate(values[:credential]).size > MOST_OF_ANSWER
      end
    end

    class NewPasskeyRequest < PasskeyRequest
      json { required(:name).filled(:string, max_size?: 60) }
      rule(:name).validate(:plain_text, :named)
    end

    class RoleRequest < AccountRequest
      json { required(:role).filled(:string, included_in?: %w[owner technician apprentice]) }
    end

    class TokenRequest < AccountRequest
      json { required(:token).filled(:string, max_size?: LINE) }
    end

    # name and sign_in_name: of somebody new.
    class AcceptanceRequest < AccountRequest
      json do
        required(:token).filled(:string, max_size?: LINE)
        optional(:name).maybe(:string, max_size?: 80)
        optional(:sign_in_name).maybe(:string)
        required(:password).filled(:string)
      end

      rule(:name).validate(:plain_text, :named)
      rule(:sign_in_name).validate(:sign_in_name)
      rule(:password).validate(:good_password)
    end

    class CrewRequest < AccountRequest
      json { required(:name).filled(:string, max_size?: 80) }
      rule(:name).validate(:plain_text, :named)
    end

    # One value of a device that measures. What it measured is the device's to say; a reading of two points it becomes
    # when a person keeps it.
    class SampleRequest < AccountRequest
      # { function => unit }: those that a person reads, and those that must not be taken for them.
      UNITS =
        Observation
          .functions
          .filter_map { |id, about| [id, about["unit"]] if about["unit"] }
          .to_h
          .merge("volts_dc" => "V", "hertz" => "Hz", "amps_dc" => "A")
          .freeze

      json do
        required(:id).filled(:string, format?: UUID)
        required(:function).filled(:string, included_in?: UNITS.keys)
        required(:value).filled(NUMBER, gteq?: -100_000.0, lteq?: 100_000_000.0)
        required(:unit).filled(:string, max_size?: 10)
        required(:stable).filled(:bool)
        required(:device_time).filled(:time)
      end

      rule(:function, :unit) do
        unit = UNITS[values[:function]]
        key(:unit).failure("has to be #{unit} for #{values[:function]}") unless unit == values[:unit]
      end
    end

    # Rows of a logger; what they are is the core's to read.
    class LiveRowsRequest < AccountRequest
      json do
        required(:record_id).filled(:string, format?: UUID)
        required(:columns).value(:array)
        required(:rows).value(:array)
      end
    end

    # A stand-in's word: show now what a meter would.
    class StandInRequest < AccountRequest
      json do
        required(:id).filled(:string, format?: UUID)
        optional(:visit_id).filled(:string, format?: UUID)
        optional(:try_id).filled(:string, format?: UUID)
        optional(:instrument).filled(:string, included_in?: Meter.instruments.keys)
        optional(:function).filled(:string, included_in?: %w[volts_ac volts_dc hertz])
      end

      rule(:visit_id, :try_id) do
        key(:visit_id).failure("or try_id: say which, one of them") unless [values[:visit_id], values[:try_id]].one?
      end
    end

    # Where somebody is in a visit: which page, at which place, on which points.
    class HereRequest < AccountRequest
      PLACES = %w[wall air_handler outdoor].freeze

      json do
        required(:page).filled(:string, max_size?: 40, format?: /\A[a-z-]+\z/)
        optional(:at_place).maybe(:string, included_in?: PLACES)
        optional(:call).maybe(:string, included_in?: Catalogue.calls.keys)
        optional(:probes).value(:array, max_size?: 2).each(:string, max_size?: 120)
        optional(:gone).filled(:bool)
      end
    end

    # One asks whether hands are clear before a call or mode is changed; who stands at the unit answers.
    class HandsRequest < AccountRequest
      json do
        required(:say).filled(:string, included_in?: %w[asked clear not_yet])
        optional(:call).maybe(:string, included_in?: Catalogue.calls.keys)
      end
    end

    class DeviceRequest < AccountRequest
      json do
        required(:id).filled(:string, format?: UUID)
        required(:name).filled(:string, max_size?: 80)
        required(:scope).filled(:string, included_in?: Devices::SCOPES)
      end
      rule(:name).validate(:plain_text, :named)
    end
  end
end
