# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # One piece of evidence as Find weighs it. test: Test; column: Library::Column; told: [weight] of each cell of its
    # scale; answer: the answer in words; bounds: [least, most] of an amount, nil of a choice; source: what it came from
    # (a reading's id, or a page); at: when, as it was told.
    Clue =
      Value.define(
        :test,
        :column,
        :told,
        :answer,
        :bounds,
        :condition,
        :source,
        :at,
        defaults: {
          bounds: nil,
          condition: nil,
          source: nil,
          at: nil
        }
      )

    class Clue
      # How probable it is to be told so where a hypothesis, by its index, is true.
      def weight(index)
        weighed(column.codes[index] ? column.scale.row(column.codes[index]) : column.none)
      end

      # The same of a row of cells.
      def weighed(row) = row.zip(told).sum { |share, weight| share * weight }

      # The same, how much within its answer left out: 0.5 is half of all that are told of it.
      def roughly_weighed(row) = row.zip(roughly).sum { |share, weight| share * weight }

      # Whether a forced defrost was told to have gone in, whatever it did then.
      def gone_in? = test.place == "forced_defrost" && told_of.all? { |one| one.start_with?("goes_in") }

      # The answers of the test that it may have been.
      def told_of = test.scale.told_of(told).map(&:to_s)

      # Whether another reading of the same test says otherwise: another answer, an amount farther off than meter and
      # line wander.
      def unlike?(other)
        return false if told_of.intersect?(other.told_of)
        return true unless bounds && other.bounds

        low, high = [bounds, other.bounds].sort
        apart = Diagnosis.numbers.fetch("changed")
        high.first - low.last >= (apart[test.function] || (apart.fetch("share") * high.last))
      end

      # The same with the whole of each such answer: how much within it is left out.
      def roughly = test.scale.telling(told_of)

      # Whether this and nothing else was told.
      def answer_is?(answer) = told_of == [answer.to_s]
    end

    # Makes clues of what a person told: an Observation and the Condition that it was made in.
    class Clues
      def initialize(library)
        @library = library
        @situation = library.situation
        @numbers = Diagnosis.numbers
      end

      # Clue, or nil where it tells nothing of what could be so. minutes: since the compressor stopped, where known.
      def of(observation, condition, source: nil, at: nil, minutes: nil)
        return nil if observation.choice == Observation::UNTOLD

        test, told = read(observation, condition, minutes)
        return nil unless test && told&.any?(&:positive?) && told.uniq.size > 1

        column = column(test, condition)
        Clue.new(
          test: test,
          column: column,
          told: told,
          answer: observation.says,
          bounds: observation.amount&.bounds,
          condition: condition,
          source: source,
          at: at
        )
      end

      # The Test that nobody could tell the answer of, nil where the observation is none of that kind: it is not to be
      # asked for again.
      def untold(observation, condition, minutes: nil)
        return nil unless observation.choice == Observation::UNTOLD
        return find("looked_up", observation.place) if observation.function == "looked_up"

        seen_test(observation.place, condition, minutes) if observation.function == "seen"
      end

      # Whether a test can be answered so.
      def answer?(test, answer) = told(test, answer).any?(&:positive?)

      # Clue of a test of the list, answered by one of its scale's answers.
      def answered(test, answer, source: nil)
        told = told(test, answer)
        Clue.new(test: test, column: @library.column(test), told: told, answer: answer.to_s, source: source)
      end

      private

      def column(test, condition)
        return @library.column(test) if @library.test?(test.id) || @situation.state(test.state) || test.state.nil?

        @library.solved_in(condition, test)
      end

      # [Test, weights of its answers]
      def read(observation, condition, minutes)
        case observation.function
        when "volts_ac"
          test = points_test(observation, state_id(condition, minutes))
          [test, test.scale.told(*observation.amount.bounds)]
        when "ohms"
          ohms(observation)
        when "seen"
          seen(observation.place, observation.choice, condition, minutes)
        when "looked_up"
          looked_up(observation)
        when "amps_ac"
          amps(observation, condition, minutes)
        when "microfarads"
          capacitor(observation)
        when "degrees_f"
          line(observation, condition, minutes)
        when "minutes"
          since_stop(observation)
        end
      end

      # The state whose condition this is; within the board's hold, that of the hold; else a name of its own.
      def state_id(condition, minutes)
        held = minutes && minutes * 60 < hold_seconds && @situation.state("#{condition.call}_hold")
        return held.id if held && condition.faults.empty?

        @situation.state_of(condition)&.id ||
          Digest::SHA256.hexdigest(JSON.generate(@situation.shape(condition)))[0, 16]
      end

      def hold_seconds = @situation.rig[:board_hold_seconds] || 0

      def points_test(observation, state)
        ends = [observation.from_node, observation.to_node]
        [ends, ends.reverse].each do |from, to|
          id = ["volts_ac", state, from, to, observation.instrument].join("|")
          return @library.test(id) if @library.test?(id)
        end
        Test.new(
          id: ["volts_ac", state, *ends.sort, observation.instrument].join("|"),
          function: "volts_ac",
          state: state,
          from_node: ends[0],
          to_node: ends[1],
          instrument: observation.instrument,
          scale: Scale.volts,
          at: ends[1].split(".").first,
          minutes: @numbers.dig("minutes", "volts")
        )
      end

      def find(function, place, state = nil) =
        @library.tests.find do |test|
          test.function == function && test.place == place && (state.nil? || test.state == state)
        end

      def choose(test, answer) = test && [test, told(test, answer)]

      def told(test, answer)
        any_of = @numbers.fetch("says_less").fetch(answer.to_s) { [answer.to_s] }
        test.scale.telling(any_of)
      end

      def seen(place, choice, condition, minutes) = choose(seen_test(place, condition, minutes), choice)

      # What is seen in one state alone, whatever was noted of the call.
      FIXED = %w[forced_defrost after_the_wait coil_switch_watched].freeze
      private_constant :FIXED

      def seen_test(place, condition, minutes)
        by_state = @library.tests.find { |test| test.function == "seen" && test.place == place && test.state.nil? }
        fixed = FIXED.include?(place) ? find("seen", place) : nil
        by_state || fixed || find("seen", place, state_id(condition, minutes))
      end

      # The part by itself; in the circuit other ways count, and nothing is concluded.
      def ohms(observation)
        return nil unless observation.isolated

        ends = [observation.from_node, observation.to_node].sort
        test = @library.tests.find { |one| one.function == "ohms" && [one.from_node, one.to_node].sort == ends }
        test && choose(test, ohms_answer(test, observation))
      end

      def ohms_answer(test, observation)
        limits = Catalogue.evidence.fetch("ohms")
        least, most = observation.amount.bounds
        return "open" if least >= limits["open_from"]
        coil = @situation.netlist.branch?(test.place) && @situation.netlist[test.place].kind == :coil
        return most <= limits["joined_at_most"] ? "joined" : nil unless coil

        typical = @situation.netlist[test.place][:winding_ohms]
        return "shorted" if most <= typical * limits["short_fraction"]

        least >= typical / limits["like_factor"] && most <= typical * limits["like_factor"] ? "winding" : nil
      end

      # Against a marking that nobody read only an open one is told: what holds a charge may be weak or right. Of one
      # that reads too much, as with a lead still on, nothing follows.
      def capacitor(observation)
        test = find("microfarads", observation.place) or return nil
        rig = @situation.rig
        answer = Held::Microfarads.answer(rig, observation) or return nil
        known = !Held::Microfarads.assumed?(rig, observation.place)
        return answer == "high" ? nil : choose(test, answer) if known || answer == "none"

        [test, test.scale.telling(test.scale.answers - ["none"])]
      end

      def looked_up(observation)
        test = find("looked_up", observation.place) or return nil
        choose(test, observation.choice)
      end

      FLOWS = {
        "OFM" => ["outdoor_fan", %w[turns], %w[stands]],
        "COMP" => ["compressor", %w[runs hums], %w[silent]],
        "BLOWER" => ["blower", %w[blows], %w[stands]],
        "HTR" => ["strips", %w[on], %w[off]]
      }.freeze
      private_constant :FLOWS

      def amps(observation, condition, minutes)
        place, flowing, still = FLOWS[observation.place]
        test = place && find("seen", place, state_id(condition, minutes)) or return nil
        limits = Catalogue.evidence.fetch("amps")
        least, most = observation.amount.bounds
        answers = least >= limits["flows_from"] ? flowing : still
        return nil if least < limits["flows_from"] && most > limits["none_at_most"]

        [test, test.scale.telling(answers)]
      end

      # The vapor line by a thermometer, as a hand would have it.
      def line(observation, condition, minutes)
        return own_sensor(observation) if observation.place == "thermostat_outdoor"
        return nil unless observation.place == "vapour_line"

        degrees = observation.amount.bounds.sum / 2
        edges = @numbers.fetch("vapour_line_degrees_f")
        answer = degrees >= edges["hot_from"] ? "hot" : "lukewarm"
        answer = "cold" if degrees <= edges["cold_at_most"]
        choose(find("seen", "vapour_line_by_hand", state_id(condition, minutes)), answer)
      end

      def own_sensor(observation)
        degrees = observation.amount.bounds.sum / 2
        choose(find("degrees_f", "thermostat_outdoor"), Diagnosis.balance_side(@situation.rig, degrees))
      end

      def since_stop(observation)
        test = find("minutes", "since_stop") or return nil
        least, most = observation.amount.bounds
        return choose(test, "within") if most * 60 < hold_seconds

        least * 60 > hold_seconds ? choose(test, "over") : nil
      end
    end
  end
end
