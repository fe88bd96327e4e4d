# frozen_string_literal: true

require "zlib"

module Gorvant
  module Server
    # All that a crew keeps, as archives of its units: files in parts, kept for a day. A crew has one at a time.
    class Exports < Repository
      KEPT_SECONDS = 86_400
      PART_BYTES = 4 * 1024 * 1024

      # The newest, or nil.
      def newest = scoped.reverse(:created_at, :id).first

      # [row, created?]. What was made before goes.
      def create(id, body)
        db.transaction do
          row, first_time = insert_once(id, body, {})
          scoped.exclude(id: id).delete if first_time
          [row, first_time]
        end
      end

      # [{ number:, name:, visits:, records:, bytes:, crc32: }] by name.
      def files(id) = db[:export_files].where(crew_id: viewer.crew_id, export_id: id).order(:name, :number).all

      def file(id, number)
        files(id).find { |one| one[:number] == number } || raise(NotFound.new(thing: "file", id: number.to_s[0, 60]))
      end

      # Bytes of a file, a part at a time.
      def each_part(id, number)
        parts = db[:export_parts].where(crew_id: viewer.crew_id, export_id: id, file: number)
        parts.order(:number).select_map(:number).each { |part| yield parts.where(number: part).get(:content).to_s.b }
      end

      # Keeps a file, in the place of one that a worker before this one left.
      def keep(id, number, bytes, name:, visits:, records:)
        db.transaction do
          db[:export_files].where(export_id: id, number: number).delete
          about = { name: name, visits: visits, records: records, bytes: bytes.bytesize, crc32: Zlib.crc32(bytes) }
          db[:export_files].insert(crew_id: viewer.crew_id, export_id: id, number: number, **about)
          (0...bytes.bytesize)
            .step(PART_BYTES)
            .with_index(1) do |from, part|
              content = Sequel.blob(bytes.byteslice(from, PART_BYTES))
              db[:export_parts].insert(
                crew_id: viewer.crew_id,
                export_id: id,
                file: number,
                number: part,
                content: content
              )
            end
        end
      end

      # Of the crew that is set: what was made more than a day ago. How many went.
      def self.prune(db) = db[:exports].where(Sequel[:created_at] < Time.now - KEPT_SECONDS).delete

      private

      def table = :exports
      def thing = "export"
    end
  end
end
