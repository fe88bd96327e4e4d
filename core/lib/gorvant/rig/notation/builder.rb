# frozen_string_literal: true

module Gorvant
  module Notation
    # From rungs to a rig: what the words say of the unit, and which conductors they name. What they leave open takes
    # the archetype's answer and counts as assumed.
    class Builder
      def initialize(reader, name)
        @reader = reader
        @name = name
        @said = {} # { fact key => [value, Word] }
        @problems = []
      end

      # The rig, proved to have the rungs that were typed.
      def rig
        unproved.tap do |built|
          problems = Proof.new(built, @reader.rungs).problems
          raise BadNotation.new(problems) if problems.any?
        end
      end

      def unproved
        @reader.rungs.each { |rung| shape(rung) }
        stop_if_wrong
        infer
        stop_if_wrong
        build
      end

      private

      def blame(word, says, suggestion = nil)
        @problems << {
          "line" => word.line,
          "column" => word.column,
          "length" => word.length,
          "word" => word.text,
          "problem" => says,
          "suggestion" => suggestion
        }
      end

      def stop_if_wrong = @problems.any? && raise(BadNotation.new(@problems))

      # A rung goes from R through one load to C; a line without a load tells of conductors alone.
      def shape(rung)
        rung.feeds.each_with_index do |words, i|
          loads = words.select(&:load?)
          blame(loads[1], "is a second load in one rung; give it a rung of its own") if loads.size > 1
          words.each_with_index { |word, at| place(word, at, words) }
          blame(words.first, "begins the rung; a rung begins at R", "R") if loads.any? && words.first.text != "R"
          blame(words.first, "begins another feed; a feed begins at R", "R") if i.positive? && words.first.text != "R"
          if loads.empty? && words.first.text == "R" && words.last.text == "C"
            blame(words.last, "joins R to C without a load: a dead short. Name the load between, such as (CC)")
          end
        end
      end

      def place(word, at, words)
        after = words[at + 1]
        blame(word, "is a rail; it stands at the beginning alone") if word.text == "R" && at.positive?
        blame(word, "is the way home; it stands at the end alone") if word.text == "C" && after
        lead(word, words.drop(at + 1).find { |other| !Vocabulary::INLINE.include?(other.text) })
        return unless after

        blame(after, "stands after #{word.text}, where only C can") if word.load? && after.text != "C"
        blame(after, "would jumper #{word.text} to itself") if word.terminal? && after.text == word.text
      end

      # A color speaks of the conductor from one place to another.
      def lead(word, after)
        return if word.sheaths.nil? || (word.terminal? && after&.terminal? && after.place != word.place)

        blame(word, "leads on by a conductor, so a terminal of another place has to follow")
      end

      def say(key, value, word)
        before = @said[key]
        return @said[key] = [value, word] if before.nil? || before[0] == value

        blame(
          word,
          "says #{Catalogue.facts.fetch(key)["title"].downcase}: #{Comparison.words(key, value)}; " \
            "line #{before[1].line} says #{Comparison.words(key, before[0])}"
        )
      end

      def words = @words ||= @reader.rungs.flat_map { |rung| rung.feeds.flatten }
      def find(*texts) = words.find { |word| texts.include?(word.text) }
      def rung(*loads) = @reader.rungs.find { |one| one.load && loads.include?(one.load.text.delete("()")) }
      def tell(key, value, *texts) = find(*texts).then { |word| say(key, value, word) if word }

      def infer
        changeover
        stages
        backup
        contactor
        valve
        board
        across
        @reader.facts.each { |fact| @said[fact.key] = [fact.value, fact.word] }
      end

      def changeover
        tell("changeover", "O", "air_handler.O", "outdoor.O")
        tell("changeover", "B", "air_handler.B", "outdoor.B")
        tell("changeover_terminal", "single", "wall.OB")
        tell("changeover_terminal", "separate", "wall.O", "wall.B")
        tell("w1_terminal", true, "wall.W1")
      end

      def stages
        tell("compressor_stages", 2, "(CC2)", "(Y2S)", "wall.Y2", "air_handler.Y2", "outdoor.Y2")
        tell("stage_2", "contactor", "(CC2)")
        tell("stage_2", "solenoid", "(Y2S)")
        stage = rung("CC2", "Y2S") or return
        say("stage_2_in_defrost", stage.feeds.any? { |feed| joins?(feed, "DFR/no", "outdoor.Y2") }, stage.load)
      end

      def backup
        tell("backup", "gas", "(GAS)")
        tell("backup", "strips", "(SEQ)", "(SEQ2)", "(HR)", "(HR2)", "(BIR)")
        tell("strip_switch", "sequencer", "(SEQ)", "(SEQ2)")
        tell("strip_switch", "relay", "(HR)", "(HR2)")
        tell("strip_banks", 2, "(SEQ2)", "(HR2)")
        tell("blower_on_w", true, "(BIR)")
        tell("outdoor_thermostat", true, "ODT", "air_handler.W2", "outdoor.W2", "outdoor.W2_in")
        tell("thermostat_power", "common", "(THERMOSTAT)")
        emergency
        if @reader.rungs.any? { |rung| (rung.feeds.first.map(&:text) - %w[FLS]) == %w[R air_handler.R] }
          say("fuse_amps", 0, words.first)
        end
        indoor_switches
      end

      # A float switch in R stands before the strip, one in Y after it.
      def indoor_switches
        tell("freeze_stat", true, "FRS")
        supply, others =
          @reader
            .rungs
            .flat_map(&:feeds)
            .select { |feed| feed.any? { |word| word.text == "FLS" } }
            .partition { |feed| feed.last.text == "air_handler.R" }
        { "r" => supply, "y" => others }.each do |way, feeds|
          feeds.each { |feed| say("float_switch", way, feed.find { |word| word.text == "FLS" }) }
        end
      end

      def emergency
        jumper = pairs.find { |first, second| [first.text, second.text].sort == %w[wall.E wall.W2] }
        conductor =
          pairs.find do |first, second|
            [first, second].any? { |word| word.text == "wall.E" } && first.place != second.place &&
              [first, second].all?(&:terminal)
          end
        both = [jumper, conductor].compact
        if both.any?
          say("emergency_path", both.size == 2 ? "both" : (jumper ? "jumper" : "two_conductors"), both.first.first)
        end
      end

      def contactor
        found = rung("CC") or return
        texts = found.feeds.first.map(&:text)
        say("y_path", texts.include?("K") ? "delay" : "trace", found.load)
        say(
          "safeties",
          (
            if texts & safeties == texts.select { |text| safeties.include?(text) }
              texts & safeties
            else
              texts.select { |text| safeties.include?(text) }
            end
          ),
          found.load
        )
        say("safeties_return", texts.include?("M") ? "board" : "contactor", found.load)
        tap = texts.index("T1") or return
        first = texts.index { |text| (safeties + %w[K M]).include?(text) }
        say("run_time_tap", first && first > tap ? "on_y" : "after_safeties", found.feeds.first[tap])
      end

      def safeties = Options.string("safeties")

      # Loads that hang between two points, each by its own word.
      def across = (Options.across & Options.low).each { |code| tell(Options.fact(code), true, "(#{code})") }

      def valve
        tell("valve_volts", "line", "(RVR)")
        tell("valve_volts", "low", "(RVS)")
        tell("defrost_method", "hot_gas", "(HGS)")
        found = rung("RVS", "RVR") or return
        say("valve_feed", "changeover", found.load) if found.feeds.any? { |feed| joins?(feed, "outdoor.O", "DFR/nc") }
        say("valve_feed", "one_trace", found.load) if found.feeds.any? { |feed| joins?(feed, "DFR/no", "outdoor.O") }
      end

      def board
        tell("defrost_relays", 2, "(DFR2)")
        tell("sensing", "thermistors", "(COIL_T)", "(AMB_T)")
        tell("sensing", "coil_switch", "DFT", "(DFT_IN)", "APS", "(APS_IN)")
        tell("air_pressure_switch", true, "APS", "(APS_IN)")
        tell("lockout_diverts", true, "LOCK")
        all = @reader.rungs.flat_map(&:feeds)
        say("w2_path", "apart", find("outdoor.W2_in")) if all.any? { |feed| joins?(feed, "outdoor.W2_in", "DFR/nc") }
        if all.any? { |feed| joins?(feed, "outdoor.W2_in", "outdoor.W2_out") }
          say("w2_path", "one_trace", find("outdoor.W2_in"))
        end
      end

      def joins?(feed, first, second) = feed.each_cons(2).any? { |a, b| a.text == first && b.text == second }

      # Each two terminals that follow each other.
      def pairs
        @pairs ||=
          @reader.rungs.flat_map do |rung|
            rung.feeds.flat_map do |feed|
              feed
                .reject { |word| Vocabulary::INLINE.include?(word.text) }
                .each_cons(2)
                .select { |one| one.all?(&:terminal?) }
            end
          end
      end

      def build
        facts =
          @said.transform_values do |value, _word|
            Fact.new(value: value, provenance: Provenance.new(source: "diagram"))
          end
        bare = Rig.build(name: @name, archetype: "split_heat_pump", facts: facts, cables: [])
        wiring = Wiring.new(bare, @reader.cables, pairs)
        raise BadNotation.new(wiring.problems) if wiring.problems.any?

        Rig.build(**bare.to_h, cables: wiring.cables, jumpers: wiring.jumpers)
      rescue BadRigFile => e
        raise BadNotation.new(e.problems.map { |problem| blamed(problem) })
      end

      # The word that an error of the rig's own check is about.
      def blamed(problem)
        key = problem["field"][%r{\A/facts/([^/]+)}, 1]
        word = @said.dig(key, 1) || words.first || Word.new(text: "", line: 1, column: 1, length: 1)
        {
          "line" => word.line,
          "column" => word.column,
          "length" => word.length,
          "word" => word.text,
          "problem" => problem["problem"],
          "suggestion" => nil
        }
      end
    end
  end
end
