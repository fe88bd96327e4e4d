# frozen_string_literal: true

module Gorvant
  module Rules
    # Finds loads that have R on both sides: their way home is broken, so nothing flows and nothing drops.
    class CommonBroken < Rule
      def check(solution)
        secondary = solution.netlist.secondary or return []
        stranded = stranded(solution, secondary)
        return [] if stranded.empty?

        link = break_of(stranded, Paths.new(solution, secondary.from))
        [
          finding(
            loads: stranded.map(&:label).uniq.join(", "),
            link: link ? link.label : "the common",
            branches: [*link&.id, *stranded.map(&:id)],
            evidence: stranded.map { |load| both_sides(solution, load, secondary) }
          )
        ]
      end

      private

      # Low-voltage loads with full volts to C on both sides.
      def stranded(solution, secondary)
        full = Catalogue.profile.dig("reading_classes", "about_24", "low")
        section = solution.netlist.sections.find { |part| part.branches.include?(secondary) }
        section
          .branches
          .select(&:load?)
          .select do |load|
            [load.from, load.to].all? { |node| !solution.floating?(node) && to_home(solution, node, secondary) > full }
          end
      end

      def break_of(stranded, home) = stranded.filter_map { |load| home.obstacles(load.to)&.find(&:open?) }.first&.branch

      def to_home(solution, node, secondary) = (solution.volts[node] - solution.volts[secondary.from]).abs

      def both_sides(solution, load, secondary)
        Catalogue.words(
          "evidence.both_sides_live",
          load: load.label,
          first: format("%.1f", to_home(solution, load.from, secondary)),
          second: format("%.1f", to_home(solution, load.to, secondary))
        )
      end
    end
  end
end
