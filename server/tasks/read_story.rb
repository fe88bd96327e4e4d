# frozen_string_literal: true

module Gorvant
  module Server
    # Run cycles and defrosts of a record, an hour after the other.
    class ReadStory
      KIND = "recorded"

      # What the answer follows from: the record as it was last read, and when the coil switch would close and open.
      def self.key(row, profile) = Computed.key(KIND, row[:id], row[:version], *points(profile))
      def self.points(profile) = [profile.starts_degrees_f, profile.ends_degrees_f]

      # input: { "log_id", "closes", "opens" }
      def initialize(input, db)
        @kept = LogHours.new(db, input.fetch("log_id"))
        row = @kept.row
        on_off = row[:on_off].to_hash.transform_values { |one| OnOff.new(**one.transform_keys(&:to_sym)) }
        points = input.values_at("closes", "opens")
        @cycles = RecordedCycles.new(@kept.ids, on_off, *points, row[:told]["interval_seconds"] || 60)
        @hours = @kept.numbers
      end

      def resumes? = false
      def total = @hours.size + 1

      def step(index)
        index.zero? ? heating : @cycles.hour(@kept.hour(@hours[index - 1]))
        nil
      end

      def answer(_pieces) = @cycles.finish.to_json_hash

      private

      def heating
        @cycles.heating_by(@hours.lazy.map { |at| @kept.hour(at) }) if @kept.ids.include?("ob")
      end
    end
  end
end
