# frozen_string_literal: true

module Gorvant
  module Desks
    module Find
      # A test and its answers in words, for who has a Finder with its situation, netlist and rig.
      module TestWords
        private

        # Those that the test is weighed by, and those that say less.
        def answers(test)
          choices =
            test.function == "seen" ? Observation.functions.dig("seen", "places", test.place, "choices").keys : []
          less = choices & Diagnosis.numbers.fetch("says_less").keys
          (test.scale.answers + less).map { |answer| { id: answer, title: answer_words(test, answer) } }
        end

        def says(test)
          case test.function
          when "volts_ac"
            words("test_volts", from: label(test.from_node), to: label(test.to_node), call: call_words(test))
          when "ohms"
            ohms(test)
          when "looked_up"
            words("test_looked_up", title: Catalogue.facts.fetch(test.place).fetch("title"))
          when "microfarads"
            words("test_microfarads", what: Observation.functions.dig("microfarads", "places", test.place, "title"))
          when "coil_switch"
            words("test_coil_switch")
          when "minutes"
            words("test_minutes")
          when "degrees_f"
            words("test_own_sensor")
          else
            seen(test)
          end
        end

        def ohms(test)
          return words("test_ohms", part: @netlist[test.place].label) unless test.place == "between"

          from = Naming.beside(test.from_node, test.to_node) || label(test.from_node)
          words("test_ohms_between", from: from, to: label(test.to_node))
        end

        def label(node) = @netlist.node?(node) ? @netlist.label(node) : node

        def call_words(test)
          state = @situation.state(test.state)
          title = Catalogue.calls.fetch(state.condition.call).fetch("title")
          return words("call_cold", call: title) if state.id == "heat_cold"

          state.condition.call == "off" ? words("call_off") : words("call", call: title)
        end

        def seen(test)
          if %w[after_the_wait forced_defrost ice coil_switch_watched].include?(test.place)
            return(
              words(
                "test_#{test.place}",
                minutes: @finder.remaining_minutes.to_a.uniq.map { |minutes| clock(minutes) }.join("–")
              )
            )
          end
          if test.place.start_with?("wires_")
            return words("test_wires", place: Naming.place(@rig, test.place.delete_prefix("wires_")))
          end

          title = Observation.functions.dig("seen", "places", test.place, "title")
          return words("test_lamp", what: title, call: call_words(test)) unless Diagnosis::NextTests.powered?(test)

          words("test_seen", what: title, call: test.state ? ", #{call_words(test)}" : "")
        end

        def clock(minutes)
          whole, seconds = (minutes * 60).round.divmod(60)
          "#{whole}:#{seconds.to_s.rjust(2, "0")}"
        end

        # What is done before the reading.
        def first(test)
          return nil unless test.first
          lifted = test.state && @situation.state(test.state).lifted
          lifted ? Catalogue.words(test.first, wire: @netlist[lifted].label) : Catalogue.wording.fetch(test.first)
        end

        def answer_words(test, answer)
          case test.function
          when "volts_ac", "ohms", "microfarads", "minutes", "coil_switch", "degrees_f"
            words("answer_#{answer}")
          when "looked_up"
            Comparison.words(test.place, answer)
          else
            Observation.functions.dig("seen", "choices", answer.to_s) || answer.to_s
          end
        end
      end
    end
  end
end
