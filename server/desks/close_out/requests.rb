# frozen_string_literal: true

module Gorvant
  module Server
    class ClosingRequest < Request
      json do
        required(:id).filled(:string, format?: UUID)
        required(:after).filled(:integer, gteq?: 0, lteq?: VERSIONS)
      end
    end

    class ReopeningRequest < Request
      json { optional(:why).value(:string, max_size?: 400) }

      rule(:why).validate(:plain_text)
    end

    # number: of a closing; left out, the visit as it stands. zone: of the clock that times on paper are told by.
    class ReportRequest < Request
      json do
        optional(:zone).filled(:string, max_size?: 60)
        optional(:number).filled(:integer, gteq?: 1, lteq?: VERSIONS)
        optional(:leave_out).value(:array, max_size?: 20).each(
          :string,
          included_in?: VisitReport::SECTIONS - VisitReport::ALWAYS
        )
      end

      rule(:zone) { key.failure("is no time zone, such as America/Chicago") if value && !Reports::Clock.zone?(value) }
    end
  end
end
