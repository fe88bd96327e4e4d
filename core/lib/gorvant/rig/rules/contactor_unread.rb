# frozen_string_literal: true

module Gorvant
  module Rules
    # Warns at a contactor that nobody has read: the dangerous kind is assumed, one pole, which leg unknown.
    class ContactorUnread < Rule
      def check(solution)
        unless solution.netlist.branch?("CC.bar") && solution.netlist["CC.bar"][:unread] && !solution.working?("CC") &&
                 OnePole.live_volts(solution)
          return []
        end

        [
          finding(
            nodes: %w[outdoor.CC.T1 outdoor.CC.T2],
            branches: ["CC.bar"],
            evidence: [Catalogue.wording.fetch("evidence.contactor_unread")]
          )
        ]
      end
    end
  end
end
