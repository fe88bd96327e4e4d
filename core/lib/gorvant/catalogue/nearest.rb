# frozen_string_literal: true

require "did_you_mean"

module Gorvant
  # What somebody may have meant. Guessing costs by the square of the length, and nobody mistypes that much: longer than
  # MOST_CHARACTERS is not guessed at.
  module Nearest
    MOST_CHARACTERS = 60

    class << self
      # One of the known words, or nil.
      def of(given, known)
        if given.to_s.size <= MOST_CHARACTERS
          DidYouMean::SpellChecker.new(dictionary: known.map(&:to_s)).correct(given.to_s).first
        else
          nil
        end
      end

      # The one with the fewest letters changed, however far off; nil only for what is not guessed at.
      def closest(given, known)
        return nil if given.to_s.size > MOST_CHARACTERS

        of(given, known) ||
          known.min_by { |word| DidYouMean::Levenshtein.distance(word.to_s.downcase, given.to_s.downcase) }
      end

      # What was given, for a sentence.
      def quoted(given) = given.to_s.size > MOST_CHARACTERS ? "#{given.to_s[0, MOST_CHARACTERS]}…" : given.to_s
    end
  end
end
