# frozen_string_literal: true

module Gorvant
  module Rules
    # Names the fuse that opens and the way past every load by which R reached C.
    class FuseBlown < Rule
      def check(solution)
        return [] if solution.blown.empty?

        before = solution.before_blowing
        fuse = solution.netlist[solution.blown.first]
        secondary = solution.netlist.secondary
        steps = short_way(before, secondary)
        [
          finding(
            fuse: fuse.label,
            amps: format("%.1f", before.amps(fuse)),
            rated: format("%g", fuse[:rated_amps]),
            way: steps.map { |step| solution.netlist.label(step.to) }.join(" → "),
            branches: steps.map { |step| step.branch.id },
            nodes: steps.map(&:to),
            evidence: [
              Catalogue.words(
                "evidence.short_current",
                amps: format("%.1f", before.amps(fuse)),
                fuse: fuse.label,
                rated: format("%g", fuse[:rated_amps])
              )
            ]
          )
        ]
      end

      private

      # Follows the current: of the ways from R to C the one that wire alone makes.
      def short_way(before, secondary)
        steps = Paths.new(before, secondary.to).to(secondary.from) || []
        steps.reject { |step| step.branch.id == secondary.id }
      end
    end
  end
end
