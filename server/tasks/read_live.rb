# frozen_string_literal: true

module Gorvant
  module Server
    # Reads a record that came live, hour by hour, as a file's would be: gaps, open leads, sensors that stick, and from
    # which value on a column counts as on.
    class ReadLive
      KIND = "live_log"

      # input: { "log_id" }
      def initialize(input, db)
        @id = input.fetch("log_id")
        @kept = LogHours.new(db, @id)
        @hours = @kept.gone? ? [] : @kept.numbers
        return if @kept.gone?

        given = @kept.row[:mapping].to_hash
        @mapping = Formats::FieldLogMapping.parse(given, given["names"].size)
        @reader = Formats::FieldLogReader.new(@mapping) { |hour| @kept.keep(hour) }
      end

      def resumes? = false
      def total = @hours.size + 1

      def step(index)
        return 0 if @kept.gone?

        index < @hours.size ? @reader.hour(@kept.hour(@hours[index])) : finish
        1
      end

      def answer(_pieces) = { "log_id" => @id }

      private

      def finish = @kept.finish(@mapping, @reader.finish, @reader.on_off)
    end
  end
end
