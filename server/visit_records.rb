# frozen_string_literal: true

module Gorvant
  module Server
    # A row of visits as the core's desks look at it, and the marks that are kept with the rows of its desks.
    module VisitRecords
      # Marks that are reckoned up when a visit is shown; those of the other desks when something of them is kept.
      SHOWN = %w[intake fitted trace].freeze

      class << self
        # kept: what the desks hold, where that is looked at.
        def of(row, rig: Warm.rig(row), kept: {})
          VisitRecord.new(
            rig: rig,
            told: !row[:complaint].to_s.strip.empty? || row[:symptoms].to_a.any?,
            safety: row[:safety].to_a,
            kept: kept,
            set_point_degrees_f: row[:set_point_degrees_f],
            agreeing_calls: row[:agreeing_calls].to_s.split(","),
            disagreeing: row[:disagreeing].to_i
          )
        end

        # [{ desk => mark } of the desks that keep something, digest of what they follow from].
        def marks(row, rig, kept)
          record = of(row, rig: rig, kept: kept)
          from = [Formats::RigJson.digest(rig), kept, record.set_point_degrees_f]
          made_from = Digest::SHA256.hexdigest(JSON.generate(from))
          [Warm.found(made_from) { Desks.marks(record, kept.keys) }, made_from]
        end
      end
    end
  end
end
