# frozen_string_literal: true

module Gorvant
  module Server
    # The end of a visit: what is still missing, its closings, and the report that is made of one.
    class CloseOutResource < Resource
      get "/api/visits/:id/close-out" do
        row = visits.find(params[:id])
        record = record(row)
        json(
          Present.close_out(record).merge(
            closings: closings.of(row[:id]).map { |one| Present.closing(one) },
            addenda: addenda(row)
          )
        )
      end

      post "/api/visits/:id/closings" do
        input = ClosingRequest.parse(body_json)
        visits.alone(params[:id])
        row, first_time =
          db.transaction do
            known = closings.again(input[:id], body_json) and next known, false
            visits.hold(params[:id], after: input[:after])
            close(visits.find(params[:id]), input)
          end
        created Present.closing(row), first_time
      end

      post "/api/visits/:id/closings/:number/reopening" do
        input = ReopeningRequest.parse(body_json || {})
        row = visits.alone(params[:id])
        number = closings.numbered(row[:id], params[:number].to_i)[:number]
        opened =
          db.transaction do
            visits.open_again(row[:id], number)
            closings.reopen(row[:id], number, input[:why])
          end
        json Present.closing(opened)
      end

      post "/api/visits/:id/report" do
        input = ReportRequest.parse(body_json || {})
        json report(visits.find(params[:id]), input)
      end

      post "/api/visits/:id/report-pdf" do
        input = ReportRequest.parse(body_json || {})
        row = visits.find(params[:id])
        content_type "application/pdf"
        Reports::Pdf.new(
          in_degrees(report(row, input)),
          leave_out: input.fetch(:leave_out, []),
          photo: ->(id) { photos.find(id)[:content].to_s }
        ).render
      end

      private

      def record(row) =
        VisitRecords.of(
          row,
          kept: row[:desks].kept,
          reads: readings.of_standing(row[:id]).map { |one| VisitRecords.read(one) }
        )

      # Closes a visit that is held: refuses with all that is missing.
      def close(row, input)
        record = record(row)
        find = find_for(row, record)
        missing = Desks::CloseOut.missing(record).map { |one| { "field" => one.field, "problem" => one.problem } }
        if record.close_out["cause"] == "find" && find.nil?
          missing << { "field" => "/cause", "problem" => Catalogue.words("close_out.find_not_there") }
        end
        raise NotReady.new(missing) if missing.any?

        mark = Desks::CloseOut.mark(record)
        content = JSON.parse(JSON.generate(content(row, record, find)))
        closing, first_time =
          closings.create(input[:id], body_json, row, after: input[:after], mark: mark, content: content)
        visits.close(row[:id], closing[:number], mark)
        [closing, first_time]
      end

      def find_for(row, record) =
        record.close_out["cause"] == "find" ? Finders.new(computed, readings).answer(row) : nil

      def content(row, record, find)
        { "report" => VisitReport.new(record, about(row, record, find)).to_h, "record" => snapshot(row) }
      end

      # All that the visit held, as it was.
      def snapshot(row)
        all = readings.of(row[:id])
        later = all.to_h { |one| [one[:supersedes_id], one[:id]] }
        netlist = Warm.netlist(row)
        {
          "visit" => Present.visit(row),
          "rig" => Formats::RigJson.dump(Warm.rig(row)),
          "readings" => all.map { |one| Present.reading(one, netlist, later[one[:id]]) }
        }
      end

      def about(row, record, find)
        VisitReport::About.new(
          site: row[:site_name],
          unit: row[:unit_name],
          visit_on: row[:visit_on].iso8601,
          complaint: row[:complaint].to_s,
          find: find,
          photos: chosen(row, record),
          names: [*record.reads.map(&:by), viewer.name].uniq,
          crew: viewer.crew_name
        )
      end

      # The photos that were chosen and are still there.
      def chosen(row, record)
        wanted = record.close_out.fetch("photos", [])
        photos
          .of(row[:id])
          .select { |one| wanted.include?(one[:id]) }
          .map { |one| [one[:id], one[:of].tr("_", " "), one[:note].to_s] }
      end

      # A closing's report as it was frozen, or the visit as it stands, which is a draft.
      def report(row, input)
        return frozen(row, closings.numbered(row[:id], input[:number])) if input[:number]

        record = record(row)
        draft = VisitReport.new(record, about(row, record, find_for(row, record))).to_h
        draft.merge("draft" => true, "leave_out" => record.close_out.fetch("leave_out", []), "addenda" => [])
      end

      def frozen(row, closing)
        content = closing[:content].to_hash
        content.fetch("report").merge(
          "draft" => false,
          "closing" => Present.closing(closing),
          "leave_out" => content.dig("record", "visit", "desks", "close_out", "content", "leave_out") || [],
          "addenda" => closing[:number] == row[:closed_number] ? addenda(row) : []
        )
      end

      def addenda(row)
        return [] unless row[:closed_number]

        since = closings.of(row[:id]).find { |one| one[:number] == row[:closed_number] }[:created_at]
        readings
          .of(row[:id])
          .select { |one| one[:received_at] > since }
          .map { |one| Present.addendum(one, Warm.netlist(row)) }
      end
    end
  end
end
