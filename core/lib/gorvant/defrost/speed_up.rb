# frozen_string_literal: true

module Gorvant
  # What the stopwatch says of a clock that the speed-up pins hurry:
  # expected seconds = remaining minutes × 60 ÷ factor. A clock that had counted gives less, never more. Source:
  # docs/sources.md, defrost-schools.
  module SpeedUp
    # How an interval stands against what was seen. verdict: "excluded" (it would have been over sooner), "near_zero"
    # (the clock had just begun) or "counted" (only with counted_minutes already on it). expected_seconds: from zero.
    Fit = Value.define(:interval_minutes, :expected_seconds, :verdict, :counted_minutes)

    class << self
      def expected_seconds(interval_minutes, factor, counted_minutes: 0.0) =
        [interval_minutes - counted_minutes, 0.0].max * 60.0 / factor
      def minutes_left(seen_seconds, factor) = seen_seconds * factor / 60.0

      # [Fit], shortest interval first. late_seconds: by how much what was seen may follow the relay. fresh: right after
      # a defrost or a reset of the clock, so that it cannot have counted.
      def fits(seen_seconds, factor:, fresh: false, late_seconds: 0.0, intervals: numbers.fetch("intervals_minutes"))
        left = minutes_left(seen_seconds, factor)
        hand = minutes_left(numbers.fetch("mark_sharp_seconds"), factor)
        near = [numbers.fetch("near_zero_minutes"), hand].max
        late = minutes_left(late_seconds, factor)
        intervals.sort.map { |interval| fit(interval, interval - left, late, factor, hand, near, fresh) }
      end

      # The intervals that are possible after what was seen.
      def possible(fits) = fits.reject { |fit| fit.verdict == "excluded" }

      private

      def numbers = Catalogue.profile.fetch("defrost")

      # counted: minutes at the least; late: how many more it may have been.
      def fit(interval, counted, late, factor, hand, near, fresh)
        verdict =
          if counted + late < -hand - 1e-9 || (fresh && counted > near + 1e-9)
            "excluded"
          else
            counted <= near + 1e-9 ? "near_zero" : "counted"
          end
        Fit.new(
          interval_minutes: interval,
          expected_seconds: expected_seconds(interval, factor),
          verdict: verdict,
          counted_minutes: [counted, 0.0].max
        )
      end
    end
  end
end
