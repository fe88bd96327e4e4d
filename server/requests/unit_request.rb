# frozen_string_literal: true

module Gorvant
  module Server
    class StayingNotesRequest < Request
      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        required(:notes).value(:string, max_size?: TEXT)
      end

      rule(:notes).validate(:plain_text)
    end

    # Of a unit: what is left out stays as it is.
    class UnitChangeRequest < Request
      EARLIEST = Catalogue.profile.dig("recurrence", "earliest_installed_year")

      json do
        required(:version).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        optional(:notes).value(:string, max_size?: TEXT)
        optional(:installed_year).maybe(:integer)
      end

      rule(:notes).validate(:plain_text)

      rule(:installed_year) do
        latest = Date.today.year
        key.failure("has to be a year from #{EARLIEST} to #{latest}") if value && !value.between?(EARLIEST, latest)
      end
    end

    class LabelRequest < Request
      json { optional(:size).filled(:string, included_in?: Reports::Label::SIZES.keys) }
    end
  end
end
