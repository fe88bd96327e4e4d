# frozen_string_literal: true

module Gorvant
  module Server
    # What was read, seen, looked up and done on a visit. What was expected is worked out here, from the visit's own rig
    # revision, never taken from outside.
    class ReadingsResource < Resource
      get "/api/visits/:id/readings" do
        visit = visits.alone(params[:id])
        json(readings: present(visit, readings.of(visit[:id])))
      end

      get "/api/visits/:id/readings-csv" do
        visit = visits.alone(params[:id])
        attachment "readings.csv"
        content_type "text/csv"
        Formats::ReadingsCsv.dump(readings.of_standing(visit[:id]).map { |row| VisitRecords.read(row) })
      end

      # A table of readings, kept whole or not at all; a row that was kept before is not kept again.
      post "/api/visits/:id/readings-csv" do
        input = ReadingsTableRequest.parse(body_json)
        visit = visits.alone(params[:id])
        read = Formats::ReadingsCsv.read(input[:text], Warm.rig(visit))
        kept =
          db.transaction do
            read.given.map { |given| keep_row(visit, ReadingRequest.parse(given.merge("id" => id_of(visit, given)))) }
          end
        json(rows: read.rows, refused: read.refused, kept: kept.count(true))
      end

      # What one spoken line is taken for, to be looked at before it is kept; nothing is kept here.
      post "/api/visits/:id/saying" do
        json answers.saying(visits.alone(params[:id]), SayingRequest.parse(body_json), shown_units)
      end

      post "/api/visits/:id/readings" do
        input = ReadingRequest.parse(body_json)
        visit = visits.even_binned(params[:id])
        row, first_time =
          readings.create(input[:id], { visit: visit[:id], body: body_json }, answers.reading(visit, input))
        created present(visit, readings.of(visit[:id])).find { |reading| reading[:id] == row[:id] }, first_time
      end

      post "/api/visits/:id/readings/:reading_id/retraction" do
        visit = visits.alone(params[:id])
        row =
          db.transaction do
            visits.hold(visit[:id])
            readings.retract(visit[:id], params[:reading_id])
          end
        json present(visit, readings.of(visit[:id])).find { |reading| reading[:id] == row[:id] }
      end

      private

      # A row of a table is the same reading whenever it comes.
      def id_of(visit, given) = Ids.of(Sent.digest([visit[:id], given]))

      def keep_row(visit, input)
        _row, first_time =
          readings.create(input[:id], { visit: visit[:id], body: input[:id] }, answers.reading(visit, input))
        first_time
      end

      def present(visit, rows) = answers.readings(visit, rows)
    end
  end
end
