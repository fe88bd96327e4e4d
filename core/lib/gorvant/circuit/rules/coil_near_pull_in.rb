# frozen_string_literal: true

module Gorvant
  module Rules
    # Flags a coil fed so near its pull-in volts that it may or may not pull in.
    class CoilNearPullIn < Rule
      def check(solution)
        margin = Catalogue.profile.fetch("agreement").fetch("pull_in_margin_volts")
        solution
          .netlist
          .branches
          .select { |branch| branch.kind == :coil }
          .filter_map do |coil|
            volts = solution.volts_across(coil)
            next if (volts - coil[:pull_in_volts_ac]).abs > margin

            finding(
              coil: coil.label,
              volts: format("%.1f", volts),
              pull_in: format("%g", coil[:pull_in_volts_ac]),
              branches: [coil.id],
              evidence: [Catalogue.words("evidence.coil_volts", coil: coil.label, volts: format("%.1f", volts))]
            )
          end
      end
    end
  end
end
