# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # Which test to make next: what it is expected to tell, for what it takes from where one stands.
    class NextTests
      # gain: bits; minutes: with the walk and the change of call.
      Choice = Value.define(:test, :gain, :minutes, :worth)
      MODES = %w[cheapest fewest here].freeze
      LEAST_BITS = 0.04
      ENOUGH = 6 # the best, and some to choose otherwise

      # How things stand for whoever measures. at: place of the unit where one is, call: what is called now, each nil
      # where nobody said. hold: "in_force", "over" or nil; remaining_minutes: of a hold in force. forced: whether a
      # forced defrost was seen to go in; powered: whether the power may be on.
      Here =
        Value.define(
          :at,
          :call,
          :hold,
          :remaining_minutes,
          :forced,
          :powered,
          defaults: {
            at: nil,
            call: nil,
            hold: nil,
            remaining_minutes: nil,
            forced: false,
            powered: true
          }
        )

      # Whether a test in a call is made with the fuse in its place: with a lamp there instead nothing else can be read.
      def self.powered?(test) = !Diagnosis.numbers.fetch("fuse_lamp").key?(test.place)

      # Whether the power is off while it is made: ohms, and whatever is put in the place of the fuse.
      def self.power_off?(test) = %w[ohms microfarads].include?(test.function) || !powered?(test)

      # here: Here. made: ids of tests that are answered, or cannot be made.
      def initialize(beliefs, here, made: [], mode: "cheapest")
        @beliefs = beliefs
        @library = beliefs.library
        @situation = @library.situation
        @here = here
        @made = made.to_h { |id| [id, true] }
        @mode = mode
        @costs = Diagnosis.numbers.fetch("minutes")
      end

      # [Choice], the best first: the few that are worth most. What a test may bring is roughly told soon, and orders
      # the tests; what it really brings is asked only of those that could still come before the ones in hand.
      def all = @all ||= best(ordered)

      # Choice of the one test at a place that needs no points, where it can be made; nil otherwise.
      def of(place)
        @library.tests.find { |one| one.place == place && possible?(one) }&.then { |test| choice(test) }
      end

      # Choice of this test, where it can be made; nil otherwise.
      def choice(test)
        return nil unless possible?(test)

        valued(Choice.new(test: test, gain: @beliefs.gain(@library.column(test)), minutes: minutes(test), worth: 0.0))
      end

      # What would prove or clear these soonest: bits about them alone, of all tests or of those given.
      def about(indexes, tests = nil, least: least_bits)
        shapes = tests ? tests.group_by { |test| @library.column(test) } : @library.shapes
        candidates =
          shapes.filter_map do |column, alike|
            gain = @beliefs.gain_about(column, indexes)
            next if gain < least

            test = cheapest(alike)
            test && valued(Choice.new(test: test, gain: gain, minutes: minutes(test), worth: 0.0))
          end
        candidates.sort_by { |choice| [-choice.worth, order(choice.test)] }
      end

      # Minutes of a test from here.
      def minutes(test) = (@minutes ||= {})[test.id] ||= reckoned(test)

      def reckoned(test)
        own = test.place == "after_the_wait" && @here.remaining_minutes ? @here.remaining_minutes : test.minutes
        lost = disturbs(test).sum { |what| Diagnosis.numbers.dig("disturbs", what) }
        own + walk(test) + change(test) + panel(test) + lost
      end

      # What a test takes away from what may be read after it, keys of diagnosis.yml's "disturbs": the power is off for
      # it, and what the board had in mind is gone.
      def disturbs(test) = NextTests.power_off?(test) ? @situation.forgets : []

      # Whether it can be made now at all.
      def possible?(test)
        return false if @made.key?(test.id) || (@mode == "here" && test.at && @here.at && test.at != @here.at)
        return false if test.function == "coil_switch"
        return @here.powered && wait? if test.place == "after_the_wait"
        return @here.hold.nil? if test.place == "since_stop"
        return true if test.state.nil?
        return false unless @here.powered == NextTests.powered?(test)

        state?(@situation.state(test.state), test)
      end

      private

      # Where nothing fits all that was told, what little is left to learn is about the little that does: better than no
      # test at all.
      def least_bits = LEAST_BITS * (1.0 - @beliefs.all.last)

      # [Choice with the gain that it roughly has, Column]
      def ordered
        @library
          .shapes
          .filter_map do |column, tests|
            gain = @beliefs.rough_gain(column)
            next if gain < least_bits

            test = cheapest(tests) or next
            [valued(Choice.new(test: test, gain: gain, minutes: minutes(test), worth: 0.0)), column]
          end
          .sort_by { |choice, _column| [-choice.worth, order(choice.test)] }
      end

      def best(candidates)
        found = []
        candidates.each do |rough, column|
          break if found.size >= ENOUGH && found[ENOUGH - 1].worth >= rough.worth

          choice = valued(rough.with(gain: @beliefs.gain(column)))
          next if choice.gain < least_bits

          found << choice
          found.sort_by! { |one| [-one.worth, order(one.test)] }
        end
        found
      end

      # Small gains are worth less than their bits: most of them rule out what hardly weighs, and leave what has to be
      # told apart where it was.
      def valued(choice)
        return choice.with(worth: choice.gain) if @mode == "fewest"

        told = [choice.gain, 0.0].max**Diagnosis.numbers.fetch("small_gains")
        choice.with(worth: told / (choice.minutes + @costs["aside"]))
      end

      def cheapest(tests) = soonest(tests.select { |test| possible?(test) })

      # Of tests that tell the same, the one that takes least; of two alike, the one that stands first on its strip.
      def soonest(tests) = tests.min_by { |test| [minutes(test), order(test)] }
      def order(test) = @library.position(test)

      def wait? = @here.hold == "in_force"

      # During a hold only what the hold leaves can be read; a defrost has to be forced, a cold coil to be cold.
      def state?(state, test)
        call = state.condition.call
        return false unless @situation.allowed?(call)
        return @here.hold == "in_force" && test.function == "seen" if state.id.end_with?("_hold")
        return @here.forced || @here.call == "defrost" if call == "defrost"
        if @here.hold == "in_force" && Catalogue.calls.fetch(call)["stage"].positive? && test.place != "forced_defrost"
          return false
        end

        state.id != "heat_cold" || cold_enough?
      end

      def cold_enough? =
        @situation.outdoor_degrees_f.nil? ||
          @situation.outdoor_degrees_f <= Diagnosis.numbers.fetch("frost_below_degrees_f")

      def walk(test) = test.at && @here.at && test.at != @here.at ? @costs["walk"] : 0.0

      def change(test)
        call = test.state && @situation.state(test.state).condition.call
        return 0.0 if call.nil? || call == @here.call

        return @costs["defrost"] if call == "defrost"

        about = Catalogue.calls.fetch(call)
        @costs["call"] + (about["aux"] || about["stage"] > 1 ? @costs["second_call"] : 0.0)
      end

      def panel(test) =
        %w[volts_ac ohms].include?(test.function) && test.at != "wall" && test.at != @here.at ? @costs["panel"] : 0.0
    end
  end
end
