# frozen_string_literal: true

module Gorvant
  # What a mistyped word may have been, of the words that a crew uses: one letter too many, missing, other, or two
  # neighbors changed about count as one slip each. Source: docs/sources.md, string-alignment.
  module Misspelling
    MOST_CHARACTERS = 30
    LONG = 8 # letters from which two slips are allowed

    class << self
      # The nearest of the known words, all that are equally near; [] where none is near enough.
      def of(word, known)
        return [] if word.size > MOST_CHARACTERS || word.size < 3

        most = word.size < LONG ? 1 : 2
        near = known.filter_map { |other| (slips = within(word, other, most)) && [other, slips] }
        least = near.map(&:last).min
        near.select { |_other, slips| slips == least }.map(&:first)
      end

      # Slips between two words, nil where there are more than `most`.
      def within(word, other, most)
        return nil if (word.size - other.size).abs > most
        return 0 if word == other

        slips = distance(word.chars, other.chars)
        slips <= most ? slips : nil
      end

      private

      def distance(one, two)
        before = nil
        last = (0..two.size).to_a
        one.each_with_index do |letter, i|
          row = [i + 1]
          two.each_with_index do |other, j|
            cost = [last[j + 1] + 1, row[j] + 1, last[j] + (letter == other ? 0 : 1)].min
            changed_about = i.positive? && j.positive? && letter == two[j - 1] && one[i - 1] == other
            row << (changed_about ? [cost, before[j - 1] + 1].min : cost)
          end
          before, last = last, row
        end
        last.last
      end
    end
  end
end
