# frozen_string_literal: true

module Gorvant
  # How to solve one topology: a minimum-degree order of elimination and flat arrays of what to do at each pivot, worked
  # out once and used for every set of values (sparse LDLᵀ of a symmetric matrix). Values may be Float or Complex.
  # Source: George and Liu (1981), Computer Solution of Large Sparse Positive Definite Systems.
  class Plan
    attr_reader :size, :position, :slots

    # size: number of unknowns. pairs: [[i, j]] of unknowns that some branch joins. last: unknowns that carry a source;
    # eliminated at the end, so the forward pass has next to nothing to do.
    def initialize(size, pairs, last: [])
      @size = size
      order(neighbours(pairs), last)
      flatten
      freeze
    end

    # Slot in the off-diagonal array for unknowns i and j.
    def slot(row, column)
      first, second = [position[row], position[column]].minmax
      slots.fetch((first * size) + second)
    end

    def slot_count = @columns.size

    # Solves in place. diagonal and right are by position, off by slot; all are overwritten. Returns the unknowns by position.
    # This is the innermost loop of the product: flat arrays and while loops on purpose.
    def solve(diagonal, off, right, first_right = 0)
      pointers = @pointers
      columns = @columns
      targets = @targets
      size = @size
      pivot = slot = target = 0
      singles = @singles
      while pivot < singles # pivots with one later neighbour: most of a wiring diagram
        value = off[slot]
        unless value == 0.0
          ratio = off[slot] = value / diagonal[pivot]
          diagonal[columns[slot]] -= ratio * value
        end
        slot += 1
        pivot += 1
      end
      while pivot < size
        finish = pointers[pivot + 1]
        inverse = 1.0 / diagonal[pivot]
        while slot < finish
          value = off[slot]
          if value == 0.0
            target += finish - slot - 1
          else
            ratio = value * inverse
            diagonal[columns[slot]] -= ratio * value
            other = slot + 1
            while other < finish
              off[targets[target]] -= ratio * off[other]
              target += 1
              other += 1
            end
            off[slot] = ratio
          end
          slot += 1
        end
        pivot += 1
      end
      substitute(diagonal, off, right, first_right)
    end

    # Forward and back substitution with factors left by `solve`.
    def substitute(diagonal, off, right, first_right = 0)
      pointers = @pointers
      columns = @columns
      size = @size
      pivot = first_right
      while pivot < size
        value = right[pivot]
        unless value == 0.0
          slot = pointers[pivot]
          finish = pointers[pivot + 1]
          while slot < finish
            right[columns[slot]] -= off[slot] * value
            slot += 1
          end
          right[pivot] = value / diagonal[pivot]
        end
        pivot += 1
      end
      singles = @singles
      pivot = size - 1
      slot = @columns.size - 1
      while pivot >= singles
        start = pointers[pivot]
        value = right[pivot]
        while slot >= start
          value -= off[slot] * right[columns[slot]]
          slot -= 1
        end
        right[pivot] = value
        pivot -= 1
      end
      if first_right >= singles # nothing was driven before: the rest follows its one neighbour
        while slot >= 0
          right[slot] = -off[slot] * right[columns[slot]]
          slot -= 1
        end
      else
        while slot >= 0
          right[slot] -= off[slot] * right[columns[slot]]
          slot -= 1
        end
      end
      right
    end

    private

    def neighbours(pairs)
      sets = Array.new(size) { {} }
      pairs.each { |i, j| sets[i][j] = sets[j][i] = true }
      sets
    end

    # Minimum degree, ties by index; those in `last` wait until nothing else is left.
    def order(sets, last)
      held_back = Array.new(size, 0)
      last.each { |node| held_back[node] = 2 * size * size }
      remaining = (0...size).to_a
      @position = Array.new(size)
      @lists = []
      until remaining.empty?
        # An unknown that stands alone goes with the general pivots, so that the single ones stay exactly single.
        pivot = remaining.min_by { |node| held_back[node] + ((sets[node].empty? ? size : sets[node].size) * size) + node }
        remaining.delete(pivot)
        @position[pivot] = @lists.size
        later = sets[pivot].keys
        @lists << later
        later.each { |node| sets[node].delete(pivot) }
        later.combination(2) { |i, j| sets[i][j] = sets[j][i] = true }
      end
    end

    def flatten
      columns_of = @lists.map { |later| later.map { |node| @position[node] }.sort }
      @singles = columns_of.index { |columns| columns.size != 1 } || size
      @pointers = [0]
      @columns = []
      @slots = {}
      columns_of.each_with_index do |columns, pivot|
        columns.each { |column| @slots[(pivot * size) + column] = @columns.push(column).size - 1 }
        @pointers << @columns.size
      end
      @targets = columns_of.drop(@singles).flat_map { |columns| columns.combination(2).map { |i, j| @slots.fetch((i * size) + j) } }
      remove_instance_variable(:@lists)
    end
  end
end
