# frozen_string_literal: true

module Gorvant
  module Rules
    # Compares the current with what the transformer is rated for: an overload sags and heats, it blows no fuse.
    class TransformerOverloaded < Rule
      def check(solution)
        secondary = solution.netlist.secondary or return []
        drawn = solution.amps(secondary) * Catalogue.profile.dig("supply", "nominal_volts_ac")
        return [] if drawn <= secondary[:rated_va]

        [
          finding(
            drawn: format("%.0f", drawn),
            rated: format("%g", secondary[:rated_va]),
            volts: format("%.1f", solution.volts_across(secondary)),
            branches: [secondary.id],
            evidence: [
              Catalogue.words(
                "evidence.transformer_amps",
                amps: format("%.2f", solution.amps(secondary)),
                volts: format("%.1f", solution.volts_across(secondary))
              )
            ]
          )
        ]
      end
    end
  end
end
