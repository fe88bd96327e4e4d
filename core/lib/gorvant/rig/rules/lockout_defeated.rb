# frozen_string_literal: true

module Gorvant
  module Rules
    # Finds a W2–E jumper on a rig whose outdoor thermostat is meant to hold W2 off.
    class LockoutDefeated < Rule
      def check(solution)
        return [] unless solution.netlist.branch?("ODT") && !solution.conducts?(solution.netlist["ODT"])

        jumper =
          solution
            .netlist
            .branches_at("wall.W2")
            .find { |branch| branch.kind == :wire && branch.other_end("wall.W2") == "wall.E" }
        return [] unless jumper && solution.conducts?(jumper)

        [
          finding(
            branches: [jumper.id, "ODT"],
            evidence: [Catalogue.words("evidence.jumper_beside_odt", jumper: jumper.label)]
          )
        ]
      end
    end
  end
end
