# frozen_string_literal: true

module Gorvant
  # What a meter finds on conductors that nothing holds: the divider that cable capacitance makes between them and their
  # live neighbors. Each floating set is one unknown; sets inside carry no drop worth reading.
  # Source: docs/sources.md, ghost-voltage.
  class Ghosts
    # solution: a settled Solution.
    def initialize(solution)
      @solution = solution
      sets = solution.islands.floating
      @roots = sets.keys
      solve_divider
    end

    # Open-circuit volts of the floating set that holds the node.
    def volts(node) = @open_volts[index(node)] || 0.0

    # Reactance in ohms seen between two points, of which at least one floats (nil for one that is held).
    def reactance_ohms(first, second)
      i = first && index(first)
      j = second && index(second)
      elastance = (i ? @elastance[i][i] : 0.0) + (j ? @elastance[j][j] : 0.0) - (i && j ? 2 * @elastance[i][j] : 0.0)
      elastance / (2 * Math::PI * Catalogue.profile.fetch("supply").fetch("frequency_hz"))
    end

    private

    def index(node) = @roots.index(@solution.islands.root(node))

    # Capacitance matrix of the floating sets, its inverse (elastance), and the volts it gives.
    def solve_divider
      count = @roots.size
      stray = Catalogue.profile.fetch("cable").fetch("stray_picofarads") * 1e-12
      matrix = Array.new(count) { |i| Array.new(count) { |j| i == j ? stray : 0.0 } }
      drive = Array.new(count, 0.0)
      @solution.netlist.couplings.each { |branch| couple(branch, matrix, drive) }
      @elastance = invert(matrix)
      @open_volts = @elastance.map { |row| row.zip(drive).sum { |value, charge| value * charge } }
    end

    def couple(branch, matrix, drive)
      ends = [branch.from, branch.to]
      indexes = ends.map { |node| @solution.floating?(node) ? index(node) : nil }
      farads = branch[:farads]
      return if indexes[0] == indexes[1] # the same set, or both held

      indexes.each { |i| matrix[i][i] += farads if i }
      if indexes.all?
        i, j = indexes
        matrix[i][j] -= farads
        matrix[j][i] -= farads
      else
        floating = indexes.index { |i| i }
        drive[indexes[floating]] += farads * @solution.volts[ends[1 - floating]]
      end
    end

    # Gauss–Jordan; the matrix is diagonally dominant, so no pivoting is needed.
    def invert(matrix)
      size = matrix.size
      rows = matrix.each_with_index.map { |row, i| row.map(&:itself) + Array.new(size) { |j| i == j ? 1.0 : 0.0 } }
      size.times do |pivot|
        lead = rows[pivot][pivot]
        rows[pivot].map! { |value| value / lead }
        size.times do |i|
          next if i == pivot || rows[i][pivot].zero?

          factor = rows[i][pivot]
          rows[i] = rows[i].zip(rows[pivot]).map { |value, own| value - (factor * own) }
        end
      end
      rows.map { |row| row.drop(size) }
    end
  end
end
