# frozen_string_literal: true

require "digest"

module Gorvant
  module Server
    # Photos of a visit or of one of its facts.
    class PhotosResource < Resource
      OF = %w[panel_diagram splice board_setting thermostat other].freeze

      get "/api/visits/:id/photos" do
        json(photos: photos.of(visits.alone(params[:id])[:id]).map { |row| Present.photo(row) })
      end

      # The body is the picture itself; its id, what it shows and the fact it proves stand in the address.
      post "/api/visits/:id/photos" do
        visit = visits.even_binned(params[:id])
        unless Repository::UUID.match?(params["photo_id"].to_s)
          raise Refused.new(field: "/id", problem: "give a UUID of your own as ?id=")
        end

        row, first_time =
          photos.create(
            params["photo_id"],
            Digest::SHA256.hexdigest(body_json.to_s),
            { visit_id: visit[:id], **about, **Pictures.shrink(body_json) }
          )
        created Present.photo(row), first_time
      end

      post "/api/photos/:id/note" do
        input = PhotoNoteRequest.parse(body_json)
        json Present.photo(photos.change(params[:id], input.compact))
      end

      post "/api/photos/:id/deletion" do
        photos.delete(params[:id])
        json(deleted: params[:id])
      end

      get("/api/photos/:id") { picture(photos.bytes(params[:id])) }
      get("/api/photos/:id/small") { picture(photos.find(params[:id])[:small].to_s) }

      private

      def about
        of = params.fetch("of", "other")
        fact = params["fact"].to_s
        raise Refused.new(field: "/of", problem: "has to be one of #{OF.join(", ")}") unless OF.include?(of)
        unless fact.empty? || Catalogue.facts.key?(fact)
          raise Refused.new(field: "/fact", problem: "is no fact of a rig")
        end

        { of: of, fact_key: fact.empty? ? nil : fact, note: params["note"].to_s[0, 200] }
      end

      def picture(bytes)
        content_type "image/jpeg"
        headers "cache-control" => "private, max-age=31536000, immutable", "x-content-type-options" => "nosniff"
        bytes
      end
    end
  end
end
