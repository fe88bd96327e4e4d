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
        input = SayingRequest.parse(body_json)
        visit = visits.alone(params[:id])
        rig = Warm.rig(visit)
        saying = Saying.new(rig, **input.slice(:call, :at), chosen: input.fetch(:chosen, {}))
        json(ways: saying.read(input[:text]).map { |way| said(way, visit) })
      end

      post "/api/visits/:id/readings" do
        input = ReadingRequest.parse(body_json)
        visit = visits.alone(params[:id])
        row, first_time = readings.create(input[:id], { visit: visit[:id], body: body_json }, fields(visit, input))
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
        _row, first_time = readings.create(input[:id], { visit: visit[:id], body: input[:id] }, fields(visit, input))
        first_time
      end

      def fields(visit, input)
        condition = condition(input[:condition], visit)
        trace = Warm.trace(visit, condition)
        observation = Observation.parse(deep_strings(input), trace)
        judged = Held.against(trace, observation)
        input.slice(:moment, :taken_at, :note, :supersedes_id).merge(
          visit_id: visit[:id],
          rig_revision_id: visit[:rig_revision_id],
          condition: condition.to_json_hash,
          **Readings.columns(observation, judged, Present.judged(judged))
        )
      end

      def said(way, visit)
        trace = Warm.trace(visit, condition({ "call" => way.call || "off" }, visit))
        instrument = { "volts_ac" => { "instrument" => "high_impedance" } }.fetch(way.given["function"], {})
        observation = Observation.parse(way.given.merge(instrument), trace)
        {
          given: way.given.merge(instrument),
          title: Observation.functions.fetch(observation.function).fetch("title"),
          where: observation.whereabouts(Warm.netlist(visit)),
          reads: observation.says,
          call: way.call,
          at: way.at,
          left: way.left
        }
      end

      def present(visit, rows)
        netlist = Warm.netlist(visit)
        later = rows.to_h { |row| [row[:supersedes_id], row[:id]] }
        rows.map { |row| Present.reading(row, netlist, later[row[:id]]) }
      end
    end
  end
end
