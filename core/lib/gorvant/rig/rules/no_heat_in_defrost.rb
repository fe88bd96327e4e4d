# frozen_string_literal: true

module Gorvant
  module Rules
    # Finds a defrost that brings no backup although backup is fitted.
    class NoHeatInDefrost < Rule
      BACKUP = %w[SEQ HR GAS].freeze

      def check(solution)
        fitted = BACKUP.select { |code| solution.netlist.branch?(code) }
        return [] if fitted.empty? || !solution.working?("DFR") || fitted.any? { |code| solution.working?(code) }

        coil = solution.netlist[fitted.first]
        [
          finding(
            branches: fitted,
            nodes: %w[outdoor.W2_out air_handler.W],
            evidence: [
              Catalogue.words(
                "evidence.coil_volts",
                coil: coil.label,
                volts: format("%.1f", solution.volts_across(coil))
              )
            ]
          )
        ]
      end
    end
  end
end
