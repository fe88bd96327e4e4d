# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # What the judges of a forced test share: how they read its marks, and how they say what they found. They have a rig, a record
    # and a profile, and the numbers of the defrost desk.
    module Telling
      private

      def marks = record.marks
      def reaction = @numbers.fetch("reaction_seconds")
      def seconds(value) = format("%g", value.round(1))
      def clock(seconds) = "#{seconds.floor / 60}:#{(seconds.floor % 60).to_s.rjust(2, '0')}"

      # When it began by what follows the relay at once: [at the earliest, at the latest] on the watch, nil where neither was marked.
      # A valve is heard when it has moved, which is a little late.
      def sharp_beginning
        return [marks["fan_off"]] * 2 if marks["fan_off"]

        marks["valve_heard"] && [marks["valve_heard"] - @numbers.fetch("valve_lag_seconds"), marks["valve_heard"]]
      end

      def watch(*names) = names.filter_map { |mark| marks[mark] && Catalogue.words("defrost.seen_mark", mark: Catalogue.words("defrost.mark_#{mark}"), at: seconds(marks[mark])) }
      def coil_words(degrees) = degrees && Catalogue.words("defrost.coil_at", degrees: format("%g", degrees))
      # What this verdict leans on and nobody has read.
      def assumed(code) = ClockProfile.assumed(rig, Catalogue.verdicts.fetch(code).fetch("leans_on", [])).map { |title| Catalogue.words("defrost.assumed", title: title) }

      def verdict(code, evidence, look_first: false, **fields)
        Verdict.of(code, evidence: evidence.compact.empty? ? [Catalogue.words("defrost.nothing_taken")] : evidence.compact, look_first: look_first, **fields,
                         assumed: [*assumed(code), Catalogue.words("defrost.reaction", seconds: format("%g", reaction))])
      end
    end
  end
end
