# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # The signatures of a unit, laid out for asking: every test's column of codes, with the hypotheses that do not show
    # the commonest of them.
    class Library
      # What a test shows of every hypothesis. common_code, common: the code that most show, and its row of answers;
      # others: [[row, bits, [index]]]; none: the row for none of these; mixed: those of one remedy that differ here,
      # [[[index], [[row, bits, [index]]]]].
      Column =
        Value.define(:scale, :codes, :common_code, :common, :common_bits, :others, :none, :none_bits, :mixed) do
          # One object a column: comparing hundreds of codes takes longer than weighing them.
          def hash = object_id.hash
          def eql?(other) = equal?(other)
        end

      MOST_REMEMBERED = 60
      ASK_AGAIN_SECONDS = 1

      attr_reader :situation, :hypotheses, :tests, :marks, :look

      # kept: what Packed.of gave of all hypotheses, in their order; look: what of it is there.
      def initialize(situation, kept, look = FirstLook::WHOLE)
        @look = look
        @maker = Maker.new(situation)
        @situation = situation
        @hypotheses = look.among(@maker.hypotheses)
        @tests = @maker.tests
        @position = @tests.each_with_index.to_h { |test, i| [test.id, i] }
        @by_id = @hypotheses.each_with_index.to_h { |one, i| [one.id, i] }
        @packed = Packed.new(kept)
        @marks = @packed.marks
        @columns = {}
        @shared_columns = {}
        @remembered = {}
        @begun = {}
      end

      # What follows from the unit alone, or from it and what the key says, is worked out once for as many keys as one
      # unit is usually asked about; the oldest go first.
      def remember(kind, *key, most: MOST_REMEMBERED)
        known = @remembered[kind] ||= {}
        known.fetch(key) do
          known.shift if known.size >= most
          known[key] = yield
        end
      end

      # Makes and lays out in one go: for specs, benches and small rigs.
      def self.of(situation, look = FirstLook::WHOLE)
        maker = Maker.new(situation)
        new(situation, Packed.of(look.among(maker.hypotheses).map { |one| maker.shows(one, look) }), look)
      end

      # Whether other calls are still to come: then nothing is sure.
      def first_look? = !@look.whole?
      # How many tests it can say something of.
      def known_tests = @tests.count { |test| @look.at?(test) }
      # How many hypotheses there are in all.
      def all_size = @maker.hypotheses.size

      def size = @hypotheses.size
      def index(id) = @by_id.fetch(id)
      def id?(id) = @by_id.key?(id)
      def test?(id) = @position.key?(id)
      def position(test) = @position.fetch(test.id, @tests.size)
      def test(id) = @tests.fetch(@position.fetch(id))

      # The Column of a test; one that is not in the list is solved for it.
      def column(test) = @columns[test.id] ||= @position.key?(test.id) ? kept(test) : solved(test)

      # [[Column, [Test]]]: tests that tell the same are asked about once.
      def shapes = @shapes ||= @tests.group_by { |test| column(test) }.to_a

      # What another hypothesis, such as two faults at once, shows in a test: solved for it.
      def code_of(hypothesis, test, condition)
        state = test.state && @situation.state(test.state)
        @maker.code_in(state&.condition || condition || Condition.new(call: "off"), test, hypothesis)
      end

      # { class number => [index] } of hypotheses that no test of the list tells apart; by index: class_of.
      def classes = @classes ||= (0...size).group_by { |i| class_of[i] }

      def class_of = @class_of ||= numbered(signs)

      # What would be put right with each hypothesis: the part, the wire, the setting, the board. Where all that is left
      # ends in one remedy, nothing needs to be told apart any more.
      def remedies =
        @remedies ||= @hypotheses.map { |one| remedy(one.steady ? @hypotheses[@by_id.fetch(one.steady)] : one) }

      # Marks of a hypothesis by call; of one that comes and goes, those of its steady case.
      def marks_of(index) = @marks[steady(index)]

      # Whether a fuse opens with it in some call; while calls are still to come, whether one may.
      def blows?(index)
        marks = marks_of(index) or return false # none of these

        blown = marks.values.any? { |found| found.include?("blown") }
        blown || (first_look? && may_blow?(@hypotheses[steady(index)]))
      end

      # Indexes of those.
      def blowing = @blowing ||= @hypotheses.each_index.select { |i| blows?(i) }

      # A test that is not in the list, in a state or another condition.
      def solved_in(condition, test) =
        @columns[test.id] ||= shape(test.scale, codes(test) { |one| @maker.code_in(condition, test, one) })

      # How much of none of these is causes that are still to come and may open a fuse.
      def blows_unseen
        @blows_unseen ||=
          begin
            known = @hypotheses.to_h { |one| [one.id, true] }
            unseen = @maker.hypotheses.reject { |one| one.steady || known.key?(one.id) || !may_blow?(one) }
            unseen.sum(&:share) / @hypotheses.last.share
          end
      end

      private

      def may_blow?(hypothesis)
        kinds = Diagnosis.numbers.dig("fuse_care", "may_blow")
        hypothesis.faults.any? { |fault| kinds.include?(fault["kind"]) }
      end

      # The hypothesis itself, or of one that comes and goes what it is while it is there.
      def steady(index)
        own = @hypotheses[index]
        own.steady ? @by_id.fetch(own.steady) : index
      end

      def remedy(one)
        return one.id if one.at.nil? || %w[opened as_designed found].include?(one.kind)

        wire = one.at[/\Acable_\w+\.\w+/]
        return wire if wire

        part = @situation.netlist.branch?(one.at) ? @situation.netlist[one.at].component || one.at : one.at
        Diagnosis.numbers.fetch("board_parts").include?(part) ? "board" : part
      end

      # [where it shows what is not the commonest, and what] of each hypothesis.
      def signs
        signs = @hypotheses.map { |one| [one.none_of_these?] }
        @tests
          .map { |test| column(test) }
          .uniq
          .each do |column|
            column.others.each { |_row, _bits, list| list.each { |i| signs[i] << column << column.codes[i] } }
          end
        signs
      end

      def numbered(all)
        known = {}
        all.map { |one| known[one.hash] ||= known.size }
      end

      # Tests of one scale that show the same are one Column.
      def kept(test)
        number = @packed.number(@position.fetch(test.id))
        @shared_columns[[test.scale.name, test.scale.answers, number]] ||= shape(
          test.scale,
          codes_of(@packed.groups[number])
        )
      end

      def solved(test)
        condition = @situation.state(test.state)&.condition || Condition.new(call: "off")
        shape(test.scale, codes(test) { |one| @maker.code_in(condition, test, one) })
      end

      # [code] of every hypothesis, nil of none of these.
      def codes_of(group)
        all = Array.new(size, group.common)
        group.others.each { |code, list| list.each { |i| all[i] = code } }
        come_and_gone(all)
      end

      # Of a test that is solved for all hypotheses. Whoever gives it up goes on where it stood, however often.
      def codes(test)
        all = @begun.fetch(test.id, []).dup
        @hypotheses.drop(all.size).each { |one| all << (one.none_of_these? || one.steady ? nil : yield(one).to_s) }
        @begun.delete(test.id)
        come_and_gone(all)
      rescue GaveUp
        raise if all.size <= @begun.fetch(test.id, []).size

        begun(test, all)
        raise StillAtIt.new(seconds: ASK_AGAIN_SECONDS)
      end

      def begun(test, codes)
        @begun.shift if @begun.size >= MOST_REMEMBERED && !@begun.key?(test.id)
        @begun[test.id] = codes
      end

      # What comes and goes is either as it is while it is there or as if nothing were wrong.
      def come_and_gone(all)
        well = all.fetch(@by_id.fetch("nothing"))
        steady_of.each { |i, steady| all[i] = all[steady] == well ? well : "#{all[steady]}+#{well}" }
        all[-1] = nil
        all
      end

      # { index => index of what it is while it is there }
      def steady_of
        @steady_of ||=
          @hypotheses
            .each_index
            .select { |i| @hypotheses[i].steady }
            .to_h { |i| [i, @by_id.fetch(@hypotheses[i].steady)] }
      end

      def shape(scale, codes)
        members = codes.each_index.group_by { |i| codes[i] }
        members.delete(nil)
        common = members.max_by { |_code, list| list.size }.first
        none = none_row(scale, members)
        Column.new(
          scale: scale,
          codes: codes,
          common_code: common,
          common: scale.row(common),
          common_bits: scale.bits(common),
          others: members.except(common).map { |code, list| [scale.row(code), scale.bits(code), list] },
          none: none,
          none_bits: Scale.entropy(none),
          mixed: mixed(scale, codes, members.except(common).values)
        )
      end

      # Those with one remedy that show different things in this test: what parts them parts no repair. others: those
      # that do not show the commonest.
      def mixed(scale, codes, others)
        touched = others.flat_map { |list| list.filter_map { |i| shared_remedy_of[i] } }.uniq.sort
        parted =
          touched
            .map { |number| shared_remedies[number] }
            .select { |list| list.any? { |i| codes[i] != codes[list.first] } }
        parted.map do |list|
          by_code = list.group_by { |i| codes[i] }
          [list, by_code.map { |code, some| [scale.row(code), scale.bits(code), some] }]
        end
      end

      # { index => number of its remedy among those that several share }
      def shared_remedy_of
        @shared_remedy_of ||=
          shared_remedies.each_with_index.flat_map { |list, number| list.map { |i| [i, number] } }.to_h
      end

      def shared_remedies =
        @shared_remedies ||= remedies.each_index.group_by { |i| remedies[i] }.values.select { |list| list.size > 1 }

      # None of these: half as all together, half as anything.
      def none_row(scale, members)
        shares = members.transform_values { |list| list.sum { |i| @hypotheses[i].share } }
        total = shares.values.sum
        sums = Array.new(scale.even.size, 0.0)
        shares.each { |code, share| scale.row(code).each_with_index { |part, a| sums[a] += part * share / total } }
        spread = Diagnosis.numbers.dig("none", "spread")
        sums.zip(scale.even).map { |sum, even| (sum * (1 - spread)) + (even * spread) }
      end
    end
  end
end
