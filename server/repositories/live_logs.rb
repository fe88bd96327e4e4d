# frozen_string_literal: true

require_relative "logs"

module Gorvant
  module Server
    # Records that come while they are measured: rows go into the packed hours as they arrive, so that a record is drawn
    # like any other; it is read as a whole, as a file would be, when a person closes it.
    class LiveLogs < Logs
      TOLD_ROWS = 60 # in one event; a page that misses more asks for the picture

      # [row, rows that were new]. rows: Formats::LiveRows. Rows sent again are known, and kept once.
      def take(id, rows)
        db.transaction do
          row = listening(id)
          ids = columns(row, rows)
          put = rows.by_hour.map { |hour, some| put(row, hour, ids, rows.ids, some) }
          fresh = put.sum(&:last)
          next row, 0 if fresh.zero?

          check_length(row)
          heard = note(row, rows, fresh, put.last.first)
          tell("log_rows", nil, **told(heard, rows))
          [heard, fresh]
        end
      end

      # The record is whole: the worker reads it as it would a file.
      def close(id)
        db.transaction do
          row = listening(id)
          raise Refused.new(field: "/state", problem: "no row has come yet: nothing could be judged") unless row[:told]

          change(row, state: "reading")
        end
      end

      private

      # The row, held until the transaction ends.
      def listening(id)
        row = find(id)
        row = scoped.where(id: row[:id]).for_update.first || raise(NotFound.new(thing: thing, id: id))
        return row if row[:state] == "live"

        raise Refused.new(field: "/record_id", problem: "does not listen any more: it has been closed") if row[:live]

        raise Refused.new(field: "/record_id", problem: "is a record of files; live rows need one that listens")
      end

      # The first rows say what the record's columns are.
      def columns(row, rows)
        return rows.ids unless row[:told]

        known = row[:mapping]["columns"].keys
        return known if (known - rows.ids).empty? && (rows.ids - known).empty?

        raise Refused.new(
                field: "/columns",
                problem: "has to be #{RecordHour.order(known).join(", ")}, as the record's first rows had"
              )
      end

      # [RecordHour, how many rows were new]
      def put(row, hour, ids, sent_as, some)
        there = db[:log_hours].where(log_id: row[:id], hour: hour).first
        ordered = RecordHour.order(ids)
        before = there ? RecordHour.unpack(hour, ordered, Depot.current.bytes(there)) : RecordHour.empty(hour, ids)
        after, fresh = before.with_rows(sent_as, some)
        LogHours.new(db, row[:id]).keep(after) if fresh.positive?
        [after, fresh]
      end

      def check_length(row)
        most = Formats::LiveRows.limit("hours")
        return if db[:log_hours].where(log_id: row[:id]).count <= most

        raise Refused.new(field: "/rows", problem: "the record is full with #{most / 24} days; begin another")
      end

      def note(row, rows, fresh, newest)
        before = row[:told]&.to_hash || { "rows" => 0, "from" => Float::INFINITY, "to" => 0, "interval_seconds" => nil }
        times = rows.rows.map(&:first)
        change(
          row,
          mapping: row[:told] ? row[:mapping] : Sequel.pg_jsonb(mapping(row, rows)),
          told:
            Sequel.pg_jsonb(
              "rows" => before["rows"] + fresh,
              "from" => [before["from"], times.first].min,
              "to" => [before["to"], times.last].max,
              "interval_seconds" => usual(newest) || before["interval_seconds"]
            ),
          heard_at: Sequel::CURRENT_TIMESTAMP,
          heard_from: viewer.name
        )
      end

      # Seconds between rows, the middle one of an hour; nil for one row.
      def usual(hour)
        steps = hour.seconds.each_cons(2).map { |one, other| other - one }.sort
        steps[steps.size / 2]&.round(1)
      end

      def mapping(row, rows) = Formats::LiveRows.mapping(rows.ids, row[:mapping]["zone"]).to_json_hash

      def change(row, **fields)
        db[:logs].where(id: row[:id]).update(**fields, version: Sequel[:version] + 1, updated_at: Time.now)
        scoped.where(id: row[:id]).first
      end

      def told(row, rows)
        newest = rows.rows.last(TOLD_ROWS).map { |one| one.map { |value| value.nan? ? nil : value } }
        quiet = Formats::LiveRows.quiet_after_seconds(row[:told]["interval_seconds"])
        sent = { columns: rows.ids, rows: newest, whole: rows.rows.size <= newest.size }
        { log_id: row[:id], unit_id: row[:unit_id], quiet_after_seconds: quiet, **sent }
      end
    end
  end
end
