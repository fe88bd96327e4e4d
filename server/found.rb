# frozen_string_literal: true

module Gorvant
  module Server
    # What a visit found, as marks on its pages.
    module Found
      class << self
        # { "wiring" => mark, "thermostat" => mark } of a record.
        def marks(rig, as_found, set_point)
          return {} if as_found.empty?

          Warm.found(rig, as_found, set_point) { worked_out(rig, as_found, set_point) }
        end

        # Of a forced test, nil for none; record: all that the defrost desk keeps.
        def defrost_mark(test, record = {})
          standing(test, record).mark
        end

        private

        def worked_out(rig, as_found, set_point)
          check = WiringCheck.new(rig, as_found)
          settings = SettingsCheck.new(rig, as_found, set_point_degrees_f: set_point, wiring: check)
          {
            "wiring" => as_found.landings.empty? && as_found.jumpers.empty? ? "untouched" : check.standing.mark,
            "thermostat" => as_found.settings.empty? ? "untouched" : settings.standing.mark
          }
        end

        # A clear test proves the outputs; the coil's sensing is looked at by itself.
        def standing(test, record)
          verdicts = test&.verdicts || []
          sensed = %w[coil_switch thermistor].any? { |name| record.dig(name, "points").to_a.any? }
          open = verdicts.select { |verdict| verdict.verdict == "undetermined" }.map(&:title)
          open << Catalogue.wording.fetch("standing.forced_test_open") unless test&.record&.closed
          open << Catalogue.wording.fetch("standing.coil_sensing") unless sensed
          looked = [
            *(Catalogue.wording.fetch("standing.forced_test") if verdicts.any?),
            *(Catalogue.wording.fetch("standing.coil_sensing") if sensed)
          ]
          Standing.of("defrost", wrong: verdicts.any?(&:wrong?), looked_at: looked, taken: open)
        end
      end
    end
  end
end
