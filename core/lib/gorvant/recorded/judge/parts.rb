# frozen_string_literal: true

module Gorvant
  class RecordedJudge
    # Fan, strips, valve and the runs themselves.
    module Parts
      private

      def outputs = [fan_runs, fan_not_back, fan_stops, strips_missing, strips_stay]

      def fan_runs
        return nil unless story.has?("fan")

        known = @seen.select(&:fan_on_share)
        on = known.select { |one| one.fan_on_share > @numbers.fetch("fan_running_share") }
        return nil unless often?(on, known, "fan_runs")

        verdict("recorded_fan_runs", **share(on, known), share: number(middle(on.map(&:fan_on_share)) * 100))
      end

      def fan_not_back
        return nil unless story.has?("fan")

        within = @numbers.fetch("fan_back_seconds")
        known = @seen.select { |one| one.ended_with.nil? && one.ran_after.to_f >= within }
        away = known.select { |one| one.fan_back_after.nil? || one.fan_back_after > within }
        return nil unless often?(away, known, "fan_not_back")

        verdict("recorded_fan_not_back", **share(away, known), seconds: number(within))
      end

      # The fan stands with the compressor on, and no defrost can be told from it.
      def fan_stops = @fan_stops ||= stops_of_fan

      def stops_of_fan
        return nil unless story.has?("fan")

        stops = story.fan_stops.map(&:last).select { |seconds| seconds >= 60 }
        if (stops.size < least && stops.none? { |seconds| seconds > 3600 }) ||
             (story.has?("ob") && @seen.size > stops.size)
          return nil
        end

        verdict("recorded_fan_stops", times: stops.size, seconds: number(middle(stops)))
      end

      def strips_missing
        return nil if !story.has?("w2") || @rig[:backup] == "none"

        known = @seen.select { |one| one.strips_before == false && one.seconds >= 60 + story.interval_seconds }
        off =
          known.select do |one|
            one.strips_on_after.nil? ||
              one.strips_on_after > @numbers.fetch("strips_on_seconds") + story.interval_seconds
          end
        often?(off, known, "strips_missing") ? verdict("recorded_strips_missing", **share(off, known)) : nil
      end

      def strips_stay
        return nil if !story.has?("w2") || @rig[:backup] == "none"

        alone = story.w2_alone_seconds
        if alone >= @numbers.fetch("strips_alone_minutes") * 60
          return verdict("recorded_strips_alone", hours: number(alone / 3600.0))
        end

        after = @numbers.fetch("strips_off_seconds")
        known = @seen.select { |one| one.strips_on_after && one.watched.to_f >= after && one.ended_with.nil? }
        on = known.select { |one| one.strips_off_after.nil? || one.strips_off_after > after }
        often?(on, known, "strips_stay")
        return nil unless on.size >= [least, known.size * 0.8].max

        verdict("recorded_strips_stay", **share(on, known), seconds: number(after))
      end

      # --- the valve

      def valve
        return [] unless story.has?("coil")

        never_after = @numbers.fetch("valve_never_seconds")
        long = @seen.select { |one| %w[ob fan].include?(one.seen_by) && one.seconds >= never_after }
        still = long.select { |one| one.turns_after.nil? || one.turns_after >= never_after }
        return [not_turning(still, long)] if often?(still, long, "not_turning")

        [slow].compact
      end

      def not_turning(still, long)
        hot = story.has?("vapor") && still.count { |one| one.vapor_turns_after.nil? } > still.size / 2
        verdict(
          "recorded_valve_not_turning",
          **share(still, long),
          seconds: number(middle(still.map(&:seconds))),
          degrees: number(@numbers.fetch("valve_turns_degrees_f")),
          vapor: hot ? Catalogue.words("recorded.vapor_hot") : ""
        )
      end

      def slow
        return nil if story.interval_seconds > 30

        after = @numbers.fetch("valve_slow_seconds") + (1.4 * story.interval_seconds)
        known = @seen.select { |one| %w[ob fan].include?(one.seen_by) && one.turns_after }
        late = known.select { |one| one.turns_after > after }
        return nil unless often?(late, known, "turns_late")

        verdict("recorded_valve_slow", **share(late, known), seconds: number(middle(late.map(&:turns_after))))
      end

      # --- runs

      def running
        return [] if story.runs.size < 6 || !%w[amps y].include?(story.running_by)

        [short_runs, no_hold].compact
      end

      def short_runs
        inner = story.runs[1..-2].to_a
        most = @numbers.fetch("short_run_minutes")
        short = inner.select { |from, to| to - from < most * 60 }
        unless short.size >= 6 && short.size >= inner.size * 0.3 && starts_an_hour >= @numbers.fetch("starts_an_hour")
          return nil
        end

        verdict(
          "recorded_short_cycling",
          **share(short, inner),
          minutes: number(most),
          run: number(middle(inner.map { |from, to| (to - from) / 60 })),
          off: number(middle(offs) / 60),
          starts: starts_an_hour
        )
      end

      def offs = story.runs.each_cons(2).map { |one, after| after[0] - one[1] }

      # The most within any hour.
      def starts_an_hour
        starts = story.runs.map(&:first)
        starts.each_with_index.map { |at, i| starts[i..].take_while { |other| other < at + 3600 }.size }.max
      end

      def no_hold
        within = @numbers.fetch("short_off_seconds")
        soon = offs.select { |seconds| seconds + story.interval_seconds < within }
        return nil unless soon.size >= 6

        verdict("recorded_no_hold", seconds: number(within), times: soon.size)
      end
    end
  end
end
