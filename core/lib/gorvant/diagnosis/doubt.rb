# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # The reading to make once more before it is believed, for whoever made it may well read otherwise now. why: "slip"
    # where by all the others it was misread more probably than not; "alone" where nothing alone explains all of it, and
    # one thing would explain the rest.
    Doubt = Value.define(:clue, :why) { def test = clue.test }

    class << Doubt
      # Of all that a Finder was told; nil where nothing is doubtful, where it was read twice, and among too few.
      def of(finder)
        evidence = finder.evidence
        return nil if evidence.size < Diagnosis.numbers.dig("doubt", "from") || finder.sure?

        told, why = finder.unexplained? ? [alone(finder), "alone"] : [slip(finder), "slip"]
        told && once?(evidence, told) ? new(clue: evidence[told], why: why) : nil
      end

      private

      def once?(evidence, told) = evidence.one? { |one| one.test.id == evidence[told].test.id }

      # The number of the one that was misread more probably than not.
      def slip(finder)
        told = finder.evidence.each_index.max_by { |e| [finder.beliefs.misread(e), -e] }
        finder.beliefs.misread(told) < Diagnosis.numbers.dig("doubt", "above") ? nil : told
      end

      # The number of the one without which none of these would weigh little.
      def alone(finder)
        left = finder.evidence.each_index.map { |e| finder.beliefs.none_without(e) }
        least = left.min
        least < finder.beliefs.all.last * Diagnosis.numbers.dig("doubt", "left") ? left.index(least) : nil
      end
    end
  end
end
