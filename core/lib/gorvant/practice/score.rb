# frozen_string_literal: true

module Gorvant
  module Practice
    # What a free bench came to. lines: [{ part, of, got, says }]; marks: of a hundred; right, proved: whether; belief:
    # how probable the truth is after what was read.
    Score = Value.define(:marks, :right, :proved, :belief, :lines, :tests, :minutes, :walks, :unsafe, :swapped)

    class Score
      READS = %w[volts ohms look settings landings sensor degrees since_stop force].freeze

      # weighing: Weighing of the drill; outcomes: [[Act, Bench::Outcome]] in order; decision: ids of hypotheses.
      def self.of(weighing, outcomes, decision) = Reckoner.new(weighing, outcomes, decision).score

      # Puts the marks together.
      class Reckoner
        SAYS = {
          "tests" => "tests",
          "minutes" => "minutes_spent",
          "walks" => "walks",
          "unsafe" => "unsafe",
          "swapped" => "swapped_sound"
        }.freeze

        def initialize(weighing, outcomes, decision)
          @weighing = weighing
          @drill = weighing.drill
          @outcomes = outcomes
          @numbers = Practice.numbers.dig("score", "find")
          known = weighing.library.hypotheses.each_with_index.to_h { |one, i| [one.id, i] }
          @decision = decision.map { |id| known.fetch(id) }
          @clues = outcomes.flat_map { |_act, outcome| weighing.clues(outcome) }
        end

        def score
          lines = [*cause, *economy, *against]
          Score.new(
            marks: lines.sum { |line| line["got"] }.round.clamp(0, 100),
            right: right?,
            proved: proved?,
            belief: belief,
            lines: lines,
            tests: tests,
            minutes: standing.seconds / 60,
            walks: standing.walks,
            unsafe: unsafe,
            swapped: swapped
          )
        end

        private

        def right? = !@decision.empty? && @weighing.right?(@decision)
        def standing = @outcomes.empty? ? Bench.new(@drill).start : @outcomes.last[1].standing
        def finder = @finder ||= @weighing.finder(@clues, standing)
        def belief = @belief ||= @weighing.belief(finder.beliefs)
        def unsafe = @outcomes.count { |_act, outcome| outcome.stopped }

        # Sound parts that were changed.
        def swapped =
          @outcomes.count do |act, outcome|
            act.kind == "swap" && outcome.stopped.nil? &&
              @drill.truth.faults.none? { |fault| Bench.of_part?(fault, act["part"]) }
          end

        def proved? = right? && @weighing.proved?(finder)

        # What looked at the part that is named, right before it was, costs nothing.
        def tests
          reads = @outcomes.select { |act, outcome| READS.include?(act.kind) && outcome.stopped.nil? }
          reads.size - (confirmed?(reads.last) ? 1 : 0)
        end

        def confirmed?(last)
          return false unless last && @decision.any?

          direct = Diagnosis::Direct.new(@weighing.library)
          @weighing.told(last[1]).any? { |clue| direct.to?(clue.test, @decision) }
        end

        def cause
          got = right? ? @numbers["right"] : near
          [
            line("right", @numbers["right"], got, right? ? "practice.right" : "practice.wrong"),
            line("proved", @numbers["proved"], proved? ? @numbers["proved"] : 0, proved? ? "practice.proved" : guessed)
          ]
        end

        def guessed = right? ? "practice.guessed" : "practice.not_proved"

        # The right part, with something else the matter with it; one of two.
        def near
          hit = @decision.any? { |i| @weighing.which(i) || part_of_truth?(i) }
          hit ? @numbers["same_part"] : 0
        end

        def part_of_truth?(index)
          at = @weighing.library.hypotheses[index].at
          at && @weighing.truth.any? { |i| @weighing.library.hypotheses[i].at == at }
        end

        # Few tests, minutes and walks count where they proved what is so: whoever guesses has saved nothing.
        def economy
          par = @drill.par
          [
            ["tests", tests, par.tests],
            ["minutes", standing.seconds / 60, par.minutes],
            ["walks", standing.walks, par.walks]
          ].map do |part, mine, best|
            of = @numbers[part]
            share = proved? ? [(best + 1) * @numbers["slack"] / (mine + 1), 1.0].min : 0.0
            line(
              part,
              of,
              of * share,
              "practice.#{SAYS.fetch(part)}",
              mine: format("%g", mine.round),
              par: format("%g", best.round)
            )
          end
        end

        def against
          [["unsafe", unsafe], ["swapped", swapped]].filter_map do |part, count|
            line(part, 0, -@numbers[part] * count, "practice.#{SAYS.fetch(part)}", count: count) if count.positive?
          end
        end

        def line(part, of, got, key, **fields)
          { "part" => part, "of" => of, "got" => got.round(1), "says" => Catalogue.words(key, **fields) }
        end
      end
    end
  end
end
