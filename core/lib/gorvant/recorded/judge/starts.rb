# frozen_string_literal: true

module Gorvant
  class RecordedJudge
    # How defrosts start: whether at all, on a cold coil, by which interval, with anything to melt.
    module Starts
      private

      def starting = [*never, started_warm, *interval_verdicts, *school_verdicts, dry, much_frost, demand]

      # A long run on a cold coil without a defrost.
      def never
        needed = [never_after_seconds, @numbers.fetch("never_least_minutes") * 60].max
        longest = story.stretches.select { |one| one["seconds"] >= needed }.max_by { |one| one["seconds"] }
        return [] unless longest && !(longest["defrosted"] && may_wait?)
        return [] if fan_stops # those may be defrosts

        never_of(longest)
      end

      def never_of(longest)
        last, clean = longest.values_at("difference", "clean_difference")
        more = last && clean && (last - clean)
        grown = story.has?("coil", "outdoor") && more && more >= @numbers.fetch("growing_degrees_f")
        fields = {
          hours: number(longest["seconds"] / 3600.0),
          minutes: number(longest["seconds"] / 60.0),
          closes: number(@profile.starts_degrees_f),
          set: number(@profile.full_seconds / 60)
        }
        return [verdict("recorded_never_started", more: number(more), **fields)] if grown

        [
          verdict(
            "recorded_never_suspected",
            basis: Catalogue.words("recorded.basis_#{story.has?("coil") ? "coil" : "air"}"),
            **fields
          )
        ]
      end

      # A demand board waits for frost; a clock that goes round misses its turn where the compressor rests just then.
      def may_wait? = %w[demand free clock_motor].include?(@profile.school)

      def never_after_seconds =
        (demand? ? @profile.demand_maximum_seconds : @profile.interval_seconds) *
          @numbers.fetch("never_least_intervals")

      def started_warm
        return nil if %w[time_only].include?(@profile.school) || !story.has?("coil")

        over = @profile.starts_degrees_f + @numbers.fetch("starts_over_degrees_f")
        known = @seen.select(&:coldest_since)
        warm = known.select { |one| one.coldest_since > over }
        return nil unless often?(warm, known, "started_warm")

        verdict(
          "recorded_started_warm",
          **share(warm, known),
          coldest: number(middle(warm.map(&:coldest_since))),
          closes: number(@profile.starts_degrees_f)
        )
      end

      # Seconds of running that a clock counts between two defrosts, where call and cold coil lasted.
      def whole_runs
        return [] unless %w[run_time run_time_cold time_only].include?(@profile.school)

        known = @seen.select(&:run_seconds)
        whole = known.select(&:whole).map { |one| counted(one) }
        return whole if whole.size >= least

        # Waiting only makes it longer: where most agree with the shortest over stops, that is a clock's too.
        all = known.filter_map { |one| counted(one) }
        alike = all.select { |seconds| seconds - all.min <= tolerance * 60 }
        alike.size > least && alike.size >= all.size * @numbers.fetch("most_of_them") ? alike : whole
      end

      def counted(one)
        return one.start_to_start_run_seconds if @profile.restarts_at == "start" || @profile.counts_in_defrost

        @profile.school == "run_time_cold" ? one.cold_run_seconds : one.run_seconds
      end

      def tolerance =
        [
          @profile.interval_seconds / 60 * @numbers.fetch("interval_within_share"),
          @numbers.fetch("interval_within_minutes")
        ].max + (story.interval_seconds / 30)

      def interval_verdicts
        return [] if demand? || @profile.auto

        set = @profile.interval_seconds / 60
        found = interval
        return [interval_verdict(found, set)] if found && found[:times] >= least

        [shorter(set)].compact
      end

      def interval_verdict(found, set)
        other = (found[:minutes] - set).abs > tolerance
        fields = found.transform_values { |value| number(value) }
        return verdict("recorded_interval_as_set", set: number(set), **fields) unless other

        verdict("recorded_interval_other", set: number(set), found: number(nearest(found[:minutes])), **fields)
      end

      # What a selector offers, where the record comes near it.
      def nearest(minutes)
        offered = Catalogue.profile.dig("defrost", "intervals_minutes").min_by { |one| (one - minutes).abs }
        (offered - minutes).abs <= [offered * 0.12, 4].max ? offered : minutes
      end

      # Sooner than the set interval lets any clock that counts running.
      def shorter(set)
        return nil unless %w[run_time run_time_cold time_only].include?(@profile.school)

        ran = @seen.filter_map(&:start_to_start_run_seconds).map { |seconds| seconds / 60 }
        soon = ran.select { |minutes| minutes < set - tolerance }
        return nil unless soon.size >= least

        verdict(
          "recorded_interval_shorter",
          set: number(set),
          minutes: number(middle(soon)),
          times: soon.size,
          found: number(nearest(soon.min))
        )
      end

      # How far the coil ran below the air at each start, against a demand board's curve; starts by its longest time and
      # in its shortest say nothing of it.
      def demand
        return nil unless demand? && story.has?("coil", "outdoor")

        clock = DefrostClock.new(@profile)
        known = demanded
        return nil if known.size < least

        seen = middle(known.map { |one| one.outdoor - one.coil_start })
        expected = middle(known.map { |one| one.outdoor - clock.demand_point(one.outdoor) })
        fields = { seen: number(seen), expected: number(expected), times: known.size }
        off = (seen - expected).abs
        return verdict("recorded_demand_as_set", **fields) if off <= @numbers.fetch("demand_within_degrees_f")

        verdict("recorded_demand_other", off: number(off), **fields)
      end

      # Defrosts that neither its longest time nor its shortest began.
      def demanded
        first, last = @profile.demand_minimum_seconds + 120, @profile.demand_maximum_seconds - 120
        @seen.select { |one| one.outdoor && one.coil_start && one.run_seconds&.between?(first, last) }
      end

      # More grew than the fins bear before it was melted.
      def much_frost
        return nil unless story.has?("outdoor")

        most = FrostCoil.numbers.fetch("frost_blocks_at_kg") * Catalogue.frost.dig("planner", "most_filled_share")
        known = @seen.select(&:frost_kg)
        much = known.select { |one| one.frost_kg > most }
        return nil if much.size < least

        worst = much.max_by(&:frost_kg)
        verdict(
          "recorded_much_frost",
          **share(much, known),
          kg: number(most),
          worst: number(worst.frost_kg),
          defrost: @all.index(worst) + 1,
          outdoor: number(worst.outdoor),
          minutes: worst.run_seconds ? number(worst.run_seconds / 60) : "?",
          humidity: humidity_words
        )
      end

      def humidity_words =
        Catalogue.words("recorded.humidity_#{story.humidity == "assumed" ? "assumed_short" : "column"}")

      def dry
        return nil unless story.has?("outdoor")

        modelled = @seen.select(&:frost_kg)
        kg = Catalogue.frost.dig("expect", "dry_kg")
        dry = modelled.select { |one| one.frost_kg < kg }
        return nil unless often?(dry, modelled)

        fields = { **share(dry, modelled), kg: number(kg), humidity: humidity_words }
        return verdict("recorded_dry_demand", **fields) if demand?

        verdict("recorded_dry", board: Catalogue.words("recorded.board_counts"), **fields)
      end
    end
  end
end
