# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # What the judges of a forced test share: how they read its marks, and how they say what they found. They have a
    # rig, a record and a profile, and the numbers of the defrost desk.
    module Telling
      private

      def marks = record.marks
      # What a hand, and two devices' clocks beside each other, leave open at every mark.
      def reaction = @numbers.fetch("reaction_seconds") + record.clock_apart_seconds
      def seconds(value) = format("%g", value.round(1))
      def since_bridge(mark) = seconds(marks[mark] - marks["bridge_on"])
      def clock(seconds) = "#{seconds.floor / 60}:#{(seconds.floor % 60).to_s.rjust(2, "0")}"

      # When it began by what follows the relay at once: [at the earliest, at the latest] on the watch, nil where
      # neither was marked. A valve is heard when it has moved, which is a little late; a fan seen standing has coasted
      # first.
      def sharp_beginning
        return coasted if marks["fan_off"] && record.marked_by["fan_off"] == "standing"
        return [marks["fan_off"]] * 2 if marks["fan_off"]

        marks["valve_heard"] && [marks["valve_heard"] - @numbers.fetch("valve_lag_seconds"), marks["valve_heard"]]
      end

      def coasted = @numbers.fetch("fan_coasts_seconds").reverse.map { |seconds| marks["fan_off"] - seconds }

      def watch(*names) =
        names.filter_map do |mark|
          marks[mark] &&
            Catalogue.words(
              "defrost.seen_mark",
              mark: Catalogue.words("defrost.mark_#{mark}"),
              at: seconds(marks[mark])
            )
        end
      def coil_words(degrees) = degrees && Catalogue.words("defrost.coil_at", degrees: format("%g", degrees))
      # What this verdict leans on and nobody has read.
      def assumed(code) =
        ClockProfile
          .assumed(rig, Catalogue.verdicts.fetch(code).fetch("leans_on", []))
          .map { |title| Catalogue.words("defrost.assumed", title: title) }

      def verdict(code, evidence, look_first: false, **fields)
        Verdict.of(
          code,
          evidence: evidence.compact.empty? ? [Catalogue.words("defrost.nothing_taken")] : evidence.compact,
          look_first: look_first,
          **fields,
          assumed: [*assumed(code), *taken, Catalogue.words("defrost.reaction", seconds: format("%g", reaction))]
        )
      end

      # What is taken for so where nobody said how a mark was made, or how the jumper was put on.
      def taken
        fan =
          marks["fan_off"] && record.marked_by["fan_off"].nil? ? Catalogue.wording.fetch("defrost.taken_click") : nil
        plug =
          (
            if marks["jumper_on"] && record.answers["unplugged"].nil?
              Catalogue.wording.fetch("defrost.taken_unplugged")
            else
              nil
            end
          )
        [fan, plug].compact
      end
    end
  end
end
