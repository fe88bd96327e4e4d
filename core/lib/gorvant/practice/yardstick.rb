# frozen_string_literal: true

module Gorvant
  module Practice
    # Find at the bench: what it needs on a drill's truth, by the same acts, costs and readings that a learner has.
    class Yardstick
      MOST = 16 # tests; whoever needs more is lost

      # found: whether it came to what is so, and proved it; par: Drill::Par; acts: as Act reads them, in order;
      # decision: ids of hypotheses.
      Played = Value.define(:found, :par, :acts, :decision)

      def initialize(weighing)
        @weighing = weighing
        @library = weighing.library
        @drill = weighing.drill
        @bench = Bench.new(@drill)
        @clues = []
        @dumb = @library.tests.select { |test| test.function == "microfarads" }.map(&:id) # no such meter on this bench
        @acts = []
        @tests = 0
        @standing = @bench.start
      end

      # most: tests after which it gives up.
      def play(most = MOST)
        finder = find
        while @tests < most && (choice = finder.settled? ? nil : finder.next_test)
          told = made(choice.test)
          @clues.concat(told)
          @tests += 1
          @dumb << choice.test.id if told.none? { |clue| clue.test.id == choice.test.id }
          finder = find
        end
        played(finder)
      end

      private

      def find
        Diagnosis::Finder.new(
          @library,
          symptoms: @drill.symptoms,
          evidence: @clues,
          stands: @standing.place,
          call: @standing.call,
          skip: @dumb
        )
      end

      def played(finder)
        both = decision(finder)
        Played.new(
          found: @weighing.right?(both) && @weighing.proved?(finder),
          par: Drill::Par.new(tests: @tests, minutes: (@standing.seconds / 60).round(1), walks: @standing.walks),
          acts: @acts,
          decision: both.map { |i| @library.hypotheses[i].id }
        )
      end

      # The first suspect; where nothing alone explains what was read, the two that do together.
      def decision(finder)
        pair = @weighing.truth.size > 1 && finder.pairs.all.first
        pair ? pair.members.map { |one| @library.index(one.id) } : [finder.top.indexes.first]
      end

      # [Clue] that a test of the list gives on this bench.
      def made(test)
        in_call(test)
        case test.function
        when "volts_ac"
          volts(test)
        when "ohms"
          power_off { read("act" => "ohms", "from" => test.from_node, "to" => test.to_node, "isolated" => true) }
        when "looked_up"
          read("act" => "settings", "fact" => test.place)
        when "minutes"
          read("act" => "since_stop")
        when "degrees_f"
          read("act" => "degrees", "place" => test.place)
        else
          seen(test)
        end
      end

      def seen(test)
        case test.place
        when "forced_defrost"
          read("act" => "force")
        when /\Awires_(.+)/
          read("act" => "landings", "place" => Regexp.last_match(1))
        when "after_the_wait"
          waited(@drill.rig[:board_hold_seconds] / 60.0, "contactor")
        when "after_a_minute"
          waited(Diagnosis.numbers.dig("minutes", "sequencer"), "strips")
        else
          read("act" => "look", "place" => test.place)
        end
      end

      def waited(minutes, place)
        act("act" => "wait", "minutes" => minutes)
        read("act" => "look", "place" => place)
      end

      def volts(test)
        lifted = test.state && @library.situation.state(test.state)&.lifted
        act("act" => "lift", "joint" => lifted) if lifted
        read("act" => "volts", "from" => test.from_node, "to" => test.to_node, "instrument" => test.instrument)
      ensure
        act("act" => "land", "joint" => lifted) if lifted
      end

      def power_off
        Condition::SUPPLIES.each { |supply| act("act" => "supply", "of" => supply, "value" => "off") }
        act("act" => "prove_dead")
        yield
      ensure
        Condition::SUPPLIES.each { |supply| act("act" => "supply", "of" => supply, "value" => "on") }
      end

      # The call that a test is made in; what shows in a defrost is read where one is on.
      def in_call(test)
        call = test.state && @library.situation.state(test.state).condition.call
        return if call.nil? || call == "defrost" || call == @standing.call

        act("act" => "call", "value" => call)
      end

      def read(given) = @weighing.clues(act(given))

      def act(given)
        @acts << given
        @bench.take(@standing, Act.parse(given, @drill)).tap { |outcome| @standing = outcome.standing }
      end
    end
  end
end
