# frozen_string_literal: true

module Gorvant
  module Server
    # Visits, what their rig does under a condition, and what the meter should show there.
    class VisitsResource < Resource
      circuit_routes "/api/visits", :visits

      get "/api/visits" do
        json(visits: visits.all.map { |row| Present.visit(row) })
      end

      post "/api/visits" do
        input = VisitRequest.parse(body_json)
        row, first_time = db.transaction { visits.create(input[:id], body_json, fields(input)) }
        created Present.visit(row), first_time
      end

      get "/api/visits/:id" do
        json Present.visit(visits.find(params[:id]))
      end

      patch "/api/visits/:id" do
        input = VisitChangeRequest.parse(body_json)
        json Present.visit(visits.change(params[:id], input[:version], input.except(:version)))
      end

      private

      # Over a point stands what was read there to C, over a device what was read across it.
      def taken_for(row, input)
        return {} unless input[:view] == "focus"

        mine = readings.standing_in(row[:id], condition(input[:condition]).call)
        { taken: mine.to_h { |one| [Present.taken_at(one), "#{format('%.1f', one[:value_volts_ac])} #{one[:verdict] == 'agrees' ? '=' : '≠'}"] } }
      end

      def fields(input)
        rig = rigs.find(input[:rig_id])
        unit_id = input[:unit_id] ? sites.fetch_unit_id(input[:unit_id]) : sites.unit_id(input[:site_name].strip, input[:unit_name].strip)
        input.slice(:visit_on, :complaint, :symptoms, :outdoor_degrees_f).merge(unit_id: unit_id, rig_revision_id: rig[:revision_id])
      end
    end
  end
end
