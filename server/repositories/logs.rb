# frozen_string_literal: true

module Gorvant
  module Server
    # Records of field loggers: a row a record, its parts on their way up, its hours when it is read.
    class Logs < Repository
      LIMITS = Catalogue.recorded.fetch("limits")
      KEPT_SECONDS = 86_400
      PER_UNIT = 60
      LEVELS = { 600 => :tens, 60 => :minutes }.freeze

      # Rows of a unit, newest first.
      def of_unit(unit_id)
        free(Sequel[:unit_id] => unit_id)
        scoped.where(unit_id: unit_id).reverse(:created_at).all
      end

      def find(id)
        free(Sequel[:id] => id) if UUID.match?(id.to_s)
        super
      end

      # [row, created?]
      # zone: of a record whose rows come live, nil for one of files.
      def create(id, body, unit_id:, name:, demo: false, zone: nil)
        if scoped.where(unit_id: unit_id).exclude(id: id).count >= PER_UNIT
          raise Refused.new(field: "/name", problem: "this unit has #{PER_UNIT} records; delete one that is not needed")
        end

        live = zone ? { live: true, state: "live", mapping: Sequel.pg_jsonb({ "zone" => zone, "columns" => {} }) } : {}
        insert_once(id, body, unit_id: unit_id, name: name, demo: demo, **live)
      end

      # A part sent again takes the place of the first. bytes: gzipped.
      def keep_part(id, file, number, bytes)
        row = find(id)
        raise Refused.new(field: "/state", problem: "is being read just now") if row[:state] == "reading"
        raise Refused.new(field: "/id", problem: "is a record of live rows; files need one of their own") if row[:live]

        within("/file", file, LIMITS.fetch("most_files"))
        within("/number", number, LIMITS.fetch("most_parts"))
        raise TooLarge.new(limit: LIMITS.fetch("part_bytes")) if bytes.bytesize > LIMITS.fetch("part_bytes")

        fields = { crew_id: viewer.crew_id, log_id: id, file: file, number: number, content: Sequel.blob(bytes) }
        db[:log_parts].insert_conflict(target: %i[log_id file number], update: { content: fields[:content] }).insert(
          fields
        )
      end

      # { file => [number] } of what has arrived.
      def parts(id) =
        db[:log_parts]
          .where(log_id: find(id)[:id])
          .order(:file, :number)
          .select_map(%i[file number])
          .group_by(&:first)
          .transform_values { |all| all.map(&:last) }

      # Bytes of a part, or nil.
      def part(id, file, number) = db[:log_parts].where(log_id: id, file: file, number: number).get(:content)&.to_s

      # counts: parts of each file. Raises Refused where one is missing.
      def check_whole(id, counts)
        there = parts(id)
        counts.each_with_index do |count, i|
          missing = ((1..count).to_a - there.fetch(i + 1, [])).first or next
          raise Refused.new(field: "/parts", problem: "part #{missing} of file #{i + 1} has not arrived; send it again")
        end
      end

      # The record is to be read by this mapping, which is kept for the next file of such a logger.
      def begin_reading(id, mapping)
        db.transaction do
          taken =
            db[:logs]
              .where(crew_id: viewer.crew_id, id: id, live: false)
              .exclude(state: "reading")
              .update(
                state: "reading",
                mapping: Sequel.pg_jsonb(mapping.to_json_hash),
                problems: Sequel.pg_jsonb([]),
                version: Sequel[:version] + 1,
                updated_at: Sequel::CURRENT_TIMESTAMP
              )
          raise Refused.new(field: "/state", problem: "is being read just now") if taken.zero?

          keep_type(mapping)
          alone(id)
        end
      end

      # How files with these columns were read last, or nil.
      def type(names)
        row = db[:logger_types].where(crew_id: viewer.crew_id, names_digest: digest(names)).first
        row && row[:mapping].to_hash
      end

      def delete(id) = db[:logs].where(crew_id: viewer.crew_id, id: find(id)[:id]).delete

      # Least and most of each pixel between two times, from the level that is fine enough: { column => [[t, low, high]]
      # }.
      def picture(row, columns, from, to, width)
        ids = RecordHour.order(row[:mapping]["columns"].keys)
        slot = LEVELS.keys.find { |seconds| (to - from) / seconds >= width }
        lies = slot ? [LEVELS.fetch(slot)] : %i[content object_key]
        hours =
          db[:log_hours]
            .where(log_id: row[:id], hour: (from / 3600).floor..(to / 3600).floor)
            .order(:hour)
            .select(:hour, *lies)
        LogPicture.new(ids, columns & ids, from, to, width).of(hours, slot)
      end

      # Of the crew that is set: parts that have lain for a day.
      def self.prune(db) = db[:log_parts].where(Sequel[:created_at] < Time.now - KEPT_SECONDS).delete

      # The row as it stands within the transaction that makes its task.
      def alone(id) = scoped.where(id: id).first

      private

      # A reading that was stopped, or whose worker gave up, leaves the record as it came.
      def free(which)
        at_it = db[:tasks].where(kind: [ReadLog::KIND, ReadLive::KIND], state: %w[waiting running])
        reads = Sequel.lit("tasks.input ->> 'log_id' = logs.id::text")
        scoped
          .where(which)
          .where(state: "reading")
          .exclude(at_it.where(reads).exists)
          .update(state: Sequel.case({ { live: true } => "live" }, "coming"), updated_at: Sequel::CURRENT_TIMESTAMP)
      end

      def table = :logs
      def thing = "record"
      def digest(names) = Digest::SHA256.hexdigest(JSON.generate(names))

      def within(field, number, most)
        return if number.between?(1, most)

        raise Refused.new(field: field, problem: "has to be from 1 to #{most}")
      end

      def keep_type(mapping)
        fields = { crew_id: viewer.crew_id, names_digest: digest(mapping.names) }
        kept = Sequel.pg_jsonb(mapping.to_json_hash.except("start"))
        db[:logger_types].insert_conflict(
          target: %i[crew_id names_digest],
          update: {
            mapping: kept,
            updated_at: Sequel::CURRENT_TIMESTAMP
          }
        ).insert(**fields, mapping: kept)
      end
    end
  end
end
