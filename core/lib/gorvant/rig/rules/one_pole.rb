# frozen_string_literal: true

module Gorvant
  module Rules
    # Warns of the leg that a one-pole contactor leaves live when it is open.
    class OnePole < Rule
      # Volts to ground that an open one-pole contactor leaves on T1 and T2; nil where they are dead.
      def self.live_volts(solution)
        volts = %w[T1 T2].map { |tab| solution.volts["outdoor.CC.#{tab}"].abs }.max
        volts < Catalogue.profile.dig("reading_classes", "about_120", "low") ? nil : volts
      end

      def check(solution)
        unless solution.netlist.branch?("CC.bar") && !solution.netlist["CC.bar"][:unread] && !solution.working?("CC")
          return []
        end

        volts = self.class.live_volts(solution) or return []
        leg = solution.netlist["CC.bar"].to.end_with?("T1") ? "T1" : "T2"
        [
          finding(
            volts: volts.round,
            leg: leg,
            nodes: %w[outdoor.CC.T1 outdoor.CC.T2],
            branches: ["CC.bar"],
            evidence: [Catalogue.words("evidence.leg_to_ground", node: "contactor #{leg}", volts: volts.round)]
          )
        ]
      end
    end
  end
end
