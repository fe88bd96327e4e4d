# frozen_string_literal: true

module Gorvant
  # The fewest moves after which every call works: the smallest set of differences to put right, tried on the circuit.
  class Correction
    MOST_TRIED = 90

    # moves: sentences; differences: those put right; works: whether all calls do then; complete: whether fewer were
    # ruled out.
    Answer = Value.define(:moves, :differences, :works, :complete)

    # trials: of the rig put right; should: their outcomes as they ought to be.
    def initialize(trials, differences, should)
      @trials = trials
      @differences = differences
      @should = should
    end

    def answer
      @tried = 0
      subsets.each do |chosen|
        return found(chosen, true) if right?(@differences - chosen)
        break if (@tried += 1) >= MOST_TRIED
      end
      step_by_step
    end

    private

    def electrical = @electrical ||= @differences.reject { |difference| difference.faults.empty? }
    def right?(left) = @trials.right?(left.flat_map(&:faults), @should)
    def found(chosen, complete) =
      Answer.new(moves: chosen.flat_map(&:moves), differences: chosen, works: true, complete: complete)

    # Every set of differences, fewest moves first; settings before landings, since they cost least.
    def subsets
      return [], *electrical.combination(1), *electrical.combination(2), electrical if electrical.size > 9

      (0..electrical.size)
        .flat_map { |size| electrical.combination(size).to_a }
        .sort_by
        .with_index { |set, i| [set.sum { |one| one.moves.size }, set.count { |one| one.kind != "setting" }, i] }
    end

    # Too many to try all: all put right, then whatever can stay as it is stays.
    def step_by_step
      unless right?([])
        return Answer.new(moves: electrical.flat_map(&:moves), differences: electrical, works: false, complete: false)
      end

      kept = electrical.dup
      electrical.each { |one| kept -= [one] if right?(electrical - (kept - [one])) }
      found(kept, false)
    end
  end
end
