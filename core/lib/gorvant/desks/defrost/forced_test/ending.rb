# frozen_string_literal: true

module Gorvant
  class ForcedTest
    # What ended the defrost, and what came back. Every moment is a stretch, [at the earliest, at the latest] on the
    # watch: fan and valve tell it to the second, what heats indoors comes and goes late, and a bridge left on eats the
    # limit.
    class Ending < Judge
      # warm: whether it went out again at once on a warm coil.
      def initialize(rig, record, profile, warm:)
        super(rig, record, profile)
        @warm = warm
      end

      # [Verdict]
      def verdicts = [(ending unless @warm), *returned].compact

      private

      def began_at = @began_at ||= sharp_beginning || late("strips_on")
      def ended_at = @ended_at ||= marks["fan_back"] ? [marks["fan_back"]] * 2 : late("strips_off")
      def late(mark) = marks[mark] && [marks[mark] - @numbers.fetch("#{mark}_lag_seconds"), marks[mark]]
      def lasted = [ended_at[0] - began_at[1], ended_at[1] - began_at[0]]

      def ending
        return verdict("end_not_seen", watch("fan_off", "bridge_off")) unless began_at && ended_at
        return hurried if hurried?

        marks["jumper_on"] ? jumpered_end : by_limit(full_end, sooner_end)
      end

      # What the whole limit gone means, and what an end before it does: a board that knows the time alone ends by
      # nothing else.
      def full_end = profile.ends_by == "time" ? "ended_by_its_time" : "ended_by_time"
      def sooner_end =
        { "time" => "ended_before_its_time", "temperature" => "ended_only_temperature" }.fetch(
          profile.ends_by,
          "ended_by_temperature"
        )

      # With the coil switch unplugged nothing is to be read of temperature.
      def jumpered_end
        off = marks["jumper_off"]
        unless off && ended_at[1] >= off - reaction
          return(
            by_limit(
              profile.ends_by == "time" ? "ended_by_its_time" : "ended_by_time_jumpered",
              profile.limit_seconds ? "ended_early" : "ended_early_no_limit"
            )
          )
        end
        return by_limit("end_unclear", "end_unclear") if off - began_at[0] >= limits[0] - margin

        verdict(
          record.answers["unplugged"] == false ? "ended_by_hand_plugged" : "ended_by_hand",
          watch("jumper_off", "fan_back", "strips_off"),
          seen: seconds([ended_at[1] - off, 0].max)
        )
      end

      # full: the verdict of one that took the whole limit; sooner: of one that did not.
      def by_limit(full, sooner)
        least, most = lasted
        code =
          if least >= limits[1] - margin
            full
          elsif most < limits[0] - margin
            sooner
          else
            by_coil(full, sooner)
          end
        verdict(code, evidence, seen: clock(most), limit: profile.limit_seconds ? clock(profile.limit_seconds) : "")
      end

      # Where the watch cannot part the two, the coil may.
      def by_coil(full, sooner)
        coil = record.readings["coil_at_end_degrees_f"]
        return profile.limit_seconds ? "end_unclear" : sooner unless coil && sooner == "ended_by_temperature"
        return sooner if coil >= profile.ends_degrees_f - @numbers.fetch("end_coil_within_degrees_f")

        coil <= profile.ends_degrees_f - @numbers.fetch("end_coil_short_degrees_f") ? full : "end_unclear"
      end

      def margin = @numbers.fetch("limit_margin_seconds")

      # Seconds for which the bridge stayed on once the defrost had begun: [least, most].
      def bridged
        off = marks["bridge_off"] or return 0.0, Float::INFINITY

        [off - began_at[1] - reaction, off - began_at[0] + reaction].map { |on| [on, 0.0].max }
      end

      # The limit as the bridge left it: [least, most].
      def limits = bridged.reverse.map { |on| Termination.limit(profile, on) || Float::INFINITY }

      # Surely the whole limit gone under the bridge.
      def hurried?
        whole = Termination.limit(profile, Float::INFINITY)
        whole && profile.limit_seconds && whole < profile.limit_seconds && bridged[0] >= whole &&
          lasted[0] <= whole + @numbers.fetch("lag_seconds")
      end

      def hurried
        verdict(
          "ended_hurried",
          watch("bridge_on", "fan_off", "bridge_off", "fan_back"),
          factor: format("%g", profile.speed_up_factor),
          limit: clock(profile.limit_seconds),
          hurried: format("%.1f", profile.limit_seconds / profile.speed_up_factor)
        )
      end

      def evidence
        low, high = limits
        hurry =
          (
            if profile.limit_seconds && low < profile.limit_seconds
              Catalogue.words("defrost.limit_hurried", low: clock(low), high: clock(high))
            else
              nil
            end
          )
        watch("fan_off", "bridge_off", "fan_back", "strips_off") +
          [hurry, coil_words(record.readings["coil_at_end_degrees_f"])].compact
      end

      def returned
        back = marks["fan_back"]
        [
          (
            verdict("fan_back", watch("fan_back"), seen: seconds([back - (marks["jumper_off"] || back), 0].max)) if back
          ),
          (
            if record.answers["fan_back"] == false
              verdict("fan_not_back", [Catalogue.words("defrost.answer_no", what: "the fan came back")])
            end
          ),
          (
            if record.answers["strips_off"] == false
              verdict("strips_stay", [Catalogue.words("defrost.answer_no", what: "heat went off")])
            end
          )
        ].compact
      end
    end
  end
end
