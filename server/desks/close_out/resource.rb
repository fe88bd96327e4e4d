# frozen_string_literal: true

module Gorvant
  module Server
    # The end of a visit: what is still missing, its closings, and the report that is made of one.
    class CloseOutResource < Resource
      get "/api/visits/:id/close-out" do
        row = visits.find(params[:id])
        json(
          Present.close_out(closer.record(row)).merge(
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
            closer.close(visits.find(params[:id]), input[:id], body_json, after: input[:after])
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

      def closer = Closer.new(db, viewer)

      # A closing's report as it was frozen, or the visit as it stands, which is a draft.
      def report(row, input)
        return frozen(row, closings.numbered(row[:id], input[:number])) if input[:number]

        closer.draft(row).merge("draft" => true, "addenda" => [])
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

      # What came in after the closing that holds: what is not in it, whatever clocks say.
      def addenda(row)
        return [] unless row[:closed_number]

        held = closings.numbered(row[:id], row[:closed_number])[:content].to_hash
        inside = held.fetch("record").fetch("readings", []).map { |one| one["id"] }
        readings
          .of(row[:id])
          .reject { |one| inside.include?(one[:id]) }
          .map { |one| Present.addendum(one, Warm.netlist(row)) }
      end
    end
  end
end
