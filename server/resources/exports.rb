# frozen_string_literal: true

require "zip_kit"

module Gorvant
  module Server
    # All that a crew keeps, made by a task, as one file or unit by unit.
    class ExportsResource < Resource
      get "/api/exports" do
        row = exports.newest
        json(export: row && Present.export(row, task(row), exports.files(row[:id])))
      end

      # Begins one; asked again with the same id it is answered as it stands.
      post "/api/exports" do
        input = ExportRequest.parse(body_json)
        row, first_time = exports.create(input[:id], body_json)
        at_it = first_time ? begin_it(row) : task(row)
        next json(Present.task(at_it), 202) if at_it && %w[waiting running].include?(at_it[:state])

        json Present.export(row, at_it, exports.files(row[:id]))
      end

      get "/api/exports/:id/files/:number" do
        row = exports.find(params[:id])
        file = exports.file(row[:id], params[:number].to_i)
        attachment file[:name]
        content_type "application/zip"
        headers "content-length" => file[:bytes].to_s
        bytes = []
        exports.each_part(row[:id], file[:number]) { |part| bytes << part }
        bytes
      end

      # All files in one, made while it is sent.
      get "/api/exports/:id/whole" do
        row = exports.find(params[:id])
        files = exports.files(row[:id])
        raise Refused.new(field: "/id", problem: "is not made to its end yet") unless task(row)&.fetch(:state) == "done"

        attachment "#{viewer.crew_name}, #{row[:created_at].utc.to_date.iso8601}.zip"
        content_type "application/zip"
        WholeExport.new(exports, row[:id], files, viewer.crew_id)
      end

      private

      def exports = Exports.new(db, viewer)
      def task(row) = tasks.newest(MakeExport.key(row[:id]))

      # In the place of one that is still at it. Told in the trail here, however its files are fetched then.
      def begin_it(row)
        tasks.call_off(MakeExport::KIND)
        audit.add(viewer, "exported", viewer.crew_name)
        units = sites.all.flat_map { |site| site[:units].map { |unit| unit[:id] } }
        who = { "crew_id" => viewer.crew_id, "crew_name" => viewer.crew_name, "user_id" => viewer.user_id }
        tasks.ask(MakeExport::KIND, MakeExport.key(row[:id]), { **who, "export_id" => row[:id], "units" => units })
      end
    end

    # A body that holds one part in memory at a time. What is stored is deflated already.
    class WholeExport
      def initialize(exports, id, files, crew_id)
        @exports, @id, @files, @crew_id = exports, id, files, crew_id
      end

      def each(&block)
        Crew.as(@crew_id) do
          ZipKit::Streamer.open(ZipKit::BlockWrite.new(&block)) do |zip|
            @files.each do |file|
              zip.add_stored_entry(filename: file[:name], size: file[:bytes], crc32: file[:crc32])
              @exports.each_part(@id, file[:number]) { |bytes| zip << bytes }
            end
          end
        end
      end
    end
  end
end
