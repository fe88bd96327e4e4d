# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # What Find answers of a visit: ranked suspects with what carries each, the next test with what each suspect
    # predicts, what does not fit together, and what it does not prove.
    class Finder
      # A class of hypotheses that no test tells apart. indexes: the likeliest first; for_it, against: [Clue].
      Suspect = Value.define(:indexes, :belief, :for_it, :against, :proved)
      # Readings that do not go together: "changed" of one test, where time can have done it; "impossible" of two in one
      # call, each of which something shows and no one thing both.
      Contradiction = Value.define(:clues, :kind)

      # How it is asked: where one stands, what is called, by what tests are chosen, minutes since the compressor
      # stopped, tests that are passed over; each nil, or none, where nobody said.
      Asked =
        Value.define(
          :stands,
          :call,
          :mode,
          :stopped_minutes,
          :skip,
          defaults: {
            stands: nil,
            call: nil,
            mode: nil,
            stopped_minutes: nil,
            skip: [].freeze
          }
        )

      FIRST_PLACE = "wall" # where the call is set
      VISITS_AT_ONCE = 12 # of one unit, by as many people: what each was told last is weighed already
      FUSE = "fuse_blows"
      FUSE_OPEN = "stuck_open:FU"

      attr_reader :library, :beliefs, :symptoms, :evidence, :aside, :hold, :stands, :call, :mode, :past

      # symptoms: keys; evidence: [Clue]; past: [Past]; asked: what Asked has. All may be left out.
      def initialize(library, symptoms: [], evidence: [], past: [], **asked)
        asked = Asked.new(**asked)
        @library = library
        @situation = library.situation
        @direct = Direct.new(library)
        @symptoms = symptoms
        @aside, @evidence = evidence.partition { |clue| of_open_fuse?(clue) }
        @stopped = asked.stopped_minutes
        @skip = asked.skip
        @hold = hold_now
        @beliefs = library.remember(:beliefs, symptoms, @evidence, @hold, past, most: VISITS_AT_ONCE) { weighed(past) }
        @past = past
        @stands = asked.stands || FIRST_PLACE
        @call = in_defrost? ? "defrost" : asked.call || first_call
        @mode = asked.mode || "cheapest"
      end

      # Two faults at once, looked for where nothing alone explains what was read.
      def pairs = @pairs ||= Pairs.new(self)
      def unexplained? =
        !library.first_look? && evidence.size > 1 && beliefs.all.last >= Diagnosis.numbers.dig("pairs", "none_from")

      # [Suspect], most probable first; as many as weigh something.
      def suspects(most = 8)
        @suspects ||=
          beliefs.by_class.sort_by { |number, belief| [-belief, number] }.map { |number, belief| [number, belief] }
        @suspects.first(most).map { |number, belief| suspect(number, belief) }
      end

      def top = @top ||= suspects(1).first

      def next_tests
        @next_tests ||= NextTests.new(beliefs, here, made: made, mode: @mode)
      end

      # The test to make now: while nothing is sure, what tells most; then what proves the first before anything is
      # changed. nil where nothing is left that would tell.
      def next_test
        return nil if found?
        return waiting if waiting
        return first_of_all if first_of_all && !sure?
        return once_more if once_more
        return confirming if (sure? || likely_design?) && !top.proved && confirming

        sure? ? nil : question || own_look || next_tests.all.first
      end

      # Where what was complained of does not seem to show, what tells that comes before what else could be wrong with
      # the unit: a look in its own call, or the test that parts those under which it shows from the rest.
      def own_look
        return nil unless @symptoms.any? && absent_belief >= Diagnosis.numbers["likely_absent"]
        return @own_look if defined?(@own_look)

        @own_look = look_for_it
      end

      # What the visit found is in front: it is put right, and the call run again, before anything is looked for beside
      # it.
      def found?
        return false if library.first_look?

        one = library.hypotheses[top.indexes.first]
        one.kind == "found" && top.belief >= Diagnosis.numbers["likely_found"] && @symptoms.any?
      end

      # Something as designed is in front: what it hangs on is looked at before anything else is looked for.
      def likely_design? =
        top.belief >= Diagnosis.numbers["likely_design"] && library.hypotheses[top.indexes.first].as_designed?

      # A hold that is on and in front is waited out: whatever else is read meanwhile is read again after it.
      def waiting
        return nil unless @hold == "in_force" && library.hypotheses[top.indexes.first].turns["board"] == "hold"

        next_tests.of("after_the_wait")
      end

      # What a complaint is about is looked at before anything is read: of ice, where on the coil it is.
      def first_of_all
        @first_of_all ||= [
          @symptoms
            .filter_map { |symptom| Catalogue.symptoms.dig(symptom, "first") }
            .lazy
            .filter_map { |place| next_tests.of(place) }
            .first
        ]
        @first_of_all.first
      end

      # Where nothing alone explains what was read, the reading without which something would: one such, then it may
      # well be two things.
      def once_more
        return nil unless doubtful&.why == "alone" && evidence.map { |clue| clue.test.id }.uniq.size == evidence.size

        next_tests.choice(doubtful.test)
      end

      # A question that takes no step and tells something comes before any reading: what the board holds back looks like
      # a fault in all of them.
      def question
        asked = next_tests.of("since_stop")
        asked && asked.gain >= Diagnosis.numbers["worth_asking_bits"] ? asked : nil
      end

      # One remedy stands so high that it is proved next.
      def sure? = !library.first_look? && stands_high?

      def stands_high?
        one = library.hypotheses[top.indexes.first]
        return false if one.none_of_these?

        remedy_belief >= Diagnosis.numbers[one.as_designed? && top.proved ? "design_sure" : "sure"]
      end

      # Nothing of what was complained of shows now, though it was looked at in its own call. It clears nothing: what
      # comes and goes reads well between. Where nobody looked, or the weather forbids the call, it is never said.
      def not_now?
        return @not_now unless @not_now.nil?
        return @not_now = false if library.first_look?

        @not_now =
          @symptoms.any? && !found? && !sure? && @symptoms.all? { |symptom| looked_at?(symptom) } &&
            (absent_belief >= Diagnosis.numbers["sure"] || nothing_tells_more?)
      end

      # It is as good as sure, and no test tells more of whether it shows: none at all, not only none where one stands.
      def nothing_tells_more? = @mode != "here" && absent_belief >= Diagnosis.numbers["rather_absent"] && own_look.nil?

      def absent_belief = @absent_belief ||= beliefs.absent(@symptoms)

      # There is nothing more to look for: one remedy stands, or what was complained of does not show. A hold is settled
      # when it was waited out.
      def settled? = waiting ? false : sure? || not_now?

      # How probable it is that the first suspect's remedy is the right one.
      def remedy_belief = @remedy_belief ||= library.remedies.each_index.sum { |i| mends?(i) ? beliefs[i] : 0.0 }

      # Whether what is put right for the first suspect puts this hypothesis right: one remedy, or one that no test
      # tells apart. Wires that were seen to lie otherwise are one remedy: whoever saw them knows which they are.
      def mends?(index)
        first = top.indexes.first
        library.remedies[index] == library.remedies[first] || library.class_of[index] == library.class_of[first] ||
          (seen_at_wires?(first) && seen_at_wires?(index))
      end

      # Whether wires were seen to lie otherwise than drawn, at a place where this hypothesis has them so.
      def seen_at_wires?(index) = wires_seen.any? { |column| column.codes[index] == "otherwise" }

      # What is left was seen, and not said: which wire it is stands on the Wiring page, once it is written down there.
      def landings_seen? = sure? && seen_at_wires?(top.indexes.first) && top.belief < Diagnosis.numbers["sure"]

      # The test that looks at the first suspect itself, or nil where none of the list does.
      def confirming
        @confirming ||=
          next_tests.about(top.indexes, library.tests.select { |test| @direct.to?(test, top.indexes) }).max_by(&:gain)
      end

      # Doubt, or nil: the reading to make once more.
      def doubtful = (@doubtful ||= [once(:doubt) { Doubt.of(self) }]).first

      # What follows from complaint and evidence is asked again and again: wherever one stands, however the next test is
      # chosen.
      def once(kind, &) = library.remember(kind, symptoms, hold, past, evidence, &)

      # [least, most] minutes that a hold in force still lasts; nil where none is known to be.
      def remaining_minutes
        return nil unless @hold == "in_force"

        hold_seconds.map { |seconds| [(seconds / 60.0) - @stopped.to_f, 0.0].max }
      end

      # [Contradiction]: readings that differ at one test; then two of a call that nothing shows both of, in the order
      # that they were told, each reading once.
      def contradictions = once(:contradictions) { changed + impossible }

      def changed
        evidence
          .group_by { |clue| clue.test.id }
          .values
          .select { |clues| clues.first.test.state && clues.combination(2).any? { |one, other| one.unlike?(other) } }
          .map { |clues| Contradiction.new(clues: clues, kind: "changed") }
      end

      def impossible
        exclusive
          .each_with_object([]) { |pair, kept| kept << pair unless kept.flatten.intersect?(pair) }
          .map { |pair| Contradiction.new(clues: pair.map { |e| evidence[e] }, kind: "impossible") }
      end

      # [two places of the evidence] in one call, each of which something shows, and nothing both. One thing read twice
      # has changed, whatever it read.
      def exclusive
        likely, thinkable =
          Diagnosis
            .numbers
            .fetch("impossible")
            .values_at("from", "below")
            .map { |edge| evidence.each_index.map { |told| showing(told, edge) } }
        called = evidence.each_index.select { |e| evidence[e].test.state && !likely[e].zero? }
        called.combination(2).select { |a, b| thinkable[a].nobits?(thinkable[b]) && one_call?(a, b) }
      end

      def one_call?(first, second)
        one, other = evidence.values_at(first, second).map(&:test)
        one.state == other.state && one.id != other.id
      end

      # [[Suspect, Clue]] of what the complaint alone would have had in front and a reading took away.
      def unlikely(most = 5)
        before = library.classes.transform_values { |list| list.sum { |i| beliefs.before[i] } }
        fallen =
          before
            .sort_by
            .with_index { |(_number, share), i| [-share, i] }
            .first(12)
            .select { |number, _share| beliefs.by_class[number] < Diagnosis.numbers["unlikely"] }
        fallen
          .first(most)
          .filter_map do |number, _share|
            clue = worst_for(library.classes[number].max_by { |i| beliefs.before[i] })
            clue && [suspect(number, beliefs.by_class[number]), clue]
          end
      end

      # What a suspect predicts of a test: the likeliest answer and its probability; nil where it says nothing.
      def predicts(suspect, test)
        column = library.column(test)
        code = column.codes[suspect.indexes.first]
        row = column.scale.by_answer(code ? column.scale.row(code) : column.none)
        share = row.max
        share > 0.5 ? [column.scale.answers[row.index(share)], share] : nil
      end

      # How many of the classes that still weigh fall to each answer: { answer => classes }.
      def splits(test)
        column = library.column(test)
        weighing = beliefs.by_class.select { |_number, belief| belief >= Diagnosis.numbers["unlikely"] }.keys
        weighing
          .group_by do |number|
            code = column.codes[library.classes[number].max_by { |i| beliefs[i] }]
            row = column.scale.by_answer(code ? column.scale.row(code) : column.none)
            column.scale.answers[row.index(row.max)]
          end
          .transform_values(&:size)
      end

      # How much all weigh together under which a fuse opens in some call; at a first look, may open in one.
      def blowing
        @blowing ||=
          begin
            known = library.blowing.sum { |i| beliefs[i] }
            known + (beliefs.all.last * unseen_blowing(known))
          end
      end

      # Whether a further test with the power on may cost a fuse.
      def fuse_care? = @symptoms.include?(FUSE) || fuse_open? || blowing >= care_from

      # The fuse itself is open, and nothing here says what opened it.
      def fuse_open? =
        !@symptoms.include?(FUSE) && stands_high? && library.hypotheses[top.indexes.first].id == FUSE_OPEN

      # Seconds that the board's hold may last: read, or both that are usual.
      def hold_seconds = Diagnosis.hold_seconds(@situation.rig)

      private

      def care_from = Diagnosis.numbers.dig("fuse_care", library.first_look? ? "from_first" : "from")

      # How much of none of these may open a fuse, where causes are still to come: what was read speaks for those as it
      # does for the ones that are known. known: how much these weigh by now.
      def unseen_blowing(known)
        return 0.0 if library.blows_unseen.zero? || beliefs.all.last.zero?

        shares = library.hypotheses.map(&:share)
        share = shares.values_at(*library.blowing).sum
        odds = share.zero? ? 1.0 : known / share / (beliefs.all.last / shares.last)
        unseen = library.blows_unseen * odds
        unseen / (unseen + 1.0 - library.blows_unseen)
      end

      # Beliefs hang on nothing of how it is asked: wherever one stands, what they told of a test they tell again.
      def weighed(past) = Beliefs.new(library, symptoms: symptoms, evidence: @evidence, hold: @hold, past: past)

      def look_for_it
        unseen = @symptoms.reject { |symptom| looked_at?(symptom) }
        return next_tests.about(beliefs.absents(@symptoms)).first if unseen.empty?

        calls = unseen.flat_map { |symptom| calls_of(symptom) }
        looks = library.tests.select { |test| test.state && calls.include?(call_of(test)) }
        next_tests.about(top.indexes, looks, least: 0.0).max_by(&:gain)
      end

      # Of a fuse that blows: what was read while it lay open says that it was, and nothing of what opened it.
      def of_open_fuse?(clue)
        return false unless @symptoms.include?(FUSE) && library.id?(FUSE_OPEN)
        return false unless clue.test.state && NextTests.powered?(clue.test)

        open, well = [FUSE_OPEN, "nothing"].map { |id| clue.weight(library.index(id)) }
        well < open * Diagnosis.numbers.dig("fuse_care", "aside_below")
      end

      # Whether something was read in a call in which this symptom would show, and may be run to show it: of a call that
      # the weather forbids no hypothesis says what it would do.
      def looked_at?(symptom) =
        evidence.any? { |clue| clue.test.state && calls_of(symptom).include?(call_of(clue.test)) }

      # Calls in which a symptom would show, and that the weather allows.
      def calls_of(symptom)
        library.remember(:calls_of, symptom) do
          ways = Catalogue.symptoms.dig(symptom, "shows") || []
          calls = library.tests.filter_map { |test| test.state && call_of(test) }.uniq
          calls.select do |call|
            @situation.allowed?(call) && ways.any? { |way| way["call"].nil? || way["call"] == call }
          end
        end
      end

      def call_of(test) = @situation.state(test.state)&.condition&.call

      # The call that the complaint is about, set at the thermostat before anything else.
      def first_call
        calls = @symptoms.filter_map { |symptom| Catalogue.symptoms.dig(symptom, "opens", "call") } - ["defrost"]
        calls.find { |call| @situation.state(call) } || "heat"
      end

      # Columns of the looks at wires that found them otherwise.
      def wires_seen
        @wires_seen ||=
          evidence
            .select { |clue| clue.test.place.to_s.start_with?("wires_") && clue.answer_is?("otherwise") }
            .map(&:column)
      end

      # Whether a forced defrost was seen to go in: then what shows in one can be read.
      def forced? = @evidence.any?(&:gone_in?)

      # Forced and gone in: what follows is read there.
      def in_defrost?
        last = @evidence.reverse.find { |clue| clue.test.state }
        !last.nil? && last.gone_in?
      end

      def hold_now
        return nil unless @situation.rig[:y_path] == "delay"
        return told_of_hold unless @stopped

        @stopped * 60 >= hold_seconds.max ? "over" : "in_force"
      end

      # What was told of it without a number, as a road map has it.
      def told_of_hold
        return "over" if @evidence.any? { |clue| clue.test.place == "after_the_wait" }

        told = @evidence.reverse.find { |clue| clue.test.place == "since_stop" } or return nil
        told.answer_is?("within") ? "in_force" : "over"
      end

      def here
        NextTests::Here.new(
          at: @stands,
          call: @call,
          hold: @hold,
          remaining_minutes: remaining_minutes&.last,
          forced: forced?,
          powered: !fuse_care?
        )
      end

      # Tests that are not asked for again: all that were made, but for a doubtful one.
      def made = ((@evidence + @aside).map { |clue| clue.test.id }.uniq - [doubtful&.test&.id]) + @skip

      def suspect(number, belief)
        indexes = library.classes[number].sort_by { |i| [-beliefs[i], i] }
        for_it, against = clues_of(indexes.first)
        Suspect.new(
          indexes: indexes,
          belief: belief,
          for_it: for_it,
          against: against,
          proved: for_it.any? { |clue| @direct.to?(clue.test, indexes) }
        )
      end

      AMOUNTS = 3
      IN_EACH = (1 << AMOUNTS) - 1
      private_constant :AMOUNTS, :IN_EACH

      # The hypotheses, as bits of a number, one for each amount there may be of it, that give this piece of evidence at
      # least so often, how much within its answer left out. None of these is not among them, it may be anything; nor
      # what comes and goes, which at one instant is there or is not.
      def showing(told, share)
        steady = library.remember(:steady) { (0...(library.size - 1)).reject { |i| library.hypotheses[i].steady } }
        rates = beliefs.roughly(told)
        all = steady.inject(0) { |bits, i| rates[i] >= share ? bits | (IN_EACH << (AMOUNTS * i)) : bits }
        by_amount(evidence[told], share).inject(all) do |bits, (i, own)|
          (bits & ~(IN_EACH << (AMOUNTS * i))) | (own << (AMOUNTS * i))
        end
      end

      # { index => bits } of those that show otherwise the more of it there is: a bad joint that hardly hinders the one
      # may stop the other, but not both at once.
      def by_amount(clue, share)
        codes = clue.column.codes
        several =
          library.remember(:several, clue.column) { codes.each_index.select { |i| Scale.amounts(codes[i]).size > 1 } }
        roughly = clue.with(told: clue.roughly)
        several.to_h do |i|
          rates = Scale.amounts(codes[i]).map { |code| roughly.weighed(clue.column.scale.row(code)) }
          [i, rates.each_index.sum { |k| rates[k] >= share ? 1 << k : 0 }]
        end
      end

      # Evidence that speaks for and against a hypothesis, by how it compares with all the others together.
      def clues_of(index)
        weighed = evidence.each_index.map { |e| [evidence[e], beliefs.tells(e, index)] }
        [
          weighed.select { |_clue, ratio| ratio > 1.15 }.map(&:first),
          weighed.select { |_clue, ratio| ratio < 0.5 }.map(&:first)
        ]
      end

      # The evidence that speaks most against a hypothesis, by what it is; where none does, by how much.
      def worst_for(index)
        [beliefs.method(:roughly), beliefs.likelihoods.method(:[])].lazy
          .filter_map do |rates|
            rarest = evidence.each_index.min_by { |e| rates.call(e)[index] / rates.call(e).max }
            rarest && rates.call(rarest)[index] < rates.call(rarest).max * 0.5 ? evidence[rarest] : nil
          end
          .first
      end
    end
  end
end
