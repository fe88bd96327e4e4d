# frozen_string_literal: true

module Gorvant
  module Server
    # What a visit comes to: its record as the desks take it, the report of it as it stands, and its closing.
    class Closer
      def initialize(db, viewer)
        @db = db
        @viewer = viewer
      end

      def record(row) = answers.record(row)

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

      # The report of the visit as it stands.
      def draft(row) = answers.draft(row, find_for(row, record(row)), **whose(row))

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

      def report(row, record, find) = answers.report(row, record, find, **whose(row))
      def whose(row) = { photos: photos.of(row[:id]), by: viewer.name, crew: viewer.crew_name }
      def answers = Answers.new(Computed.new(db), readings)

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
