# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # What the rig itself would have done under the same hand: the test run on the tape.
    class ForcedTape
      PINS = %w[outdoor.board.DFT_1 outdoor.board.DFT_2].freeze
      LEAD = 120.0 # heating before the watch starts, so that pressures stand
      AFTERWARDS = 300.0 # until everything is back
      LONGEST = 1800.0 # that anybody waits

      # counted: minutes on the clock when the watch starts.
      def initialize(rig, record, counted)
        @rig = rig
        @record = record
        @seen = record.marks
        @counted = counted
      end

      # { mark => seconds on the watch }; empty for a rig that chatters too much to be run.
      def marks
        found = {
          "fan_off" => first("OFM", from, false),
          "valve_heard" => timeline.signal("valve").steps.find { |at, _position| at >= from }&.first,
          "strips_on" => strips_code && first(strips_code, from, true)
        }
        found["fan_back"] = found["fan_off"] && first("OFM", found["fan_off"] + 0.01, true)
        found["strips_off"] = strips_code && found["strips_on"] && first(strips_code, found["strips_on"] + 0.01, false)
        found.compact.transform_values { |at| (at - offset).round(2) }
      rescue BadScript, ZeroTimeLoop
        {}
      end

      # Marks whose time is the frost model's, not the board's: those after a coil that warmed until it ended the
      # defrost.
      def modelled = by_coil? ? %w[fan_back strips_off] : []

      private

      def offset = LEAD - @seen["bridge_on"]
      def from = LEAD - 0.01

      # Held where it was measured until the defrost begins, the coil is left to itself then: to what compressor, fan
      # and valve make of it.
      def timeline
        @timeline ||=
          begin
            held = run(moves)
            begins = held.next_event("defrost", from, true)&.seconds
            if begins && begins < over
              run([*moves, freed(begins)].sort_by.with_index { |m, i| [m["at_seconds"], i] })
            else
              held
            end
          end
      end

      def run(moves) = Run.of(@rig, Script.parse({ "start" => tape_start, "moves" => moves }, over + AFTERWARDS))
      def freed(begins) = { "at_seconds" => begins, "what" => "coil", "value" => Script::FREE }

      def by_coil?
        ended =
          timeline.next_event("defrost", from, true)&.then { |one| timeline.next_event("defrost", one.seconds, false) }
        ended&.rule == "defrost_by_temperature" && !@seen["jumper_off"]
      rescue BadScript, ZeroTimeLoop
        false
      end

      # When the first defrost is over at the latest, on the tape: nothing after it is asked for. A bridge that came off
      # too soon leaves the rest of the interval at its own pace.
      def over
        soon = @seen["bridge_off"] && @seen["bridge_off"] - @seen["bridge_on"] < begun - LEAD
        soon ? LEAD + LONGEST : begun + limit
      end

      def begun =
        LEAD +
          [SpeedUp.expected_seconds(profile.interval_seconds / 60, profile.speed_up_factor), profile.hold_seconds].max
      # A board that knows none is waited for as long as anybody would.
      def limit = profile.limit_seconds || LONGEST
      def profile = @profile ||= ClockProfile.of(@rig)

      # A bridge that nobody has marked off would run defrost after defrost; it is off when the first has taken all of a
      # hurried limit.
      def bridge_off = @seen["bridge_off"] || (begun + (limit / profile.speed_up_factor) + 5.0 - offset)

      def strips_code = { "strips" => "HTR", "gas" => "GAS" }[@rig[:backup]]

      # The clock counts the lead too, so that much less was on it.
      def tape_start
        {
          "outdoor_degrees_f" => 35.0,
          "coil_degrees_f" => @record.coil_degrees_f || (@rig[:coil_switch_closes_degrees_f] - 4.0),
          "defrost_counted_minutes" => @counted - (LEAD / 60)
        }
      end

      # The jumper stands for the coil switch, which is unplugged from then on.
      def moves
        acts = @rig[:sensing] == "coil_switch" ? { "jumper_on" => %w[jumper on], "jumper_off" => %w[jumper off] } : {}
        acts = acts.merge("bridge_on" => %w[bridge on]).slice(*@seen.keys).merge("bridge_off" => %w[bridge off])
        at = @seen.merge("bridge_off" => bridge_off)
        list =
          acts.map do |mark, (what, value)|
            {
              "at_seconds" => [at[mark] + offset, 0.0].max,
              "what" => what,
              "value" => value,
              "of" => what == "jumper" ? PINS : nil
            }.compact
          end
        if acts.key?("jumper_on") && @record.answers["unplugged"] != false
          plug = {
            "at_seconds" => [@seen["jumper_on"] + offset, 0.0].max,
            "what" => "fault",
            "of" => {
              "kind" => "stuck_open",
              "at" => "DFT"
            },
            "value" => "begins"
          }
        end
        [{ "at_seconds" => 0.0, "what" => "call", "value" => "heat" }, *list, *[plug].compact].sort_by
          .with_index { |move, i| [move["at_seconds"], i] }
      end

      def first(id, from, value) =
        if timeline.signals.any? { |one| one.id == id }
          timeline.signal(id).steps.find { |at, now| at >= from && now == value }&.first
        else
          nil
        end
    end
  end
end
