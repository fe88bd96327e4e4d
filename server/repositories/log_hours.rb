# frozen_string_literal: true

module Gorvant
  module Server
    # A record as it is being read: its parts, its packed hours, and what became of it. For the worker, which has the
    # task's crew set and no viewer.
    class LogHours
      attr_reader :row

      def initialize(db, log_id)
        @db = db
        @id = log_id
        @row = db[:logs].where(id: log_id).first
      end

      def gone? = @row.nil?

      # Nothing of what an earlier reading left.
      def clear = hours.delete

      # An hour, in the place of what was kept of it before.
      def keep(hour)
        packed = {
          content: Sequel.blob(hour.pack),
          minutes: Sequel.blob(hour.pack_level(60)),
          tens: Sequel.blob(hour.pack_level(600))
        }
        @db[:log_hours].insert_conflict(target: %i[log_id hour], update: { **packed, object_key: nil }).insert(
          crew_id: @row[:crew_id],
          log_id: @id,
          hour: hour.hour,
          **packed
        )
      end

      # Bytes of a part, "" where it has not come.
      def part(file, number) = @db[:log_parts].where(log_id: @id, file: file, number: number).get(:content).to_s

      # The record is read. told: FieldLogReader::Told; on_off: { id => OnOff }.
      def finish(mapping, told, on_off)
        update(
          state: "read",
          mapping: Sequel.pg_jsonb(mapping.to_json_hash),
          told: Sequel.pg_jsonb(told.to_h.transform_keys(&:to_s)),
          on_off: Sequel.pg_jsonb(on_off.transform_values(&:to_json_hash))
        )
      end

      # Nothing of it is kept but why.
      def refuse(problems)
        clear
        update(state: "refused", problems: Sequel.pg_jsonb(problems))
      end

      def ids = RecordHour.order(@row[:mapping]["columns"].keys)
      def numbers = hours.order(:hour).select_map(:hour)
      def hour(number) = RecordHour.unpack(number, ids, Depot.current.bytes(hours.where(hour: number).first))

      private

      def hours = @db[:log_hours].where(log_id: @id)

      def update(fields) =
        @db[:logs].where(id: @id).update(**fields, version: Sequel[:version] + 1, updated_at: Sequel::CURRENT_TIMESTAMP)
    end
  end
end
