# frozen_string_literal: true

module Gorvant
  module Practice
    # Time it: when does a defrost start and end, when does stage 2 come, when is the hold over. Asked of a run; the run
    # answers.
    class Timing
      MOST_SECONDS = 6 * 3600.0

      # script: moves of a run with what is asked about in it; facts: what one needs to know; signal, value: what is
      # waited for, from `from` seconds on.
      Question = Value.define(:of, :start, :moves, :facts, :signal, :value, :from)

      def initialize(rig) = @rig = rig

      # [{ "of", … numbers drawn }]
      def asks(_level, random)
        [
          ({ "of" => "defrost", "outdoor" => 28.0 } if interval?),
          ({ "of" => "end", "outdoor" => 20.0 } if interval?),
          { "of" => "hold", "ran" => random.rand(5..15), "rested" => random.rand(1..2), "outdoor" => 45.0 },
          ({ "of" => "stage_2", "room" => 68.0 - random.rand(0..1), "outdoor" => 40.0 } if stages?)
        ].compact
      end

      def shown(ask)
        question = question(ask)
        {
          "of" => ask["of"],
          "says" => Catalogue.words("practice.time_#{ask["of"]}", **fields(ask)),
          "facts" =>
            question.facts.map do |key|
              {
                "title" => Catalogue.facts.fetch(key).fetch("title"),
                "value" => Comparison.words(key, @rig[key.to_sym])
              }
            end
        }
      end

      # given: { "minutes" => number } or { "never" => true }.
      def judge(ask, given)
        check(given)
        is = answer(ask)
        said = given["never"] ? nil : given["minutes"].to_f
        right = is.nil? || said.nil? ? is == said : (said - is).abs <= slack(is)
        line = {
          "what" => Catalogue.words("practice.time_#{ask["of"]}", **fields(ask)),
          "said" => words(said),
          "is" => words(is),
          "right" => right,
          "trap" => right ? nil : trap(ask["of"], said, is)
        }
        { "share" => right ? 1.0 : 0.0, "lines" => [line.compact] }
      end

      # Minutes after what is asked about began, nil for never.
      def answer(ask)
        question = question(ask)
        script = Script.parse({ "start" => question.start, "moves" => question.moves }, MOST_SECONDS)
        run = Run.of(@rig, script)
        from = question.from || run.next_event("defrost", 0.0, true)&.seconds or return nil
        event = run.next_event(question.signal, from, question.value)
        event && ((event.seconds - from) / 60)
      end

      private

      def interval? = @rig[:sensing] == "coil_switch" && !@rig[:air_pressure_switch]
      def stages? = Outputs.calls(@rig).include?("heat_2")
      def fields(ask) = ask.except("of").transform_keys(&:to_sym).transform_values { |value| format("%g", value) }

      def question(ask)
        send(:"ask_#{ask["of"]}", ask)
      end

      def cold = (@rig[:coil_switch_closes_degrees_f] || 30) - 8.0

      def ask_defrost(ask)
        Question.new(
          of: "defrost",
          start: {
            "outdoor_degrees_f" => ask["outdoor"],
            "coil_degrees_f" => cold
          },
          moves: [call(0.0, "heat")],
          facts: known(%w[defrost_interval_minutes defrost_clock coil_switch_closes_degrees_f]),
          signal: "defrost",
          value: true,
          from: 0.0
        )
      end

      # The coil stays cold: only the clock can end it.
      def ask_end(ask)
        ask_defrost(ask).with(
          facts: known(%w[defrost_limit_minutes defrost_turn defrost_turn_seconds]),
          value: false,
          from: nil
        )
      end

      def ask_hold(ask)
        off = ask["ran"] * 60.0
        again = off + (ask["rested"] * 60.0)
        Question.new(
          of: "hold",
          start: {
            "outdoor_degrees_f" => ask["outdoor"]
          },
          moves: [call(0.0, "heat"), call(off, "off"), call(again, "heat")],
          facts: known(%w[board_hold_seconds board_hold_kind thermostat_minimum_off_seconds]),
          signal: "CC",
          value: true,
          from: again - 0.001
        )
      end

      def ask_stage_2(ask)
        Question.new(
          of: "stage_2",
          start: {
            "outdoor_degrees_f" => ask["outdoor"],
            "room_degrees_f" => ask["room"],
            "mode" => "heat"
          },
          moves: [{ "at_seconds" => 0.0, "what" => "mode", "value" => "heat" }],
          facts: known(%w[staging_school stage_delay_minutes]),
          signal: "THERMOSTAT.Y2",
          value: true,
          from: 0.0
        )
      end

      def call(at, value) = { "at_seconds" => at, "what" => "call", "value" => value }
      def known(keys) = keys.select { |key| Catalogue.facts.key?(key) && @rig.asks?(key) }

      def check(given)
        return if given.is_a?(Hash) && (given["never"] == true || minutes?(given["minutes"]))

        raise BadAct.new(field: "/answer/minutes", problem: "has to be a number of minutes from 0 to 600, or never")
      end

      def minutes?(value) = value.is_a?(Numeric) && value.between?(0, 600)

      def slack(minutes)
        within = Practice.numbers.dig("quiz", "within")
        [minutes * within["fraction"], within["minutes"]].max
      end

      def words(minutes) =
        if minutes
          Catalogue.words("practice.minutes", minutes: format("%.1f", minutes))
        else
          Catalogue.wording.fetch("practice.never")
        end

      def trap(of, said, is)
        of = "defrost" if of == "end"
        how = said.nil? ? "never" : (is.nil? || said < is ? "early" : "late")
        Traps.timing(of, how)
      end
    end
  end
end
