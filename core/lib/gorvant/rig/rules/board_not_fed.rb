# frozen_string_literal: true

module Gorvant
  module Rules
    # Finds an outdoor board that R does not reach although the transformer is live.
    class BoardNotFed < Rule
      def check(solution)
        secondary = solution.netlist.secondary
        return [] unless secondary && solution.netlist.branch?("BOARD") && fed?(solution, secondary)

        paths = Paths.new(solution, secondary.to)
        obstacles = paths.obstacles("outdoor.R")
        return [] if obstacles&.empty? || solution.blown.any?

        link = obstacles&.find(&:open?)&.branch
        [
          finding(
            link: link ? "#{link.label} is open" : "nothing leads R there",
            nodes: ["outdoor.R"],
            branches: [link&.id].compact,
            evidence: [
              Catalogue.words(
                "evidence.coil_volts",
                coil: "the board",
                volts: format("%.1f", solution.volts_across(solution.netlist["BOARD"]))
              )
            ]
          )
        ]
      end

      private

      def fed?(solution, secondary) =
        solution.volts_across(secondary) > Catalogue.profile.dig("reading_classes", "about_24", "low")
    end
  end
end
