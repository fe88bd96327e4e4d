# frozen_string_literal: true

module Gorvant
  module Server
    # What a visit comes to: its record as the desks take it, the report of it as it stands, and its closing.
    class Closer
      def initialize(db, viewer)
        @db = db
        @viewer = viewer
      end

      def record(row)
        reads = readings.of_standing(row[:id]).map { |one| VisitRecords.read(one) }
        VisitRecords.of(row, kept: row[:desks].kept, reads: reads)
      end

      # Closes a visit that is held: [row, created?]. Raises NotReady with all that is missing.
      def close(row, id, body, after:)
        record = record(row)
        find = find_for(row, record)
        missing = missing(record, find)
        raise NotReady.new(missing) if missing.any?

        mark = Desks::CloseOut.mark(record)
        content = JSON.parse(JSON.generate("report" => report(row, record, find), "record" => snapshot(row)))
        closing, first_time = closings.create(id, body, row, after: after, mark: mark, content: content)
        visits.close(row[:id], closing[:number], mark)
        [closing, first_time]
      end

      # The report of the visit as it stands, with the sections that its desk leaves out.
      def draft(row)
        record = record(row)
        report(row, record, find_for(row, record)).merge("leave_out" => record.close_out.fetch("leave_out", []))
      end

      private

      attr_reader :db, :viewer

      def visits = Visits.new(db, viewer)
      def readings = Readings.new(db, viewer)
      def photos = Photos.new(db, viewer)
      def closings = Closings.new(db, viewer)

      def missing(record, find)
        missing = Desks::CloseOut.missing(record).map { |one| { "field" => one.field, "problem" => one.problem } }
        if record.close_out["cause"] == "find" && find.nil?
          missing << { "field" => "/cause", "problem" => Catalogue.words("close_out.find_not_there") }
        end
        missing
      end

      def find_for(row, record) =
        record.close_out["cause"] == "find" ? Finders.new(Computed.new(db), readings).answer(row) : nil

      def report(row, record, find)
        about =
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
        VisitReport.new(record, about).to_h
      end

      # The photos that were chosen and are still there.
      def chosen(row, record)
        wanted = record.close_out.fetch("photos", [])
        photos
          .of(row[:id])
          .select { |one| wanted.include?(one[:id]) }
          .map { |one| [one[:id], one[:of].tr("_", " "), one[:note].to_s] }
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
    end
  end
end
