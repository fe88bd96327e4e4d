# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # What a person may bring back from a test, and how probable each answer is where the unit itself shows a code.
    # Codes are what the circuit gives (a bin of volts, a choice); answers what is told of it.
    class Scale
      UNKNOWN = "?"
      GHOST = "ghost"
      UNSTEADY = "unsteady"

      attr_reader :name, :answers

      def initialize(name, answers, misread)
        @name = name
        @answers = answers
        @misread = misread
        @rows = {}
      end

      class << self
        # The code of what shows otherwise, the more or less of it there is: "less|usual|more".
        def of_amounts(codes) = codes.uniq.one? ? codes.first : codes.join("|")
        # The codes of such a code, and which of them is usual; of any other itself, of none of these nothing.
        def amounts(code) = code.to_s.include?("|") && !code.include?("+") ? code.split("|") : [code].compact
        def usual(code) = amounts(code).then { |codes| codes.size > 1 ? codes[1] : code }

        def volts = Volts.new
        def choice(answers) = new("choice", answers, Diagnosis.numbers.dig("misread", "seen"))
        def ohms = @ohms ||= new("ohms", %w[open joined winding shorted], Diagnosis.numbers.dig("misread", "ohms"))

        def microfarads =
          @microfarads ||= new("microfarads", %w[none weak as_marked], Diagnosis.numbers.dig("misread", "microfarads"))

        def fact(values) = new("fact", values, Diagnosis.numbers.dig("misread", "fact"))
        def minutes = new("minutes", %w[within over], Diagnosis.numbers.dig("misread", "minutes"))
      end

      # [P(answer)] in the order of answers; "a+b" is either, as an intermittent has it, "a|b|c" any, as what there may
      # be more or less of has it.
      def row(code) = @rows[code] ||= weighed(stands(code)).freeze

      # [[P(answer)]] for each stand of the supply (Supply), where the answer hangs on it; else one for all.
      def stands(code) = (@stands ||= {})[code] ||= reckon(code).freeze

      # P(this answer and misread), whatever the unit shows.
      def slip = @misread / answers.size

      # Bits of what the answers themselves leave open where the code is known.
      def bits(code) = (@bits ||= {})[code] ||= Scale.entropy(row(code))

      def self.entropy(row) = -row.sum { |share| share.positive? ? share * Math.log2(share) : 0.0 }

      private

      def weighed(rows)
        return rows.first if rows.one?

        answers.each_index.map { |answer| Supply.mean(rows.map { |row| row[answer] }) }
      end

      def reckon(code)
        several = %w[+ |].find { |sign| code.include?(sign) }
        return together(code.split(several)) if several

        even = 1.0 / answers.size
        spreads(code).map { |plain| plain.map { |share| (share * (1 - @misread)) + (even * @misread) } }
      end

      def together(codes)
        parts = codes.map { |part| stands(part) }
        Array.new(parts.map(&:size).max) { |stand| mean(parts.map { |rows| rows[stand] || rows[0] }) }
      end

      def mean(rows) = rows.transpose.map { |shares| shares.sum / shares.size }

      # [[P(answer)]] by the stand of the supply, before any misreading.
      def spreads(code)
        return [answers.map { 1.0 / answers.size }] if code == UNKNOWN
        return [shares(Diagnosis.numbers.dig("choices", code))] if Diagnosis.numbers.fetch("choices").key?(code)

        [answers.map { |answer| answer.to_s == code ? 1.0 : 0.0 }]
      end

      def shares(table) = answers.map { |answer| table.fetch(answer, 0.0) }
    end

    # Volts by the class that a meter shows. A code is the bin of what the circuit gives, so that what stands at the
    # edge of a class may be told as either.
    class Volts < Scale
      attr_reader :edges

      def initialize
        @edges = Diagnosis.numbers.fetch("volts")
        @bins = Diagnosis.numbers.fetch("volts_bins")
        @spreads = Diagnosis.numbers.fetch("volts_spread")
        super("volts", @edges.keys, Diagnosis.numbers.dig("misread", "volts"))
      end

      # The bin of volts that are held.
      def code(volts) = "b#{@bins.bsearch_index { |edge| volts < edge } || @bins.size}"

      # The class of what was read.
      def answer(volts) = @edges.find { |_class, most| volts < most }&.first || @edges.keys.last

      # [share] of the answers for an amount that may be a range.
      def told(low, high)
        return answers.map { |one| one == answer(low) ? 1.0 : 0.0 } if high <= low

        from = 0.0
        answers.map do |one|
          upto = @edges.fetch(one)
          inside = [[high, upto].min - [low, from].max, 0.0].max
          from = upto
          inside.positive? ? 1.0 : 0.0
        end
      end

      private

      def spreads(code)
        return [shares(Diagnosis.numbers.fetch("ghost"))] if code == GHOST
        return [shares(Diagnosis.numbers.fetch("unsteady"))] if code == UNSTEADY
        return super unless code.start_with?("b")

        index = code.delete_prefix("b").to_i
        low = index.zero? ? 0.0 : @bins[index - 1]
        high = @bins[index] || (@bins.last * 1.6)
        middle = (low + high) / 2
        half = middle * @spreads.fetch(full?(middle) ? "near_full" : "between")
        Supply.factors.map { |factor| around(middle * factor, half) }
      end

      def full?(volts) = volts > 21.2 || volts < 1.0

      # Even over middle ± half.
      def around(middle, half)
        return answers.map { |one| one == answer(middle) ? 1.0 : 0.0 } if half.zero?

        from = 0.0
        answers.map do |one|
          upto = @edges.fetch(one)
          inside = [[middle + half, upto].min - [middle - half, from].max, 0.0].max
          from = upto
          inside / (2 * half)
        end
      end
    end
  end
end
