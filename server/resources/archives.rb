# frozen_string_literal: true

module Gorvant
  module Server
    # A visit, or a unit with all of its visits, as one file; and such a file taken in.
    class ArchivesResource < Resource
      get "/api/visits/:id/archive" do
        row = visits.alone(params[:id])
        zip([row[:id]], "visit #{row[:visit_on].iso8601}")
      end

      get "/api/units/:id/archive" do
        row = units.find(params[:id])
        zip(visits.of_unit(row[:id]).map { |visit| visit[:id] }, row[:name], archives.records_of(row[:id]))
      end

      post "/api/archives/:id/parts/:number" do
        parts.keep(params[:id], params[:number].to_i, body_json.to_s)
        json({ kept: params[:number].to_i }, 201)
      end

      post "/api/archives/:id/import" do
        input = ArchiveImportRequest.parse(body_json)
        archive = Formats::Archive.read(ArchiveZip.read(parts.whole(params[:id], input[:parts])))
        check_closings(archive)
        visits, records, shelf =
          db.transaction do
            taken = [archives.take_in(archive), archives.take_in_records(archive), archives.take_in_shelf(archive)]
            parts.drop(params[:id])
            taken.flatten.each { |one| audit.add(viewer, "imported", one.title) if one.came == "taken_in" }
            taken
          end
        json(visits: visits.map(&:to_h), records: records.map(&:to_h), shelf: shelf.map(&:to_h))
      end

      private

      def archives = Archives.new(db, viewer)
      def parts = ArchiveParts.new(db, viewer)

      def zip(ids, name, records = [])
        attachment "#{name}.gorvant.zip"
        content_type "application/zip"
        Warm.dear { ArchiveZip.dump(archives.files(ids, records)) }
      end

      # A closing is what its digest says, or it is none.
      def check_closings(archive)
        archive.visits.each do |id, document|
          document["closings"].each_with_index do |one, i|
            next if Closings.digest(one["content"]) == one["digest"]

            at = "visits/#{id}.json/closings/#{i}/digest"
            raise BadArchive.new([{ "field" => at, "problem" => "is not the digest of what was closed" }])
          end
        end
      end
    end
  end
end
