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

      # [P(cell)] in the order of cells; "a+b" is either, as an intermittent has it, "a|b|c" any, as what there may
      # be more or less of has it.
      def row(code) = @rows[code] ||= weighed(stands(code)).freeze

      # [[P(cell)]] for each stand of the supply (Supply), where the answer hangs on it; else one for all.
      def stands(code) = (@stands ||= {})[code] ||= reckon(code).freeze

      # The number of the answer that each cell is part of. Cells are what is told and weighed by: of amounts the parts
      # of an answer, of all else the answers themselves.
      def answer_of = @answer_of ||= (0...answers.size).to_a

      # [weight of each cell] where any of these answers was told.
      def telling(any_of)
        any_of = any_of.map(&:to_s)
        answer_of.map { |a| any_of.include?(answers[a].to_s) ? 1.0 : 0.0 }
      end

      # Answers that what was told, cell by cell, may have been.
      def told_of(cells) =
        answer_of.zip(cells).select { |_a, weight| weight.positive? }.map { |a, _weight| answers[a] }.uniq

      # [P(answer)] of a row by cells.
      def by_answer(row)
        return row if answer_of.size == answers.size

        answer_of.each_with_index.with_object(Array.new(answers.size, 0.0)) { |(a, cell), sums| sums[a] += row[cell] }
      end

      # [P(cell)] where nothing speaks for any answer: as much for each of them, and for each part of one.
      def even
        @even ||= answer_of.tally.then { |parts| answer_of.map { |a| 1.0 / answers.size / parts[a] } }.freeze
      end

      # P(told so and misread), whatever the unit shows.
      def slip(told) = @misread * even.zip(told).sum { |share, weight| share * weight }

      # P(all of these told) of one thing that was read so often: the unit shows the same each time, and each may be
      # misread by itself. What comes and goes may be met anew, or as it stood before: seen well ten times over, it is
      # not cleared.
      # row: [P(cell)] of the code.
      def often(row, code, tolds)
        return weigh(row, tolds.first) if tolds.one?
        return as_before(row, tolds) unless anew?(code)

        stays = Diagnosis.numbers.dig("intermittent", "stands_as_before")
        anew = tolds.inject(1.0) { |all, told| all * weigh(row, told) }
        (stays * as_before(row, tolds)) + ((1 - stays) * anew)
      end

      # P(told) of what was read once.
      def weigh(row, told) = row.each_with_index.sum { |share, cell| share * told[cell] }

      # Bits of what the answers themselves leave open where the code is known.
      def bits(code) = (@bits ||= {})[code] ||= Scale.entropy(row(code))

      def self.entropy(row) = -row.sum { |share| share.positive? ? share * Math.log2(share) : 0.0 }

      private

      def as_before(row, tolds)
        slips = tolds.map { |told| slip(told) }
        row.each_index.sum do |cell|
          shown = (row[cell] - (even[cell] * @misread)) / (1 - @misread)
          tolds.each_with_index.inject(shown) { |all, (told, i)| all * ((told[cell] * (1 - @misread)) + slips[i]) }
        end
      end

      def anew?(code) = code && (code == UNSTEADY || code.include?("+"))

      def weighed(rows)
        return rows.first if rows.one?

        rows.transpose.map { |shares| Supply.mean(shares) }
      end

      def reckon(code)
        several = %w[+ |].find { |sign| code.include?(sign) }
        return together(code.split(several)) if several

        spreads(code).map do |plain|
          plain.zip(even).map { |share, slipped| (share * (1 - @misread)) + (slipped * @misread) }
        end
      end

      def together(codes)
        parts = codes.map { |part| stands(part) }
        Array.new(parts.map(&:size).max) { |stand| mean(parts.map { |rows| rows[stand] || rows[0] }) }
      end

      def mean(rows) = rows.transpose.map { |shares| shares.sum / shares.size }

      # [[P(cell)]] by the stand of the supply, before any misreading.
      def spreads(code)
        return [even] if code == UNKNOWN
        return [shares(Diagnosis.numbers.dig("choices", code))] if Diagnosis.numbers.fetch("choices").key?(code)

        [shares(code => 1.0)]
      end

      # Of a table by answers, as much for each part of one.
      def shares(table) = answer_of.zip(even).map { |a, part| table.fetch(answers[a].to_s, 0.0) * part * answers.size }
    end

    # Volts by the class that a meter shows, and by how much within it. A code is the bin of what the circuit gives, so
    # that what stands at the edge of a class may be told as either.
    class Volts < Scale
      attr_reader :edges

      def initialize
        @edges = Diagnosis.numbers.fetch("volts")
        @bins = Diagnosis.numbers.fetch("volts_bins")
        @spreads = Diagnosis.numbers.fetch("volts_spread")
        @cells = (Diagnosis.numbers.fetch("volts_cells") + @edges.values).uniq.sort
        super("volts", @edges.keys, Diagnosis.numbers.dig("misread", "volts"))
      end

      def answer_of = @answer_of ||= @cells.map { |most| @edges.values.index { |edge| most <= edge } }

      # The bin of volts that are held.
      def code(volts) = "b#{@bins.bsearch_index { |edge| volts < edge } || @bins.size}"

      # The class of what was read.
      def answer(volts) = @edges.find { |_class, most| volts < most }&.first || @edges.keys.last

      # [weight] of the cells for an amount that may be a range: of one number those near it, each by how much of it is
      # near. By an edge of two classes it is of either; only under 2 V is about 0 whatever the meter.
      def told(low, high)
        return spans.map { |from, upto| [high, upto].min > [low, from].max ? 1.0 : 0.0 } if high > low

        nothing = answer(low) == answers.first
        near = @spreads.fetch("told_within")
        parts = spans.zip(answer_of).map { |span, a| a.zero? == nothing ? overlap(span, low - near, low + near) : 0.0 }
        parts.map { |part| part / parts.max }
      end

      private

      # [[from, up to]] of the cells.
      def spans = @spans ||= [0.0, *@cells].each_cons(2).to_a

      def spreads(code)
        return [shares(Diagnosis.numbers.fetch("ghost"))] if code == GHOST
        return [shares(Diagnosis.numbers.fetch("unsteady"))] if code == UNSTEADY
        return super unless code.start_with?("b")

        index = code.delete_prefix("b").to_i
        low = index.zero? ? 0.0 : @bins[index - 1]
        high = @bins[index] || (@bins.last * 1.6)
        middle = (low + high) / 2
        return [shares("about_0" => 1.0)] if index.zero?

        half = middle * @spreads.fetch(full?(middle) ? "near_full" : "between")
        Supply.factors.map { |factor| around(middle * factor, half) }
      end

      # Part of a span that lies between.
      def overlap(span, low, high)
        from, upto = span
        [[high, upto].min - [low, from].max, 0.0].max / (upto - from)
      end

      def full?(volts) = volts > 21.2 || volts < 1.0

      # The most part near the middle, the rest as far again and again from it.
      def around(middle, half)
        wide = @spreads.fetch("far_share")
        near, far = [half, half * @spreads.fetch("far_factor")].map { |reach| parts(middle, reach) }
        near.zip(far).map { |close, off| (close * (1 - wide)) + (off * wide) }
      end

      # [share] of each cell, of what lies around the middle, the less the farther, and nothing beyond this reach.
      def parts(middle, reach)
        below = @cells.map { |most| share_below((most - middle) / reach) }
        [0.0, *below].each_cons(2).map { |from, upto| upto - from }
      end

      # Of a triangle from -1 to 1, how much lies below.
      def share_below(at)
        return 0.0 if at <= -1
        return 1.0 if at >= 1

        at.negative? ? ((1 + at)**2) / 2 : 1 - (((1 - at)**2) / 2)
      end
    end
  end
end
