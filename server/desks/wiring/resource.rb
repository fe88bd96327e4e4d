# frozen_string_literal: true

module Gorvant
  module Server
    # The wiring as found: what differs, what that does, and what to do about it.
    class WiringResource < Resource
      # As kept with the visit, or as it is being entered.
      post "/api/visits/:id/wiring" do
        json answers.wiring(visits.alone(params[:id]), WiringRequest.parse(body_json || {}))
      end

      get "/api/visits/:id/landings" do
        row = visits.alone(params[:id])
        rig = Warm.rig(row)
        attachment "landings.csv"
        content_type "text/csv"
        Formats::LandingsCsv.dump(rig, AsFound.parse(row[:desks].as_found, rig))
      end

      # A table as a record to look at; nothing is kept.
      post "/api/visits/:id/landings" do
        row = visits.alone(params[:id])
        input = LandingsRequest.parse(body_json)
        read =
          Formats::LandingsCsv.read(input[:text], Warm.rig(row), settings: row[:desks].as_found.fetch("settings", {}))
        json(rows: read.rows, refused: read.refused, as_found: read.as_found&.to_json_hash)
      end
    end
  end
end
