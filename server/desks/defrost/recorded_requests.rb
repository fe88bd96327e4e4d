# frozen_string_literal: true

module Gorvant
  module Server
    class NewLogRequest < Request
      json do
        required(:id).filled(:string, format?: Request::UUID)
        required(:name).filled(:string, max_size?: Request::LINE)
        optional(:live).hash { required(:zone).filled(:string, max_size?: 60) }
      end
      rule(:name).validate(:named)
    end

    class LookAtLogRequest < Request
      json { optional(:zone).filled(:string, max_size?: 60) }
    end

    class ReadLogRequest < Request
      json do
        required(:mapping).filled(:hash)
        required(:parts).value(:array, min_size?: 1, max_size?: Logs::LIMITS.fetch("most_files")).each(
          :integer,
          gteq?: 1,
          lteq?: Logs::LIMITS.fetch("most_parts")
        )
      end
    end

    class LogPictureRequest < Request
      json do
        required(:from).filled(Request::NUMBER, gteq?: 0, lteq?: 4.2e9)
        required(:to).filled(Request::NUMBER, gteq?: 0, lteq?: 4.2e9)
        required(:width).filled(:integer, gteq?: 10, lteq?: 4000)
        required(:columns).value(:array, min_size?: 1, max_size?: 12).each(
          :string,
          included_in?: Catalogue.recorded.fetch("columns").keys
        )
      end
    end

    class PlannerRequest < Request
      json do
        optional(:log_id).filled(:string, format?: Request::UUID)
        optional(:climate).hash do
          optional(:kind).filled(:string, included_in?: Catalogue.climates.keys)
          optional(:text).filled(:string, max_size?: 600_000)
          optional(:wind_mph).filled(Request::NUMBER, gteq?: 0, lteq?: 60)
        end
      end
      rule(:climate) do
        key.failure("has either a kind or a table of its own") if value && value.key?(:kind) == value.key?(:text)
      end
    end
  end
end
