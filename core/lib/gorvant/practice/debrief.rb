# frozen_string_literal: true

module Gorvant
  module Practice
    # A drill gone over again, act by act: what each told of what was so, and what would have told more.
    class Debrief
      # says: what was read; bits: towards the truth, negative where it led away, nil where it weighs nothing; better:
      # { "says", "bits" } of the test that Find would have made then, nil where this was as good.
      Step = Value.define(:act, :title, :says, :minutes, :place, :nodes, :bits, :note, :stopped, :better)

      def initialize(weighing, outcomes)
        @weighing = weighing
        @outcomes = outcomes
        @netlist = weighing.library.situation.netlist
      end

      # [Step] in order.
      def steps
        clues = []
        before = @weighing.finder(clues)
        @outcomes.map do |act, outcome|
          told = @weighing.told(outcome)
          steady = @weighing.clues(outcome)
          clues += steady
          after = steady.any? ? @weighing.finder(clues, outcome.standing) : before
          step = step(act, outcome, told, steady, before, after)
          before = after
          step
        end
      end

      # What was so, in words: titles, how it shows, how it is proved; and where, to be lit on a drawing.
      def truth
        @weighing.drill.truth.hypotheses.map do |one|
          ats = [one.at, *one.faults.flat_map { |fault| Array(fault["at"]) }].compact.uniq
          one.to_h.slice(:title, :shows, :proof, :licensed).compact.merge(lit: ats)
        end
      end

      private

      def step(act, outcome, told, steady, before, after)
        Step.new(
          act: act.kind,
          title: ActWords.title(act, @netlist),
          says: outcome.says,
          minutes: (outcome.standing.seconds / 60).round(1),
          place: outcome.standing.place,
          nodes: act.nodes,
          bits: steady.any? ? bits(before, after) : nil,
          note: note(act, told, steady),
          stopped: outcome.stopped&.code,
          better: told.any? && outcome.stopped.nil? ? better(before, told.first) : nil
        )
      end

      def note(act, told, steady)
        return nil if steady.any?
        return Catalogue.wording.fetch("practice.moving") if told.any?

        Score::READS.include?(act.kind) ? Catalogue.wording.fetch("practice.told_nothing") : nil
      end

      def bits(before, after)
        was, is = [before, after].map { |finder| [@weighing.belief(finder.beliefs), 1e-6].max }
        Math.log2(is / was).round(2)
      end

      # What Find would have read then, where it was worth clearly more than what was.
      def better(finder, clue)
        choice = finder.next_test or return nil
        mine = finder.beliefs.gain(clue.column)
        return nil if choice.test.id == clue.test.id || choice.gain < mine + 0.25

        {
          "says" => self.class.test_words(choice.test, @netlist),
          "bits" => choice.gain.round(2),
          "mine" => mine.round(2)
        }
      end

      class << self
        # A test in words: its call, and its two points or its place.
        def test_words(test, netlist)
          where = test.from_node ? "#{netlist.label(test.from_node)} – #{netlist.label(test.to_node)}" : place(test)
          call = test.state && Catalogue.calls.dig(test.state, "title")
          [call, functions.fetch(test.function, {})["title"], where].compact.join(" · ")
        end

        private

        def functions = Observation.functions

        def place(test)
          return Catalogue.facts.fetch(test.place).fetch("title") if test.function == "looked_up"

          about = functions.fetch(test.function, {}).fetch("places", {})[test.place]
          about.is_a?(Hash) ? about.fetch("title") : about || Naming.component(test.place)
        end
      end
    end
  end
end
