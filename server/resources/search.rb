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
    end
  end
end
