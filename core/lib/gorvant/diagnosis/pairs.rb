# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # Two faults at once, where nothing alone explains what was read: the few that each explain most of it are put
    # together and solved, in the calls that have evidence.
    class Pairs
      # members: [Hypothesis]; explains: [Clue] that the two together would give; weight: against none of these, 1.0 as
      # much.
      Pair = Value.define(:members, :explains, :weight)
      FITS = 0.5 # of an answer, from which it is what a hypothesis gives

      # finder: Finder whose evidence is to be explained.
      def initialize(finder)
        @finder = finder
        @library = finder.library
        @evidence = finder.evidence
        @numbers = Diagnosis.numbers.fetch("pairs")
      end

      # [Pair], those that explain most first; only such as explain more than either member alone.
      def all = @finder.once(:pairs) { found }

      private

      def found
        chosen
          .filter_map { |first, second| pair(first, second) }
          .sort_by
          .with_index { |pair, i| [-pair.explains.size, -pair.weight, i] }
          .first(@numbers["shown"])
      end

      # [[index, index]]: those that explain most, each with those that explain most of what it leaves.
      def chosen
        leading = best(faults, @evidence).first(@numbers["leading"])
        pairs =
          leading.flat_map do |first|
            left = @evidence - explained(first)
            others = faults.reject { |i| @library.remedies[i] == @library.remedies[first] }
            best(others, left).first(@numbers["members"]).map { |second| [first, second].sort }
          end
        pairs.uniq.first(@numbers["most"])
      end

      # Single faults, one a remedy.
      def faults =
        @faults ||=
          @library.hypotheses.each_index.select do |i|
            @library.hypotheses[i].condemns? && !@library.hypotheses[i].steady
          end

      # Of these, those that explain most of this evidence first.
      def best(indexes, evidence)
        indexes
          .sort_by { |i| [-(explained(i) & evidence).sum { |clue| surprise(clue) }, -@library.hypotheses[i].share, i] }
          .uniq { |i| @library.remedies[i] }
      end

      def explained(index) = (@explained ||= {})[index] ||= explained_by(index)

      def explained_by(index)
        @evidence.each_index.select { |e| @finder.beliefs.roughly(e)[index] >= FITS }.map { |e| @evidence[e] }
      end

      # How little a sound unit gives of it: what needs explaining counts most.
      def surprise(clue) = (@surprises ||= {}.compare_by_identity)[clue] ||= surprise_of(clue)

      def surprise_of(clue)
        sound = @finder.beliefs.roughly(@evidence.index(clue))[@library.index("nothing")]
        1.0 - [sound, 1.0].min + 0.1
      end

      def pair(first, second)
        members = [first, second].map { |i| @library.hypotheses[i] }
        both =
          members[0].with(
            id: members.map(&:id).join("+"),
            faults: members.flat_map(&:faults),
            senses: members[0].senses.merge(members[1].senses),
            at: nil
          )
        rows = @evidence.map { |clue| row(clue, both) }
        explains =
          @evidence.each_index.select { |e| @evidence[e].roughly_weighed(rows[e]) >= FITS }.map { |e| @evidence[e] }
        return nil if explains.size <= [first, second].map { |i| explained(i).size }.max

        Pair.new(members: members, explains: explains, weight: weight(rows, first, second))
      rescue BadCondition, UnknownNode, UnknownBranch
        nil
      end

      # [P(cell)] of what was read, with both.
      def row(clue, both) = clue.column.scale.row(@library.code_of(both, clue.test, clue.condition).to_s)

      # Shares and readings of the two, against those of none of these.
      def weight(rows, first, second)
        own =
          @evidence.zip(rows).map { |clue, row| clue.weighed(row) }.inject(:*) * @finder.beliefs.before[first] *
            @finder.beliefs.before[second]
        none = @finder.beliefs.likelihoods.map(&:last).inject(:*) * @finder.beliefs.before.last
        none.zero? ? own : own / none
      end
    end
  end
end
