# frozen_string_literal: true

module Gorvant
  module Practice
    # Draws drills of a free bench from a unit's library, seeded: a truth that its complaint shows, of the subject and
    # level asked for, that Find comes to at the bench.
    class DrillMaker
      TRIES = 8

      # library: Diagnosis::Library of the rig as drawn, in the weather of the drill.
      def initialize(library)
        @library = library
        @situation = library.situation
        @netlist = @situation.netlist
      end

      # Drill, or nil where this rig has nothing of this subject and level that Find comes to.
      def drill(subject, level, seed)
        random = Random.new(seed)
        TRIES.times do
          hypotheses, symptom = drawn(subject, level, random)
          return nil unless hypotheses

          drill = checked(subject, level, seed, hypotheses, symptom, random)
          return drill if drill
        end
        nil
      end

      # [index] of what a subject and level may hide on this rig.
      def members(subject, level)
        about = Practice.numbers.fetch("subjects").fetch(subject)
        kinds = about["kinds"] & kinds_of(level)
        @library.hypotheses.each_index.select do |i|
          one = @library.hypotheses[i]
          next false if one.steady || one.none_of_these? || !kinds.include?(one.kind)
          next shows_on_bench?(one) if one.as_designed?

          @library.marks_of(i) && about["parts"].any? { |part| touches?(one, part) }
        end
      end

      private

      def kinds_of(level)
        kinds = Practice.numbers.fetch("levels").fetch(level)["kinds"]
        kinds == "all" ? @library.hypotheses.map(&:kind).uniq : kinds
      end

      def touches?(one, part) =
        [one.id, one.at, *one.faults.flat_map { |fault| Array(fault["at"]) }].compact.any? do |at|
          at == part || at.start_with?(part) || at.include?(".#{part}") || at.include?(":#{part}")
        end

      # What is as designed only where the weather, or the moment, brings it about by itself.
      def shows_on_bench?(one)
        return false unless Practice.numbers.fetch("bench_designs").include?(one.id)
        return true if %w[hold nothing].include?(one.id)

        outdoor = @situation.outdoor_degrees_f
        case one.id
        when "odt_warm"
          Hysteresis.outdoor_thermostat(@situation.rig).at(outdoor) == "open"
        when "above_balance"
          outdoor > @situation.rig[:auxiliary_balance_degrees_f]
        else
          outdoor < @situation.rig[:compressor_balance_degrees_f]
        end
      end

      # [[Hypothesis], symptom] or nil.
      def drawn(subject, level, random)
        choices = complained(subject, members(subject, level))
        return nil if choices.empty?

        index, symptom = choices.sample(random: random)
        return [@library.hypotheses[index]], symptom unless Practice.numbers.dig("levels", level, "pair")

        other =
          members(subject, 3).reject { |i| @library.remedies[i] == @library.remedies[index] }.sample(random: random)
        other && [[@library.hypotheses[index], @library.hypotheses[other]], symptom]
      end

      # [[index, symptom]] of what somebody would complain of.
      def complained(subject, indexes)
        symptoms = Practice.numbers.dig("subjects", subject, "symptoms")
        symptoms.flat_map do |symptom|
          beliefs = by_symptom(symptom)
          indexes.select { |i| beliefs.shows?(i, symptom) || explains?(i, symptom) }.map { |i| [i, symptom] }
        end
      end

      def explains?(index, symptom) = (@library.hypotheses[index].explains[symptom] || 0.0) > 0.1

      def by_symptom(symptom) = (@by_symptom ||= {})[symptom] ||= Diagnosis::Beliefs.new(@library, symptoms: [symptom])

      def checked(subject, level, seed, hypotheses, symptom, random)
        drill =
          Drill.new(
            form: "find",
            subject: subject,
            level: level,
            seed: seed,
            rig: @situation.rig,
            symptoms: [symptom],
            outdoor_degrees_f: @situation.outdoor_degrees_f,
            truth: truth(hypotheses, level, random)
          )
        most = Practice.numbers.dig("levels", level, "most")
        played = Yardstick.new(Weighing.new(drill, @library)).play(most)
        fits = played.found && played.par.tests.positive?
        fits ? drill.with(par: played.par) : nil
      rescue BadAct, BadCondition, ZeroTimeLoop, BadScript
        nil
      end

      def truth(hypotheses, level, random)
        spells = Practice.numbers.dig("levels", level, "spells") && !hypotheses.first.as_designed?
        Truth.new(hypotheses: hypotheses, spells: spells ? spells(random) : nil, codes: codes(hypotheses))
      end

      # Where it is so at first and then comes and goes.
      def spells(random)
        about = Practice.numbers.fetch("spells")
        at = 0.0
        list = []
        while at < about["hours"] * 3600
          upto = at + (random.rand(Range.new(*about["on_minutes"])) * 60)
          list << [at.round, upto.round]
          at = upto + (random.rand(Range.new(*about["off_minutes"])) * 60)
        end
        list
      end

      # { test id => code } of what the steady circuit tells and a run does not: ohms of parts alone, a lamp in place of
      # the fuse, ice.
      def codes(hypotheses)
        indexes = hypotheses.map { |one| @library.index(one.id) }
        well = @library.index("nothing")
        lamps = Diagnosis.numbers.fetch("fuse_lamp").keys
        tests = @library.tests.select { |test| test.function == "ohms" || ["ice", *lamps].include?(test.place) }
        tests.to_h do |test|
          all = @library.column(test).codes
          otherwise = indexes.map { |i| all[i] }.find { |code| code != all[well] }
          [test.place == "ice" ? "ice" : test.id, Diagnosis::Scale.usual(otherwise || all[indexes.first])]
        end
      end
    end
  end
end
