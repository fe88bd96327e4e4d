# frozen_string_literal: true

module Gorvant
  # How to solve one topology: a minimum-degree order of elimination and flat arrays of what to do at each pivot, worked
  # out once and used for every set of values (sparse LDLᵀ of a symmetric matrix). Values may be Float or Complex.
  # Source: George and Liu (1981), Computer Solution of Large Sparse Positive Definite Systems.
  class Plan
    TAKEN = 1 << 40 # key of an unknown that has its place; above all others

    attr_reader :size, :position, :slots, :fixed_count, :pointers, :columns, :targets, :target_starts

    # size: number of unknowns. pairs: [[i, j]] of unknowns that some branch joins. fixed: unknowns whose branches never
    # switch; eliminated first, so that their part is factored once for all contact states. last: unknowns that carry a
    # source; eliminated at the end, so that the forward pass has next to nothing to do. akin: a plan of the same
    # unknowns with other branches, whose order will do.
    def initialize(size, pairs, fixed: [], last: [], akin: nil)
      @size = size
      @fixed_count = (fixed - last).size
      akin ? follow(neighbors(pairs), akin.sequence) : order(neighbors(pairs), fixed, last)
      flatten
      freeze
    end

    # Slot in the off-diagonal array for unknowns i and j.
    def slot(row, column)
      first, second = [position[row], position[column]].minmax
      slots.fetch((first * size) + second)
    end

    def slot_count = @columns.size
    # Unknowns in the order of their elimination.
    def sequence = position.each_index.sort_by { |node| position[node] }

    # rubocop:disable Metrics/MethodLength, Metrics/AbcSize -- a method in the two inner loops would cost what they save
    # Factors pivots from (inclusive) to (exclusive) in place: diagonal by position, off by slot, which then holds the
    # ratios. This is the innermost loop of the product: flat arrays and while loops on purpose.
    def factor(diagonal, off, from = 0, to = size)
      pointers = @pointers
      columns = @columns
      targets = @targets
      pivot = from
      slot = pointers[from]
      target = @target_starts[from]
      while pivot < to
        finish = pointers[pivot + 1]
        if finish == slot + 1 # one later neighbor: most of a wiring diagram
          value = off[slot]
          unless value == 0.0
            ratio = off[slot] = value / diagonal[pivot]
            diagonal[columns[slot]] -= ratio * value
          end
          slot = finish
        else
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
        end
        pivot += 1
      end
    end

    # Forward and back substitution with what `factor` left; right is by position and overwritten with the unknowns.
    # first_right: no value before this position is other than zero.
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
      pivot = size - 1
      slot = @columns.size - 1
      while pivot >= 0
        start = pointers[pivot]
        if start == slot
          right[pivot] -= off[slot] * right[columns[slot]]
          slot -= 1
        else
          value = right[pivot]
          while slot >= start
            value -= off[slot] * right[columns[slot]]
            slot -= 1
          end
          right[pivot] = value
        end
        pivot -= 1
      end
      right
    end
    # rubocop:enable Metrics/MethodLength, Metrics/AbcSize

    private

    def neighbors(pairs)
      sets = Array.new(size) { {} }
      pairs.each { |i, j| sets[i][j] = sets[j][i] = true }
      sets
    end

    # Minimum degree, ties by index; fixed unknowns before the others, those of `last` at the end.
    def order(sets, fixed, last)
      rank = Array.new(size, size * 2)
      fixed.each { |node| rank[node] = 0 }
      last.each { |node| rank[node] = size * 4 }
      keys = Array.new(size) { |node| rank[node] + sets[node].size }
      @position = Array.new(size)
      @lists = []
      while @lists.size < size
        pivot = lowest(keys)
        keys[pivot] = TAKEN
        eliminate(pivot, sets).each { |node| keys[node] = rank[node] + sets[node].size }
      end
    end

    # The order of another plan.
    def follow(sets, sequence)
      @position = Array.new(size)
      @lists = []
      sequence.each { |pivot| eliminate(pivot, sets) }
    end

    # Takes an unknown out and joins those that it stood between. Returns them.
    def eliminate(pivot, sets)
      @position[pivot] = @lists.size
      later = sets[pivot].keys
      @lists << later
      later.each { |node| sets[node].delete(pivot) }
      later.each_with_index { |i, at| later.drop(at + 1).each { |j| sets[i][j] = sets[j][i] = true } } if later.size > 1
      later
    end

    # First index of the least key.
    def lowest(keys)
      best = 0
      index = 1
      while index < keys.size
        best = index if keys[index] < keys[best]
        index += 1
      end
      best
    end

    # Each column of each pivot has its place in one list.
    def number(columns_of)
      @pointers = [0]
      @columns = []
      @slots = {}
      columns_of.each_with_index do |columns, pivot|
        columns.each { |column| @slots[(pivot * size) + column] = @columns.push(column).size - 1 }
        @pointers << @columns.size
      end
    end

    def flatten
      columns_of = @lists.map { |later| later.map { |node| @position[node] }.sort }
      number(columns_of)
      pairs = columns_of.map { |columns| columns.size == 1 ? [] : columns.combination(2).to_a }
      @target_starts = pairs.inject([0]) { |starts, list| starts << (starts.last + list.size) }
      @targets = pairs.flatten(1).map { |i, j| @slots.fetch((i * size) + j) }
      remove_instance_variable(:@lists)
    end
  end
end
