# frozen_string_literal: true

module Gorvant
  module Server
    # One field over sites, units, complaints, findings, notes.
    class SearchResource < Resource
      post "/api/search" do
        input = SearchRequest.parse(body_json || {})
        search = Search.new(db, viewer)
        found = search.find_by(input)
        json(
          visits: found.visits.map { |row| Present.visit(row).merge(hit: row[:hit]) },
          read_as: found.read_as.map { |typed, words| { typed: typed, words: words } },
          unknown: found.unknown,
          people: search.people
        )
      end

      # What the crew's closings name as the cause, to choose from.
      get "/api/causes" do
        json(causes: closings.causes)
      end

      # What comes again over the crew's units, as far as counts bear it.
      get "/api/recurring" do
        cases = closings.holding.map { |row| case_of(row) }
        found = Recurrence.new(cases)
        json(
          visits: cases.size,
          units: cases.map(&:unit_id).uniq.size,
          enough: found.enough?,
          least: Catalogue.profile.dig("recurrence", "least_visits"),
          often: found.often.map(&:to_h),
          apart: found.apart.map(&:to_h)
        )
      end

      private

      def case_of(row)
        Recurrence.case_of(
          row[:unit_id],
          Warm.rig(row),
          row[:symptoms].to_a,
          row[:cause],
          age_years: Recurrence.age(row[:installed_year], row[:visit_on])
        )
      end
    end
  end
end
