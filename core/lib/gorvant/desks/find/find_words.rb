# frozen_string_literal: true

module Gorvant
  module Desks
    module Find
      # What Find says: suspects, tests and answers in words, as a plain Hash.
      class Words
        include TestWords

        MOST_SUSPECTS = 8
        LEAST_SUSPECTS = 3
        LEAST_SHOWN = 0.005
        MOST_ALIKE = 6
        MOST_OTHERS = 4
        MOST_ALSO = 2 # at a leaf of a road map
        MOST_LOOKED_AT = 8
        WORTH_NAMING = 0.05
        FOUND = %w[found landings proved].freeze # a fault stands there, and not by weighing alone

        def initialize(finder)
          @finder = finder
          @library = finder.library
          @situation = @library.situation
          @netlist = @situation.netlist
          @rig = @situation.rig
        end

        def to_h
          {
            looked_at: {
              hypotheses: @library.size,
              classes: @library.classes.size,
              tests: @library.known_tests
            },
            first_look: first_look,
            stands: @finder.stands,
            call: @finder.call,
            mode: @finder.mode,
            outcome: outcome,
            mark: mark,
            next: next_test,
            suspects: suspects.map { |one| suspect(one) },
            rest: rest,
            hold: hold,
            care: care,
            beside: beside,
            changed: @finder.contradictions.map { |one| changed(one) },
            unlikely: @finder.unlikely.map { |one, clue| { title: hypothesis(one).title, says: clue_words(clue) } },
            evidence: evidence,
            assumed: assumed
          }
        end

        # How it stands, in a mark: a fault that was found or proved disagrees; right, and complained of all the same,
        # agrees; all else is so far as was read.
        def mark
          return "untouched" if @finder.evidence.empty?

          key, says = outcome_words
          return "disagrees" if FOUND.include?(key)

          says == "as_designed" ? "agrees" : "so_far"
        end

        # What would prove or clear one suspect soonest: [test].
        def about(id)
          wanted =
            @finder
              .suspects(@library.classes.size)
              .find { |one| one.indexes.any? { |i| @library.hypotheses[i].id == id } }
          return nil unless wanted

          @finder
            .next_tests
            .about(wanted.indexes)
            .first(MOST_OTHERS)
            .map { |choice| choice_hash(choice).merge(expects: predicted(wanted, choice.test)) }
        end

        # A test as a road map has it.
        def station(choice) = choice_hash(choice).slice(:says, :first, :at_title, :minutes, :cautions)

        # The tests from here on as a tree: { test, branches: [{ answer, share, then }] } down to { title, share,
        # proof, sure }.
        def road_map(&again)
          tree = stop(Diagnosis::RoadMap.new(@finder, &again).root)
          { leaves: ends(tree), tree: tree }
        end

        private

        def stop(one)
          return leaf(one) unless one.choice

          branches =
            one.branches.map do |following|
              answer = answer_words(one.choice.test, following.answer)
              { answer: answer, share: following.share.round(3), then: stop(following) }
            end
          { test: Words.new(one.finder).station(one.choice), branches: merged(branches) }
        end

        def ends(tree) = tree[:test] ? tree[:branches].sum { |branch| ends(branch[:then]) } : 1

        # Answers that come to one and the same are one way, with the least share of them.
        def merged(branches)
          ways = branches.group_by { |branch| plain_leaf(branch[:then]) || branch }.values
          ways.map do |same|
            least = same.map { |branch| branch[:then] }.min_by { |leaf| leaf[:share].to_s[/\d+/].to_i }
            answer = same.map { |branch| branch[:answer] }.join("; ")
            same.first.merge(answer: answer, share: same.sum { |branch| branch[:share] }.round(3), then: least)
          end
        end

        # What makes two leaves alike; nil of a station, and of one that names others beside it.
        def plain_leaf(stop) = stop[:test] || stop[:also].any? ? nil : stop.values_at(:title, :proof, :sure)

        # The next in weight where it is not told apart.
        def also(one)
          remedies = @library.remedies
          mine = remedies[one.finder.top.indexes.first]
          others =
            one
              .finder
              .suspects(MOST_LOOKED_AT)
              .select { |suspect| suspect.belief >= WORTH_NAMING && remedies[suspect.indexes.first] != mine }
          others.first(MOST_ALSO).map { |suspect| "#{hypothesis(suspect).title} #{percent(suspect.belief)}" }
        end

        # What a way comes to: sure, or where to go on.
        def leaf(one)
          return not_now_leaf(one.finder) if one.finder.not_now?
          return landings_leaf(one.finder) if one.finder.landings_seen?

          top = @library.hypotheses[one.finder.top.indexes.first]
          sure = one.finder.sure? || one.finder.found?
          proof = sure ? top.proof : words("back_to_find")
          {
            title: top.title,
            share: percent(one.finder.remedy_belief),
            proof: proof,
            sure: sure,
            also: sure ? [] : also(one)
          }
        end

        def landings_leaf(finder)
          share = percent(finder.remedy_belief)
          { title: words("landings"), share: share, proof: words("landings_proof"), sure: true, also: [] }
        end

        def not_now_leaf(finder)
          share = percent(finder.absent_belief)
          { title: words("not_now"), share: share, proof: words("not_now_proof"), sure: true, also: [] }
        end

        # The first few, and of the others those that still weigh something.
        def suspects =
          @suspects ||=
            @finder
              .suspects(MOST_SUSPECTS)
              .each_with_index
              .select { |one, i| i < LEAST_SUSPECTS || one.belief >= LEAST_SHOWN }
              .map(&:first)
        def hypothesis(suspect) = @library.hypotheses[suspect.indexes.first]
        def words(key, **fields) = Catalogue.words("find.#{key}", **fields)

        # --- how it stands

        def outcome
          key, says, top = outcome_words
          fields = { title: top.title, share: percent(outcome_share(key)), proof: top.proof.to_s }
          fields = fields.merge(count: @finder.evidence.size)
          { key: key, says: words("outcome_#{says}", **fields), not_proved: words("not_proved_#{says}", **fields) }
        end

        # What is there before the rest is worked out; nil where all of it is.
        def first_look
          return nil unless @library.first_look?

          calls = @library.look.states.map { |id| @situation.state(id).condition.call }.uniq
          titles = calls.map { |call| Catalogue.calls.fetch(call).fetch("title") }
          words("first_look", known: @library.size, all: @library.all_size, calls: titles.join(", "))
        end

        # [key, key of its words, what it speaks of]
        def outcome_words
          key = outcome_key(hypothesis(@finder.top))
          top = hypothesis(key == "open" ? leading : @finder.top)
          [key, all_clear?(top, key) ? "nothing_now" : key, top]
        end

        def outcome_share(key)
          return (key == "open" ? leading : @finder.top).belief if %w[open nothing_left].include?(key)

          @finder.not_now? ? @finder.absent_belief : @finder.remedy_belief
        end

        # The first that says something: none of these stands in front only until something was read.
        def leading = suspects.find { |one| !hypothesis(one).none_of_these? } || @finder.top

        # In front stands what is right, and complained of all the same.
        def as_designed_and_right?(top) = top.as_designed? && top.explains.any? && top.id != "nothing"

        # Nothing wrong is only as far as was looked: it is said with how much that was.
        def all_clear?(top, key) = top.id == "nothing" && top.as_designed? && %w[as_designed nothing_left].include?(key)

        def outcome_key(top)
          return "open" if @library.first_look?
          return "none" if top.none_of_these? && @finder.unexplained?
          return "found" if @finder.found?
          return "landings" if @finder.landings_seen?
          return "fuse_open" if @finder.fuse_open? && @finder.top.proved
          return sure_key(top) if @finder.sure?
          return as_designed_and_right?(top) ? "as_designed" : "not_now" if @finder.not_now?

          @finder.next_test ? "open" : "nothing_left"
        end

        def sure_key(top)
          return "as_designed" if top.as_designed?

          @finder.top.proved ? "proved" : "unproved"
        end

        def percent(share) = share >= 0.995 ? "over 99%" : "#{[(share * 100).round, 1].max}%"

        def rest
          share = 1.0 - suspects.sum(&:belief)
          { belief: [share, 0.0].max.round(4), classes: @library.classes.size - suspects.size }
        end

        def suspect(one)
          own = hypothesis(one)
          {
            id: own.id,
            title: own.title,
            kind: own.kind,
            sort: words("sort_#{sort(own)}"),
            as_designed: own.as_designed?,
            belief: one.belief.round(4),
            alike: one.indexes.drop(1).first(MOST_ALIKE).map { |i| @library.hypotheses[i].title },
            alike_count: one.indexes.size - 1,
            shows: own.shows,
            proof: own.proof,
            licensed: own.licensed,
            proved: one.proved,
            faults: own.faults,
            carried_by: one.for_it.map { |clue| clue_words(clue) },
            against: one.against.map { |clue| clue_words(clue) },
            predicts: @finder.next_test && predicted(one, @finder.next_test.test)
          }
        end

        SORTS = {
          "as_designed" => "as_designed",
          "set_up" => "set_up",
          "rig" => "rig",
          "found" => "found",
          "none" => "none",
          "opened" => "opened",
          "intermittent" => "at_times"
        }.freeze
        private_constant :SORTS

        def sort(own) = SORTS.fetch(own.kind, "fault")

        def predicted(suspect, test)
          answer, share = @finder.predicts(suspect, test)
          answer.nil? ? nil : { answer: answer.to_s, title: answer_words(test, answer), share: share.round(2) }
        end

        # --- tests

        def next_test
          choice = @finder.next_test or return nil
          choice_hash(choice).merge(
            splits:
              @finder
                .splits(choice.test)
                .map do |answer, count|
                  { answer: answer.to_s, title: answer_words(choice.test, answer), count: count }
                end,
            others: others(choice)
          )
        end

        def others(choice) =
          @finder
            .next_tests
            .all
            .reject { |one| one.test.id == choice.test.id }
            .first(MOST_OTHERS)
            .map { |one| choice_hash(one) }

        def choice_hash(choice)
          test = choice.test
          {
            id: test.id,
            says: says(test),
            first: first(test),
            again: again(test),
            minutes: choice.minutes.round(1),
            bits: choice.gain.round(2),
            at: test.at,
            at_title: test.at && Naming.place(@rig, test.at),
            function: test.function,
            from_node: test.from_node,
            to_node: test.to_node,
            place: test.function == "ohms" ? nil : test.place,
            instrument: test.instrument,
            isolated: test.isolated,
            condition: condition(test),
            cautions: cautions(test),
            answers: %w[volts_ac ohms microfarads degrees_f].include?(test.function) ? [] : answers(test)
          }
        end

        # Why it is asked for once more; nil where it was not made yet.
        def again(test)
          doubtful = @finder.doubtful
          return nil unless doubtful && doubtful.test.id == test.id

          words("again_#{doubtful.why}", answer: answer_of(doubtful.clue))
        end

        # What can hurt, and what it takes away: the lamp is read before the power is touched.
        def cautions(test)
          lost = @finder.next_tests.disturbs(test).map { |what| "disturbs_#{what}" }
          (test.cautions + lost).map { |key| Catalogue.cautions.fetch(key) }
        end

        # As the reading is to be kept: the call and what is supposed for it.
        def condition(test)
          state = test.state && @situation.state(test.state)
          return { "call" => @finder.call } unless state

          given = state.condition.to_json_hash
          given.slice("call", "faults", "coil_degrees_f").reject { |_key, value| value == [] }
        end

        # --- evidence

        # What was weighed, and what was read while the fuse lay open.
        def evidence =
          @finder.evidence.map { |clue| { source: clue.source, says: clue_words(clue), aside: false } } +
            @finder.aside.map do |clue|
              { source: clue.source, says: words("aside", says: clue_words(clue)), aside: true }
            end

        def clue_words(clue) = "#{says(clue.test).delete_suffix("?")}: #{answer_of(clue)}"

        def answer_of(clue)
          known = clue.test.scale.answers.find { |answer| answer.to_s == clue.answer }
          known.nil? ? clue.answer : answer_words(clue.test, known)
        end

        def changed(one)
          if one.kind == "impossible"
            first, second = one.clues.map { |clue| timed(clue) }
            return { says: words("impossible", first: first, second: second) }
          end

          times = one.clues.map { |clue| [clue.answer, clue.at && clue.at[11, 5]].compact.join(" at ") }
          { says: words("changed", test: says(one.clues.first.test), list: times.join(", then ")) }
        end

        def timed(clue) = [clue_words(clue), clue.at && clue.at[11, 5]].compact.join(" at ")

        # Where nothing alone explains it: two at once, and the reading to repeat, where that is not what comes next.
        def beside
          return nil unless @finder.unexplained?

          doubtful = @finder.doubtful
          doubtful = nil if doubtful && @finder.next_test&.test&.id == doubtful.test.id
          pairs = @finder.pairs.all.map { |pair| pair_words(pair) }
          return nil if pairs.empty? && doubtful.nil?

          { pairs: pairs, repeat: doubtful && words("repeat", says: clue_words(doubtful.clue)) }
        end

        def pair_words(pair)
          titles = pair.members.map(&:title)
          {
            says:
              words("pair", first: titles[0], second: titles[1], count: pair.explains.size, all: @finder.evidence.size),
            faults: pair.members.flat_map(&:faults)
          }
        end

        # How to go on where a further test may cost a fuse.
        def care
          return nil unless @finder.fuse_care?

          about = Diagnosis.numbers.fetch("fuse_care")
          {
            title: words("fuse_care"),
            steps: about["steps"],
            cautions: about["cautions"].map { |key| Catalogue.cautions.fetch(key) }
          }
        end

        def hold
          remaining = @finder.remaining_minutes
          return nil unless @finder.hold

          { state: @finder.hold, minutes: remaining&.map { |minutes| minutes.round(2) } }
        end

        # Facts that the answer leans on and nobody has read.
        def assumed
          keys = @rig.assumed & Diagnosis.doubted_facts
          keys.map do |key|
            "#{Catalogue.facts.fetch(key).fetch("title")}: #{Comparison.words(key, @rig[key.to_sym])}"
          end + @situation.told + past
        end

        # What earlier visits found that counts here: of what this unit cannot have, as noted today, nothing follows.
        def past
          counted =
            @finder.past.select do |past|
              past.nothing? || @library.hypotheses.each_index.any? { |i| past.of?(@library, i) }
            end
          counted.map do |past|
            key = past.nothing? ? "past_nothing" : past.mended ? "past_mended" : "past_left"
            words(key, day: past.on, title: past.title)
          end
        end
      end
    end
  end
end
