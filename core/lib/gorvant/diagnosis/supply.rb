# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # What one unit's transformer gives of what it should: unknown, but the same in everything that is read of it. Two
    # readings that are low by the same few percent are one piece of news, not two.
    module Supply
      # [part of what it should give], by stand
      def self.factors = @factors ||= Diagnosis.numbers.fetch("supply_stands").map(&:first).freeze

      def self.size = factors.size

      # [P(stand)]
      def self.shares = @shares ||= Diagnosis.numbers.fetch("supply_stands").map(&:last).freeze

      # The mean of what is given for each stand.
      def self.mean(values) = values.each_with_index.sum { |value, stand| value * shares[stand] }

      # Hypotheses and stands together, after what was read.
      class Joint
        # weights: [[weight of each hypothesis]] by stand, shares included.
        def initialize(weights)
          total = weights.sum(&:sum)
          @rows = weights.map { |row| row.map { |weight| total.zero? ? 0.0 : weight / total } }
          @sums = @rows.map(&:sum)
        end

        # Whether so much was told against everything that nothing is left to weigh.
        def empty? = @sums.all?(&:zero?)

        # [belief], the supply left out.
        def beliefs = @rows.transpose.map(&:sum)

        # Bits that one more answer of this column is expected to bring: what the supply explains is no news.
        def gain(column)
          none = @rows.sum(&:last)
          answers = column.none.map { |part| part * none }
          open = none * column.none_bits
          parts(column).each do |code, weights|
            told, bits = expected(column.scale, code, weights)
            told.each_with_index { |part, a| answers[a] += part }
            open += bits
          end
          Scale.entropy(answers) - open
        end

        private

        # [[code, [share by stand]]]: the commonest has what the others leave.
        def parts(column)
          left = @sums.each_with_index.map { |sum, stand| sum - @rows[stand].last }
          others =
            column.others.map do |_row, _bits, list|
              weights = @rows.map { |row| list.sum(0.0) { |i| row[i] } }
              weights.each_with_index { |weight, stand| left[stand] -= weight }
              [column.codes[list.first], weights]
            end
          [[column.common_code, left.map { |weight| [weight, 0.0].max }], *others]
        end

        # [P(cell and code)], and the bits that stay open where the code is known.
        def expected(scale, code, weights)
          share = weights.sum
          rows = scale.stands(code)
          return rows.first.map { |part| part * share }, share * scale.bits(code) if rows.one?

          told = Array.new(scale.answer_of.size, 0.0)
          weights.each_with_index { |weight, stand| rows[stand].each_with_index { |part, a| told[a] += part * weight } }
          share.zero? ? [told, 0.0] : [told, share * Scale.entropy(told.map { |part| part / share })]
        end
      end
    end
  end
end
