# frozen_string_literal: true

module Gorvant
  class RecordedJudge
    # Which clocks the spells between defrosts fit.
    module Clocks
      SPELLS = 16 # that are looked at
      FITS = 0.8 # of them, for a clock to fit
      RULED_OUT = 0.5 # of them, under which it does not

      private

      def school_verdicts
        return [] if demand? || schools.empty?

        fit, count = schools.fetch(own_school) { return [] }
        others = schools.except(own_school)
        alike = others.select { |_id, (times, of)| times >= of * FITS }.keys
        about = { count: count, times: fit, school: titles([own_school]) }
        return [own_fits(about, others, alike)] if fit >= count * FITS
        return [] unless fit < count * RULED_OUT && alike.any? && count >= least

        [
          verdict(
            "recorded_school_other",
            **about,
            others: Catalogue.words("recorded.fits_rather", schools: titles(alike))
          )
        ]
      end

      def own_fits(about, others, alike)
        out = others.select { |_id, (times, of)| times < of * RULED_OUT }.keys
        verdict(
          "recorded_school_fits",
          **about,
          others: out.any? ? Catalogue.words("recorded.ruled_out", schools: titles(out)) : "",
          alike: alike.any? ? titles(alike) : Catalogue.words("recorded.none_of_known")
        )
      end

      def titles(ids) = ids.map { |id| Catalogue.words("defrost.school_#{id}") }.join(", ")

      def own_school = @own_school ||= Schools.new(empty_history, @profile).own
      def empty_history = RunHistory.parse({ "minutes" => 1, "fed" => "never" })

      # Every spell from one defrost to the next, in each school by itself; those first that schools part on.
      def fits
        spells =
          @seen.each_cons(2).select { |_before, one| one.run_seconds && one.wall_seconds.to_f.between?(600, 86_400) }
        spells = spells.sort_by { |_before, one| one.whole ? 1 : 0 }.first(SPELLS)
        return {} if spells.empty?

        profile = interval ? @profile.with(interval_seconds: nearest(interval[:minutes]) * 60.0) : @profile
        counts = Hash.new { |all, id| all[id] = [0, 0] }
        spells.each { |before, one| spell(before, one, profile).each { |id, fit| tally(counts[id], fit) } }
        counts
      end

      def tally(pair, fit)
        pair[0] += 1 if fit
        pair[1] += 1
      end

      # { school => fits } of one spell; clocks that go on through a defrost began at its start.
      def spell(before, one, profile)
        from_end = courses(before.end, one.start, profile)
        from_start = courses(before.start, one.start, profile)
        from_end.to_h do |id, fit|
          through =
            %w[free clock_motor].include?(id) ||
              (id == own_school && (@profile.restarts_at == "start" || @profile.counts_in_defrost))
          [id, through ? from_start[id] : fit]
        end
      end

      def courses(from, start, profile)
        to = start + 600
        minutes = (to - from) / 60
        history =
          RunHistory.new(
            spans: {
              "fed" => clipped(story.runs, from, to),
              "cold" => clipped(story.cold, from, to),
              "y" => clipped(story.runs, from, to),
              "cooling" => [],
              "unpowered" => [],
              "aps" => []
            },
            minutes: minutes,
            given: %w[fed cold]
          )
        seen = (start - from) / 60
        within = Catalogue.profile.dig("defrost", "seen_within_minutes") + (story.interval_seconds / 60)
        Schools
          .new(history, profile)
          .courses
          .to_h do |course|
            first = course.starts.find { |at| at > 1.0 }
            [course.school, !first.nil? && (first - seen).abs <= within + (seen * 0.02)]
          end
      end

      def clipped(spans, from, to) =
        spans.filter_map do |first, last|
          next if last <= from || first >= to

          [[(first - from) / 60, 0.0].max, (last - from) / 60]
        end
    end
  end
end
