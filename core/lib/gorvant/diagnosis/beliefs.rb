# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # How probable each hypothesis is, by weighing: shares, complaint and evidence multiply, and nothing is struck out.
    # A pure function of all that was told, so that what is taken back is as if it had never been.
    class Beliefs
      TOO_LITTLE = 1e-9
      WORTH_PARTING = 0.004

      attr_reader :library, :all, :likelihoods

      # symptoms: ids. evidence: [Clue]. hold: "in_force", "over" or nil where nobody knows. past: [Past].
      def initialize(library, symptoms: [], evidence: [], hold: nil, past: [])
        @library = library
        @evidence = evidence
        @told = evidence.map { |clue| told_by(clue) }
        @likelihoods = @told.map(&:mean)
        @past = past
        @before = library.remember(:priors, symptoms, hold, past) { priors(symptoms, hold) }
        all = together(evidence.each_index)
        @joint = joint(all)
        @all = @joint ? @joint.beliefs : alone(all)
      end

      # Before any evidence: shares and complaint.
      attr_reader :before

      def [](index) = @all[index]

      # { class => belief }
      def by_class = @by_class ||= @library.classes.transform_values { |list| list.sum { |i| @all[i] } }

      # How much none of these would weigh had one piece of the evidence not been told: by its number.
      def none_without(told) = weighed(together(@evidence.each_index.reject { |e| e == told })).last

      # How probable it is, by all that was told, that this piece of it was misread.
      def misread(told)
        clue = @evidence[told]
        slip = clue.column.scale.slip(clue.told)
        rates = @likelihoods[told]
        (0...(@all.size - 1)).sum { |i| rates[i].zero? ? 0.0 : @all[i] * [slip / rates[i], 1.0].min }
      end

      # Bits that one more answer of this column is expected to bring about what is to be put right.
      def gain(column) = (@gains ||= {})[column] ||= true_gain(column)

      # About all there is to know, and as if readings did not share one supply: what is told by that is little, so it
      # orders the tests well, at a fraction of the time.
      def rough_gain(column)
        (@rough_gains ||= {})[column] ||= begin
          answers, known = expected(column)
          Scale.entropy(answers) - known
        end
      end

      # [P(answer)] of a column, as far as is known.
      def odds(column) = column.scale.by_answer(expected(column).first)

      # [P] by hypothesis of what was told in one piece of the evidence, how much within its answer left out.
      def roughly(told)
        clue = @evidence[told]
        (@roughly ||= {})[told] ||= @library
          .remember(:told, clue.column, clue.roughly) { rates(clue.column, [clue.roughly]) }
          .mean
      end

      # How many times as often this piece of the evidence is told with one hypothesis as with all the others together,
      # by the complaint alone. How much within its answer it is counts only where that tells far more, or otherwise.
      def tells(told, index)
        by_answer, by_amount = [roughly(told), @likelihoods[told]].map { |rates| against_others(rates, index) }
        near = Diagnosis.numbers.fetch("amount_tells")
        by_amount.between?(by_answer / near, by_answer * near) ? by_answer : by_amount
      end

      # Bits that it is expected to bring about whether it is one of these: [index].
      def gain_about(column, indexes) = (only(indexes).gains[column] ||= about(column, only(indexes)))

      # Whether the unit does what this symptom says, with this hypothesis.
      def shows?(index, symptom)
        @library.remember(:shows, symptom) { Array.new(@library.size) { |i| shown?(i, symptom) } }[index]
      end

      # How probable it is that the unit shows none of these symptoms at this moment: what leaves them out, what comes
      # and goes, and what is right though somebody complains of it. None of these is not counted: it may be anything.
      def absent(symptoms) = absents(symptoms).sum { |i| all[i] }

      # The hypotheses under which nothing of these symptoms shows now.
      def absents(symptoms) =
        @library.remember(:absent, symptoms) { all.each_index.select { |i| absent?(i, symptoms) } }

      private

      def against_others(rates, index)
        share = @before[index]
        all = (@by_complaint ||= {}.compare_by_identity)[rates] ||= rates.zip(@before).sum { |rate, part| rate * part }
        rates[index] / [(all - (rates[index] * share)) / (1.0 - share), 1e-12].max
      end

      def absent?(index, symptoms)
        one = @library.hypotheses[index]
        return false if one.none_of_these?
        return true if one.steady
        return true if one.as_designed? && @library.class_of[index] == @library.class_of[@library.index("nothing")]

        symptoms.none? { |symptom| shows?(index, symptom) || one.explains[symptom] }
      end

      def shown?(index, symptom)
        ways = Catalogue.symptoms.dig(symptom, "shows") || []
        marks = @library.marks_of(index) or return false # none of these

        ways.any? do |way|
          calls =
            marks
              .slice(*(way["call"] ? [way["call"]] : marks.keys))
              .select { |call, _found| in_season_call?(call) }
              .values
          calls.any? do |found|
            (way["with"].nil? || found.include?(way["with"])) &&
              (way["without"].nil? || !found.include?(way["without"]))
          end
        end
      end

      def true_gain(column)
        fed = @joint && column.scale.is_a?(Volts)
        (fed ? @joint.gain(column) : rough_gain(column)) - within_remedies(column)
      end

      # Bits that only tell one cause of a repair from another.
      def within_remedies(column)
        column.mixed.sum do |list, parts|
          share = share_of(list)
          share < WORTH_PARTING ? 0.0 : parted(parts, share)
        end
      end

      # Of a list that the library has once for all columns.
      def share_of(list) = (@share_of ||= {}.compare_by_identity)[list] ||= list.sum(0.0) { |i| @all[i] }

      # parts: [[row, bits, [index]]]
      def parted(parts, share)
        answers = Array.new(parts.first.first.size, 0.0)
        known = 0.0
        parts.each do |row, bits, list|
          weight = 0.0
          list.each { |i| weight += @all[i] }
          known += weight * bits
          weight /= share
          row.each_with_index { |often, a| answers[a] += weight * often }
        end
        (share * Scale.entropy(answers)) - known
      end

      def whether(share) = Scale.entropy([share, [1.0 - share, 0.0].max])

      # [[P(answer)], bits that stay open where the truth is known]
      def expected(column) = spread(column, @all, 1.0)

      # Beliefs of these alone, all others nothing; their sum; bits about them by column, as far as asked.
      Only = Value.define(:weights, :sum, :gains)
      private_constant :Only

      def only(indexes)
        (@only ||= {})[indexes] ||= begin
          weights = Array.new(@all.size, 0.0)
          indexes.each { |i| weights[i] = @all[i] }
          Only.new(weights: weights, sum: weights.sum, gains: {})
        end
      end

      def about(column, only)
        both, = expected(column)
        yes, = spread(column, only.weights, only.sum)
        whether(yes.sum) - both.each_index.sum { |a| both[a].zero? ? 0.0 : both[a] * whether(yes[a] / both[a]) }
      end

      # The same of any weights with this sum: of each answer, and of what stays open.
      def spread(column, weights, total)
        none = weights.last
        answers, known, others = spread_others(column, weights)
        left = [total - none - others, 0.0].max
        column.common.each_with_index { |part, a| answers[a] += (left * part) + (none * column.none[a]) }
        [answers, known + (left * column.common_bits) + (none * column.none_bits)]
      end

      # Of those that do not show the commonest, and their sum.
      def spread_others(column, weights)
        answers = Array.new(column.none.size, 0.0)
        known = sum = 0.0
        column.others.each do |row, bits, list|
          share = 0.0
          list.each { |i| share += weights[i] }
          next if share < TOO_LITTLE

          sum += share
          known += share * bits
          row.each_with_index { |part, a| answers[a] += share * part }
        end
        [answers, known, sum]
      end

      # How often each hypothesis gives what was told. mean: [P]; stands: [[P]] by the stand of the supply, or nil where
      # it does not hang on it.
      Rates = Value.define(:mean, :stands)
      private_constant :Rates

      def told_by(clue) = @library.remember(:told, clue.column, clue.told) { rates(clue.column, [clue.told]) }

      # [Rates] of these pieces of the evidence. What was read twice is one piece of news: the specimen, the joint, the
      # load are the same, whoever looks again.
      def together(numbers)
        numbers
          .group_by { |e| same(@evidence[e]) }
          .values
          .map { |list| list.one? ? @told[list.first] : at_once(list.map { |e| @evidence[e] }) }
      end

      # What two pieces of evidence have alike that were read of one thing: the test; of volts whatever shows the same
      # in all that could be so, as all points of one wire do.
      def same(clue) = [clue.column.object_id, (clue.test.id unless clue.test.function == "volts_ac")]

      def at_once(clues)
        column, tolds = clues.first.column, clues.map { |clue| with_wander(clue, clues) }
        @library.remember(:told_often, column, tolds) { rates(column, tolds) }
      end

      # What was told, and what it was told as elsewhere among these where only meter and line wandered between: 24.1 V
      # and 23.2 V are no slip of either, and nothing that came or went.
      def with_wander(clue, clues)
        wandered = clues.select { |other| apart?(clue, other) && !clue.unlike?(other) }
        [clue, *wandered].map(&:told).transpose.map { |weights| weights.sum / weights.size }
      end

      def apart?(first, second) = first.told.zip(second.told).none? { |one, other| one.positive? && other.positive? }

      # tolds: what was told of the column, each time that it was.
      def rates(column, tolds)
        scale = column.scale
        by_code = { nil => [scale.often(column.none, nil, tolds)] }
        rows =
          column.codes.map { |code| by_code[code] ||= scale.stands(code).map { |row| scale.often(row, code, tolds) } }
        hangs = by_code.values.any? { |row| row.size > 1 && row.uniq.size > 1 }
        Rates.new(
          mean: rows.map { |row| row.one? ? row.first : Supply.mean(row) },
          stands: hangs ? Array.new(Supply.size) { |stand| rows.map { |row| row[stand] || row[0] } } : nil
        )
      end

      # [belief]: before and all that was told, at each stand of the supply, together.
      def weighed(told)
        found = joint(told)
        found ? found.beliefs : alone(told)
      end

      def alone(told)
        weights = multiplied(@before, told.map(&:mean))
        total = weights.sum
        total.zero? ? @before : weights.map { |weight| weight / total }
      end

      # Supply::Joint of what was told, or nil where nothing of it hangs on the supply, or nothing is left to weigh.
      def joint(told)
        supply, plain = told.partition(&:stands)
        return nil if supply.empty?

        weights = multiplied(@before, plain.map(&:mean))
        at_stands =
          Supply.shares.each_with_index.map do |share, stand|
            multiplied(weights.map { |weight| weight * share }, supply.map { |one| one.stands[stand] })
          end
        Supply::Joint.new(at_stands).then { |made| made.empty? ? nil : made }
      end

      def multiplied(weights, rows)
        product = weights.dup
        rows.each { |row| product.each_index { |i| product[i] *= row[i] } }
        product
      end

      def priors(symptoms, hold)
        shares =
          @library.hypotheses.each_with_index.map do |one, i|
            one.share * complaint(one, i, symptoms) * held(one, hold) * Past.weight(@past, @library, i)
          end
        shares[-1] = [shares.last, none_as_all(shares)].min
        total = shares.sum
        shares.map { |share| share / total }
      end

      # None of these, as if it showed the complaint as often as all the others together: where few things show it, what
      # nobody has thought of seldom does either.
      def none_as_all(shares)
        shown = shares[0...-1].sum / @library.hypotheses[0...-1].sum(&:share)
        @library.hypotheses.last.share * shown
      end

      # While a hold is in force it is what is seen, whatever else there is; once over it is nothing any more.
      def held(one, hold)
        return 1.0 unless one.turns["board"] == "hold" && hold

        hold == "in_force" ? Diagnosis.numbers.dig("hold", "in_force") : Diagnosis.numbers.dig("hold", "over")
      end

      def complaint(one, index, symptoms)
        return 1.0 if symptoms.empty?

        named = symptoms.inject(1.0) { |product, symptom| product * told(one, index, symptom) }
        one.none_of_these? || one.steady ? named : named * passed_over(index, symptoms)
      end

      # How often somebody names it though the unit does not show it.
      def missed(symptom)
        rates = Diagnosis.numbers.fetch("complaint")
        rates["sharp"].fetch(symptom) { rates["not_shown"] }
      end

      # What it would show beside, and nobody named.
      def passed_over(index, symptoms)
        others = Diagnosis.numbers.fetch("plain") - symptoms
        shown = others.any? { |symptom| in_season?(symptom) && shows?(index, symptom) }
        shown ? Diagnosis.numbers.dig("complaint", "silent") : 1.0
      end

      def in_season?(symptom)
        call = Catalogue.symptoms.dig(symptom, "opens", "call")
        call.nil? || in_season_call?(call)
      end

      def told(one, index, symptom)
        rates = Diagnosis.numbers.fetch("complaint")
        return (rates["shown"] + rates["not_shown"]) / 4 if one.none_of_these?

        plain = shows?(index, symptom) ? rates["shown"] : missed(symptom)
        plain *= rates["beside_design"] if beside?(one) && well?(symptom)
        plain = (plain + missed(symptom)) / 2 if one.steady
        [plain, one.explains[symptom] || 0.0].max
      end

      # Nobody complains of cooling in the winter.
      def in_season_call?(call) = (@allowed ||= {}).fetch(call) { @allowed[call] = @library.situation.allowed?(call) }

      # Something beside what the unit does anyway: beside its design, or, where the visit found something, beside that.
      def beside?(one)
        return false if one.id == "nothing"

        !one.as_designed? || @library.situation.found.any?
      end

      # Whether a sound unit shows it in this weather: then a fault beside it needs a reason of its own.
      def well?(symptom) = (@well ||= {}).fetch(symptom) { @well[symptom] = shows?(@library.index("nothing"), symptom) }
    end
  end
end
