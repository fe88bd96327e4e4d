# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # The tests from here on, to take along where no device goes: a station a test, a branch an answer, a leaf what it
    # comes to. The likeliest ways are followed first, until the page is full; what is left leads back to Find.
    class RoadMap
      # Finder at this point of the way. answer: what led here, nil at the start; share: how probable the way is.
      Stop = Struct.new(:finder, :answer, :share, :choice, :branches, :depth, keyword_init: true)

      attr_reader :root

      # again: a block that makes a Finder with these clues beside those of the first.
      def initialize(finder, &again)
        @limits = Diagnosis.numbers.fetch("road_map")
        @again = again
        @clues = Clues.new(finder.library)
        @root = Stop.new(finder: finder, share: 1.0, depth: 0)
        @leaves = 1
        grow
      end

      private

      # The likeliest open end is followed next, as long as the page has room.
      def grow
        open = [[@root, []]]
        until open.empty?
          Patience.check!
          stop, told = open.max_by { |one, _told| one.share }
          open.delete_if { |one, _told| one.equal?(stop) }
          branch(stop, told).each { |child, clues| open << [child, clues] if child.depth < @limits["depth"] }
        end
      end

      # [[Stop, clues]] of a stop that has a test left and room for its answers.
      def branch(stop, told)
        choice = stop.finder.not_now? ? nil : stop.finder.next_test
        return [] unless choice

        children = answers(stop, choice.test).map { |answer, share| child(stop, told, choice.test, answer, share) }
        unexplained, others = children.partition { |child, _clues| unexplained?(child) }
        more = others.size + [unexplained.size, 1].min - 1
        return [] if @leaves + more > @limits["leaves"]

        @leaves += more
        stop.choice = choice
        stop.branches = children.map(&:first)
        others
      end

      # What nothing explains leads back to Find: such ways are not followed, and all of a station are one.
      def unexplained?(stop) = stop.finder.beliefs.all.last >= @limits["unexplained_from"]

      def child(stop, told, test, answer, share)
        clues = told + [@clues.answered(test, answer)]
        stop = Stop.new(finder: @again.call(clues), answer: answer, share: stop.share * share, depth: stop.depth + 1)
        [stop, clues]
      end

      # Answers that are probable enough to be drawn.
      def answers(stop, test)
        column = stop.finder.library.column(test)
        odds = stop.finder.beliefs.odds(column)
        column
          .scale
          .answers
          .zip(odds)
          .select { |_answer, share| share >= @limits["share"] }
          .sort_by
          .with_index { |(_answer, share), i| [-share, i] }
      end
    end
  end
end
