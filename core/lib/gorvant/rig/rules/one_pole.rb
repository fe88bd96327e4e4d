# frozen_string_literal: true

module Gorvant
  module Rules
    # Warns of the leg that a one-pole contactor leaves live when it is open.
    class OnePole < Rule
      def check(solution)
        return [] unless solution.netlist.branch?("CC.bar") && !solution.working?("CC")

        volts = solution.volts["outdoor.CC.T2"].abs
        return [] if volts < Catalogue.profile.dig("reading_classes", "about_120", "low")

        [finding(volts: volts.round, nodes: %w[outdoor.CC.T1 outdoor.CC.T2], branches: ["CC.bar"],
                 evidence: [Catalogue.words("evidence.leg_to_ground", node: "contactor T2", volts: volts.round)])]
      end
    end
  end
end
