# frozen_string_literal: true

module Gorvant
  module Rules
    # Finds loads that have R on both sides: their way home is broken, so nothing flows and nothing drops.
    class CommonBroken < Rule
      def check(solution)
        secondary = solution.netlist.secondary or return []
        full = Catalogue.profile.dig("reading_classes", "about_24", "low")
        section = solution.netlist.sections.find { |part| part.branches.include?(secondary) }
        stranded = section.branches.select do |load|
          load.load? && [load.from, load.to].all? { |node| to_home(solution, node, secondary) > full && !solution.floating?(node) }
        end
        return [] if stranded.empty?

        home = Paths.new(solution, secondary.from)
        link = stranded.filter_map { |load| home.obstacles(load.to)&.find(&:open?) }.first
        [finding(loads: stranded.map(&:label).uniq.join(", "), link: link ? link.branch.label : "the common", branches: [*link&.branch&.id, *stranded.map(&:id)],
                 evidence: stranded.map { |load| both_sides(solution, load, secondary) })]
      end

      private

      def to_home(solution, node, secondary) = (solution.volts[node] - solution.volts[secondary.from]).abs

      def both_sides(solution, load, secondary)
        Catalogue.words("evidence.both_sides_live", load: load.label, first: format("%.1f", to_home(solution, load.from, secondary)), second: format("%.1f", to_home(solution, load.to, secondary)))
      end
    end
  end
end
