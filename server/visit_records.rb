# frozen_string_literal: true

module Gorvant
  module Server
    # A row of visits as the core's desks look at it, and the marks that are kept with the rows of its desks.
    module VisitRecords
      # Marks that are reckoned up when a visit is shown; those of the other desks when something of them is kept.
      SHOWN = %w[intake fitted trace].freeze

      class << self
        # kept: what the desks hold, where that is looked at; reads: [VisitRead], the same.
        def of(row, rig: Warm.rig(row), kept: {}, reads: [])
          VisitRecord.new(
            rig: rig,
            told: !row[:complaint].to_s.strip.empty? || row[:symptoms].to_a.any?,
            safety: row[:safety].to_a,
            kept: kept,
            set_point_degrees_f: row[:set_point_degrees_f],
            agreeing_calls: row[:agreeing_calls].to_s.split(","),
            disagreeing: row[:disagreeing].to_i,
            symptoms: row[:symptoms].to_a,
            outdoor_degrees_f: row[:outdoor_degrees_f],
            reads: reads,
            closed_as: row[:closed_as],
            carried: row[:carried].to_h
          )
        end

        # A row of readings as the desks take it.
        def read(row)
          VisitRead.new(
            id: row[:id],
            observation: ReadingRow.observation(row),
            condition: Condition.parse(row[:condition].to_h),
            minutes: row[:moment].to_h["compressor_stopped_minutes"],
            at: row[:taken_at].utc.iso8601,
            age_minutes: [(Time.now - row[:taken_at]) / 60.0, 0.0].max,
            verdict: row[:verdict],
            held: row[:says],
            note: row[:note],
            by: row[:taken_by]
          )
        end

        # [{ desk => mark } of the desks that keep something, digest of what they follow from].
        def marks(row, rig, kept)
          record = of(row, rig: rig, kept: kept)
          from = [Formats::RigJson.digest(rig), kept, record.set_point_degrees_f, record.carried]
          made_from = Digest::SHA256.hexdigest(JSON.generate(from))
          [Warm.found(made_from) { Desks.marks(record, kept.keys) }, made_from]
        end
      end
    end
  end
end
