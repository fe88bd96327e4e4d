# frozen_string_literal: true

module Gorvant
  module Server
    class Answers
      # What a device needs of a visit beside what its pages show, to answer without signal.
      module Along
        class << self
          # computed: where signatures are kept; engine: the name of the one that this server has to give, nil for none.
          # whose: { by:, crew:, marked: } of who takes it, as a report names them.
          def of(row, computed, sensor_tables, engine, whose)
            finders = Finders.new(computed, nil)
            situation = finders.situation(row)
            kept = computed.get(Signatures.key(row[:digest], situation))
            {
              engine: engine,
              digest: row[:digest],
              rig: row[:content].to_hash,
              carried: row[:carried].to_h,
              closed_as: row[:closed_as],
              sensor_tables: sensor_tables.map(&:to_h),
              whose: whose,
              signatures: kept && { name: name(row[:digest], situation), pieces: JSON.parse(kept) }
            }
          end

          # What signatures are of, by whoever has them: the unit, its wiring and settings as found, and its weather.
          def name(digest, situation) = Digest::SHA256.hexdigest(JSON.generate([digest, situation.made_from]))
        end
      end
    end
  end
end
