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
        json report(visits.find(params[:id]), input).merge("marked" => !mark.nil?)
      end

      post "/api/visits/:id/report-pdf" do
        asked = ReportRequest.parse(body_json || {})
        input = paper(visits.find(params[:id]), asked)
        next drawn_by_task(input) if MakeReport.long?(input)

        content_type "application/pdf"
        Warm.dear { MakeReport.draw(input, ->(id) { photos.bytes(id) }) }
      end

      # Its readings against those of the unit when it was well.
      get "/api/visits/:id/known-good" do
        row = visits.alone(params[:id])
        unit = units.find(row[:unit_id])
        kept = unit[:known_good]&.to_hash
        lines = kept && unit[:known_good_visit_id] != row[:id] ? KnownGood.compare(kept, closer.record(row)) : []
        json(on: kept && kept["on"], visit_id: unit[:known_good_visit_id], lines: lines.map(&:to_h))
      end

      # Keeps them as such, of a closed visit that left the unit well.
      post "/api/visits/:id/known-good" do
        row = visits.alone(params[:id])
        unless %w[agrees so_far].include?(row[:closed_as])
          raise Refused.new(field: "/", problem: "only a closed visit that left no fault can be held up as known good")
        end

        kept = KnownGood.of(closer.record(row), on: row[:visit_on].iso8601)
        raise Refused.new(field: "/", problem: "no reading of this visit can be held against another day") unless kept

        units.know_good(row[:unit_id], row[:id], kept)
        json(on: kept["on"], visit_id: row[:id], lines: [])
      end

      private

      def closer = Closer.new(db, viewer)
      def mark = @mark ||= People.new(door).mark(viewer.crew_id)

      def paper(row, asked)
        {
          "paper" => JSON.parse(JSON.generate(in_units(report(row, asked)))),
          "leave_out" => asked.fetch(:leave_out, []),
          "zone" => asked[:zone],
          "crew_id" => viewer.crew_id,
          "mark" => mark && [mark].pack("m0")
        }
      end

      def drawn_by_task(input)
        key = MakeReport.key(input)
        kept = computed.get(key) or return json(Present.task(tasks.ask(MakeReport::KIND, key, input)), 202)

        content_type "application/pdf"
        MakeReport.bytes(kept)
      end

      # A closing's report as it was frozen, or the visit as it stands, which is a draft.
      def report(row, input)
        return frozen(row, closings.numbered(row[:id], input[:number])) if input[:number]

        closer.draft(row)
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
