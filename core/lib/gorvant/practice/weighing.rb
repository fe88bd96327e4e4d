# frozen_string_literal: true

module Gorvant
  module Practice
    # What the readings of a bench come to, as Find weighs them: one Clue for each outcome that tells something.
    class Weighing
      # What an answer has to weigh under the truth itself, or it was read while things were still moving.
      LEAST = 0.02

      attr_reader :library, :drill

      # library: Diagnosis::Library of the drill's unit as drawn.
      def initialize(drill, library)
        @drill = drill
        @library = library
        @clues = Diagnosis::Clues.new(library)
      end

      # [index] of the hypotheses that are so; those that only a pair or another unit has are left out.
      def truth =
        @truth ||= drill.truth.hypotheses.filter_map { |one| @library.hypotheses.find_index { |h| h.id == one.id } }

      # [Diagnosis::Clue] of an outcome that fit a steady unit: what was read, and what the same look tells of a wait
      # that is over.
      def clues(outcome) = told(outcome).select { |clue| steady?(clue) }

      # The same, with what was read while things were still moving.
      def told(outcome)
        return [] unless outcome.observation

        clue = @clues.of(outcome.observation, outcome.condition, minutes: outcome.stopped_minutes)
        [clue, waited(outcome)].compact
      end

      # Whether what was read fits the truth at all: a sequencer on its way, a blower that runs on, does not.
      def steady?(clue)
        truth.empty? || clue.told_of.empty? || truth.any? { |i| weight(clue, i) >= LEAST } || drill.truth.spells
      end

      def finder(clues, standing = nil)
        Diagnosis::Finder.new(
          @library,
          symptoms: drill.symptoms,
          evidence: clues,
          stands: standing&.place,
          call: standing&.call
        )
      end

      # How probable what is so is, by these beliefs: the remedy of any of it.
      def belief(beliefs)
        right = remedies
        beliefs.all.each_index.sum { |i| right.include?(@library.remedies[i]) ? beliefs[i] : 0.0 }
      end

      # Whether a decision names all that is so, to every test or to the repair, and nothing beside.
      def right?(decision) =
        decision.all? { |index| which(index) } && truth.each_index.all? { |w| decision.any? { |i| which(i) == w } }

      # Whether what was read proves what is so: one thing by its belief; two at once where nothing but the two
      # explains it.
      def proved?(finder)
        return belief(finder.beliefs) >= Practice.numbers.dig("score", "proved_from") if truth.size == 1

        finder.pairs.all.any? { |pair| right?(pair.members.map { |one| @library.index(one.id) }) }
      end

      # Which of what is so a hypothesis is, nil for none of it.
      def which(index) = truth.find_index { |i| same?(i, index) }

      def same?(first, second) =
        @library.class_of[first] == @library.class_of[second] || @library.remedies[first] == @library.remedies[second]

      private

      def waited(outcome)
        place, choice = outcome.also
        test =
          place &&
            @library.tests.find do |one|
              one.place == place && one.state == outcome.condition.call && one.function == "seen"
            end
        test && test.scale.answers.include?(choice) ? @clues.answered(test, choice) : nil
      end

      def remedies = @remedies ||= truth.map { |i| @library.remedies[i] }

      def weight(clue, index)
        code = clue.column.codes[index]
        clue.roughly_weighed(code ? clue.column.scale.row(code) : clue.column.none)
      end
    end
  end
end
