# frozen_string_literal: true

module Gorvant
  # One plan with one set of fixed values written out as Ruby, without a loop or an array access: for a section that is
  # solved hundreds of times. It does what Plan#factor and Plan#substitute do, in the same order, with the fixed part as
  # literals.
  class StraightLine
    # plan: Plan. base: [diagonal, off] with the fixed pivots factored. switching: [[from, to, slot, siemens]].
    # sources: [[from, to, siemens]] of positions (nil for the reference). first_right: as for Plan#substitute.
    def initialize(plan, base, switching, sources, first_right)
      @plan = plan
      @diagonal, @off = base
      @switching = switching
      @sources = sources
      @first_right = first_right
      @fixed = plan.fixed_count
      @solve = instance_eval(source, __FILE__, __LINE__) # numbers and positions only: nothing from outside is in it
    end

    # flags: whether each switching branch is closed. volts: the sources' electromotive forces. Unknowns by position.
    def solve(flags, volts) = @solve.call(flags, volts)

    private

    def source =
      [
        "lambda do |c, e|",
        *values,
        *stamps,
        *factors,
        *currents,
        *forward,
        *back,
        "[#{(0...@plan.size).map { |p| "x#{p}" }.join(",")}]",
        "end"
      ].join("\n")

    def moving = @fixed...@plan.size
    def slots(pivot) = @plan.pointers[pivot]...@plan.pointers[pivot + 1]
    def driven = @first_right...@plan.size

    def values
      moving.map { |pivot| "d#{pivot}=#{@diagonal[pivot]}" } +
        (@plan.pointers[@fixed]...@plan.slot_count).map { |slot| "o#{slot}=#{@off[slot]}" }
    end

    def stamps
      @switching.each_with_index.map do |(from, to, slot, siemens), i|
        adds = [
          ("d#{from}+=#{siemens}" if from),
          ("d#{to}+=#{siemens}" if to),
          ("o#{slot}-=#{siemens}" if slot)
        ].compact
        "if c[#{i}]\n#{adds.join("\n")}\nend"
      end
    end

    def factors
      moving.flat_map do |pivot|
        target = @plan.target_starts[pivot]
        ["i=1.0/d#{pivot}"] +
          slots(pivot).flat_map do |slot|
            others = ((slot + 1)...slots(pivot).end).map { |other| "o#{@plan.targets[(target += 1) - 1]}-=r*o#{other}" }
            ["r=o#{slot}*i", "d#{@plan.columns[slot]}-=r*o#{slot}", *others, "o#{slot}=r"]
          end
      end
    end

    def currents
      driven.map { |position| "b#{position}=0.0" } +
        @sources.each_with_index.flat_map do |(from, to, siemens), i|
          ["a=e[#{i}]*#{siemens}", ("b#{to}+=a" if to), ("b#{from}-=a" if from)].compact
        end
    end

    def forward
      driven.flat_map do |pivot|
        slots(pivot).map { |slot| "b#{@plan.columns[slot]}-=o#{slot}*b#{pivot}" } + ["b#{pivot}/=d#{pivot}"]
      end
    end

    def back
      (0...@plan.size).reverse_each.map do |pivot|
        terms =
          slots(pivot).map { |slot| "-#{pivot < @fixed ? "(#{@off[slot]})" : "o#{slot}"}*x#{@plan.columns[slot]}" }
        "x#{pivot}=#{pivot >= @first_right ? "b#{pivot}" : "0.0"}#{terms.join}"
      end
    end
  end
end
