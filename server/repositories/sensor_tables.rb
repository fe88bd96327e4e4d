# frozen_string_literal: true

module Gorvant
  module Server
    # A crew's own thermistor tables, beside the made-up ones of the catalogue.
    class SensorTables < Repository
      def all = scoped.order(:name).all

      # [row, created?]. A name that is taken is refused.
      def create(id, body, table)
        taken =
          scoped.where(name: table.title).exclude(id: id).any? ||
            ThermistorTable.all.any? { |known| known.title == table.title }
        taken!(table.title) if taken

        insert_once(
          id,
          body,
          name: table.title,
          tolerance_degrees_f: table.tolerance_degrees_f,
          points: Sequel.pg_jsonb(table.points)
        )
      rescue Sequel::UniqueConstraintViolation
        taken!(table.title)
      end

      def delete(id)
        find(id)
        db[:sensor_tables].where(crew_id: viewer.crew_id, id: id).delete
      end

      # All as values, the catalogue's first.
      def values
        ThermistorTable.all +
          all.map do |row|
            ThermistorTable.new(
              id: row[:id],
              title: row[:name],
              tolerance_degrees_f: row[:tolerance_degrees_f],
              points: row[:points].map(&:to_a)
            )
          end
      end

      def value(id) =
        values.find { |table| table.id == id } || raise(NotFound.new(thing: "sensor table", id: id.to_s[0, 60]))

      private

      def table = :sensor_tables
      def thing = "sensor table"
    end
  end
end
