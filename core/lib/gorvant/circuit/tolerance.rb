# frozen_string_literal: true

module Gorvant
  # The corners of what the same circuit may read in another specimen: loads and conductors at either end of their
  # tolerance, contacts held. The source's tolerance scales all of it.
  # Source: docs/sources.md, component-tolerance.
  class Tolerance
    attr_reader :corners

    # corners: [{ node => volts }], the nominal solution first.
    def initialize(solution)
      @profile = Catalogue.profile.fetch("tolerance")
      @corners = [solution.volts] + factors.map { |load, wire| volts_with(solution, load, wire) }
      freeze
    end

    # [low, high] volts between two held nodes.
    def volts_between(first, second)
      span = corners.map { |volts| (volts[first] - volts[second]).abs }.minmax
      source = @profile.fetch("source_volts_fraction")
      [span[0] * (1 - source), span[1] * (1 + source)]
    end

    private

    def factors
      load = @profile.fetch("load_va_fraction")
      wires = @profile.fetch("conductor_resistance_factors").values_at("low", "high")
      [1 / (1 + load), 1 / (1 - load)].product(wires)
    end

    def volts_with(solution, load_factor, wire_factor)
      scale =
        solution
          .netlist
          .branches
          .each_with_object({}) do |branch, factors|
            if branch.load?
              factors[branch.id] = load_factor
            elsif branch.kind == :wire
              factors[branch.id] = wire_factor
            end
          end
      solution
        .netlist
        .sections
        .each_with_object({}) do |section, volts|
          volts.merge!(section.solve(solution.closed, open: solution.open, volts: volts, scale: scale))
        end
    end
  end
end
