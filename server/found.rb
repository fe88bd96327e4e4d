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

        # Of a forced test, nil for none.
        def defrost_mark(test)
          return "untouched" if test.nil? || test.verdicts.empty?

          test.verdicts.any?(&:wrong?) ? "disagrees" : "agrees"
        end

        private

        def worked_out(rig, as_found, set_point)
          check = WiringCheck.new(rig, as_found)
          settings = SettingsCheck.new(rig, as_found, set_point_degrees_f: set_point, wiring: check)
          wiring = check.told.reject { |told| told.kind == "setting" }
          { "wiring" => as_found.landings.empty? && as_found.jumpers.empty? ? "untouched" : mark(wiring.map(&:finding)),
            "thermostat" => as_found.settings.empty? ? "untouched" : mark(settings.findings) }
        end

        def mark(findings) = findings.any? { |finding| %w[fault warning].include?(finding.severity) } ? "disagrees" : "agrees"
      end
    end
  end
end
