# frozen_string_literal: true

module Gorvant
  module Notation
    # Whether the rig that was built has the rungs that were typed: what a unit of this kind cannot have is told at its
    # word.
    class Proof
      # built: Rig; typed: [Rung].
      def initialize(built, typed)
        @rungs = Printer.new(built).rungs
        @typed = typed
      end

      def problems = @typed.select(&:load).flat_map { |rung| of(rung) }.first(20)

      private

      def of(rung)
        code = rung.load.text.delete("()")
        known = @rungs[code] or return [blame(rung.load, "is not fitted on a unit with these rungs")]
        main = plain(rung.feeds.first)
        rung.feeds.each_with_index.filter_map do |words, i|
          typed = i.zero? ? main : joined(words, main)
          unless known.any? { |feed| matches?(typed, feed.plain) } || (known.empty? && typed == ["R"])
            wrong(words, typed, known.map(&:plain))
          end
        end
      end

      def plain(words) = words.reject { |word| word.load? || word.text == "C" }.map(&:text)

      # Another feed, with the rest of the first from where it joins.
      def joined(words, main)
        own = plain(words)
        at = main.rindex(own.last)
        words.last.load? || at.nil? ? own : own + main.drop(at + 1)
      end

      # The tap may be left unsaid.
      def matches?(typed, known) = typed == known || typed == known - ["T1"]

      def wrong(words, typed, known)
        best = known.max_by { |feed| shared(typed, feed) } || ["R"]
        best -= ["T1"] unless typed.include?("T1")
        at = shared(typed, best)
        word = words.find { |one| one.text == typed[at] } || words.find(&:load?) || words.last
        before = typed[at - 1] || "R"
        blame(
          word,
          best[at] ? "cannot follow #{before} here; on this unit #{best[at]} does" : "cannot follow #{before} here",
          best[at]
        )
      end

      def shared(one, other) = one.zip(other).take_while { |a, b| a == b }.size

      def blame(word, says, suggestion = nil)
        {
          "line" => word.line,
          "column" => word.column,
          "length" => word.length,
          "word" => word.text,
          "problem" => says,
          "suggestion" => suggestion
        }
      end
    end
  end
end
