# frozen_string_literal: true

module Gorvant
  module Server
    # A unit over all its visits, and the site that it stands at.
    class UnitsResource < Resource
      get "/api/units/:id" do
        row = units.find(params[:id])
        rows = visits.of_unit(row[:id])
        json Present.unit(
               row,
               rows,
               records(rows),
               units.findings(row[:id]),
               units.photos(row[:id]),
               sensor_tables.values
             )
      end

      patch "/api/units/:id" do
        input = UnitChangeRequest.parse(body_json)
        row = units.find(params[:id])
        json Present.unit_notes(units.change(row[:id], input[:version], input.slice(:notes, :installed_year)))
      end

      post "/api/units/:id/label-pdf" do
        input = LabelRequest.parse(body_json || {})
        row = units.find(params[:id])
        last = visits.of_unit(row[:id]).first
        unless last
          raise Refused.new(field: "/", problem: "this unit has no visit yet, so nothing is known for a label")
        end

        content_type "application/pdf"
        Reports::Label.new(
          site: row[:site_name],
          unit: row[:name],
          number: row[:id][0, 8],
          crew: viewer.crew_name,
          lines: in_units(UnitLabel.lines(Warm.rig(last))),
          last_on: last[:visit_on].iso8601,
          address: settings.opening.public_address("/units/#{row[:id]}"),
          size: input.fetch(:size, Reports::Label::USUAL)
        ).render
      end

      get "/api/sites/:id" do
        row = sites.find(params[:id])
        of_site = sites.units(row[:id])
        names = rigs.names(of_site.filter_map { |unit| unit[:revision_id] })
        json Present.site(row, of_site, names)
      end

      patch "/api/sites/:id" do
        input = StayingNotesRequest.parse(body_json)
        json Present.notes(sites.change(params[:id], input[:version], input[:notes]))
      end

      private

      # [Trends::Visit], oldest first.
      def records(rows)
        rows.reverse.map do |row|
          reads = readings.of_standing(row[:id]).map { |one| VisitRecords.read(one) }
          Trends::Visit.new(
            on: row[:visit_on].iso8601,
            record: VisitRecords.of(row, kept: row[:desks].kept, reads: reads)
          )
        end
      end
    end
  end
end
