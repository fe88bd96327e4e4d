# frozen_string_literal: true

module Gorvant
  module Server
    # A row of visits as the core's desks look at it, and the marks that are kept with the row.
    module VisitRecords
      # Marks that are reckoned up when a visit is shown; those of the other desks when something of them is kept.
      SHOWN = %w[intake fitted trace].freeze

      class << self
        # as_found: AsFound where it is looked at; defrost: what the defrost desk keeps.
        def of(row, rig: Warm.rig(row), as_found: AsFound.new, defrost: {})
          VisitRecord.new(
            rig: rig,
            told: !row[:complaint].to_s.strip.empty? || row[:symptoms].to_a.any?,
            safety: row[:safety].to_a,
            as_found: as_found,
            set_point_degrees_f: row[:set_point_degrees_f],
            defrost: defrost,
            agreeing_calls: row[:agreeing_calls].to_s.split(","),
            disagreeing: row[:disagreeing].to_i
          )
        end

        # The row's kept marks with those of what was found in it.
        def found_marks(row, rig, as_found)
          record = of(row, rig: rig, as_found: as_found)
          marks = Warm.found(rig, as_found, record.set_point_degrees_f) { Desks.marks(record, %w[wiring thermostat]) }
          row[:found_marks].to_h.slice("defrost").merge(as_found.empty? ? {} : marks)
        end

        # The mark of the defrost desk, by what it keeps.
        def defrost_mark(row, rig, kept) = { "defrost" => Desks.mark("defrost", of(row, rig: rig, defrost: kept)) }
      end
    end
  end
end
