# frozen_string_literal: true

module Gorvant
  class RecordedJudge
    # How defrosts end.
    module Ends
      private

      def ending
        return [] unless full.any?

        [passed_opening, by_time, early, points].compact
      end

      def passed_opening
        return nil unless story.has?("coil") && @profile.ends_by != "time"

        opens, over = @profile.ends_degrees_f, @numbers.fetch("over_opening_degrees_f")
        passed =
          full.select { |one| one.coil_most && one.coil_most > opens + over + between(one) && long_over?(one, opens) }
        return nil unless often?(passed, full, "passed_opening")

        most = middle(passed.map(&:coil_most))
        verdict(
          "recorded_passed_opening",
          **share(passed, full),
          opens: number(opens),
          coil: number(most),
          over: number(most - opens),
          seconds: number(middle(passed.map { |one| seconds_over(one, opens) }))
        )
      end

      # Where the switch must have closed and opened, as far as rows and the logger's sensor go.
      def points
        return nil unless @rig[:sensing] == "coil_switch" && story.has?("coil") && @profile.school != "time_only"

        warm = full.select { |one| ended_by(one) == "temperature" && one.coil_end && one.coldest_since }
        return nil if warm.size < least

        ends = warm.map(&:coil_end)
        verdict(
          "recorded_switch_points",
          closes: number(warm.map(&:coldest_since).max),
          from: number(ends.min),
          to: number(warm.map { |one| one.coil_end + between(one) }.max),
          set_closes: number(@profile.starts_degrees_f),
          set_opens: number(@profile.ends_degrees_f)
        )
      end

      def seconds_over(one, opens)
        first = one.path.find { |_at, coil| coil >= opens }
        first ? [one.seconds - first[0], 0].max : 0
      end

      def long_over?(one, opens) =
        seconds_over(one, opens) >= (@numbers.fetch("late_seconds") / 3) + story.interval_seconds

      def by_time
        timed =
          full.select { |one| ended_by(one) == "time" && !(one.coil_most && one.coil_most > @profile.ends_degrees_f) }
        return nil unless @profile.ends_by != "time" && often?(timed, full, "by_time")

        outdoor = middle(timed.filter_map(&:outdoor))
        coil = middle(timed.filter_map(&:coil_most))
        verdict(
          "recorded_ended_by_time",
          **share(timed, full),
          limit: number(limit / 60),
          coil: coil ? number(coil) : "?",
          opens: number(@profile.ends_degrees_f),
          outdoor: outdoor ? number(outdoor) : "?",
          weather: outdoor ? Catalogue.words("recorded.#{wind_alone?(outdoor) ? "wind_could" : "wind_could_not"}") : ""
        )
      end

      # Whether the modelled coil would stay under its point in a strong wind.
      def wind_alone?(outdoor)
        numbers = FrostCoil.numbers
        air = (outdoor - 32) / 1.8
        heat = numbers["heat_kw"] + (numbers["heat_kw_per_k"] * air)
        loss = numbers["still_kw_per_k"] + (20 * numbers["wind_kw_per_k_per_mph"])
        outdoor + (heat / loss * 1.8) < @profile.ends_degrees_f
      end

      def early
        return nil unless limit && story.has?("coil") && @profile.ends_by == "either"

        soon =
          full.select do |one|
            one.coil_most && short?(one) && one.seconds < limit - slack &&
              one.coil_most + between(one) < @profile.ends_degrees_f - 15
          end
        return nil unless often?(soon, full, "ended_early")

        verdict(
          "recorded_ended_early",
          **share(soon, full),
          seconds: number(middle(soon.map(&:seconds))),
          limit: number(limit / 60),
          coil: number(middle(soon.map(&:coil_most))),
          opens: number(@profile.ends_degrees_f)
        )
      end
    end
  end
end
