# frozen_string_literal: true

module Gorvant
  module Rules
    # Reports relays that undo the feed of their own coils, so that no state is steady.
    class RelayChatter < Rule
      def check(solution)
        return [] unless solution.chatter?

        names = solution.chattering.map { |id| solution.netlist[id].label }
        [
          finding(
            relays: names.join(", "),
            branches: solution.chattering,
            evidence: [Catalogue.words("evidence.chatter", relays: names.join(", "), states: solution.cycle.size)]
          )
        ]
      end
    end
  end
end
