# frozen_string_literal: true

module Gorvant
  # A continuous quantity that follows straight lines between points and stays at the last: what Quantity is for one
  # line, for several.
  class Course
    PAST = 1e-6 # seconds: past a threshold, so that rounding leaves nobody just before it

    # points: [[seconds, value]] by time, one at least.
    def initialize(points)
      @points = points
    end

    # Where it is going in the end, as far as is known.
    def target = @points.last[1]

    # Its value at a time not before its beginning.
    def at(seconds)
      i = @points.bsearch_index { |at, _value| at > seconds }
      return target unless i
      return @points.first[1] if i.zero?

      (from, value), (to, following) = @points[i - 1], @points[i]
      value + ((following - value) * (seconds - from) / (to - from))
    end

    # The time after `seconds` at which it has passed a threshold, or nil.
    def reaches(threshold, seconds)
      now = at(seconds)
      return nil if now == threshold

      below = now < threshold
      was = [seconds, now]
      @points.each do |point|
        next if point[0] <= seconds
        return crossing(was, point, threshold) if below ? point[1] >= threshold : point[1] <= threshold

        was = point
      end
      nil
    end

    # [[seconds, value]] of its bends before a time.
    def corners(before) = @points.take_while { |at, _value| at < before }

    private

    def crossing((from, value), (to, following), threshold) =
      from + ((to - from) * (threshold - value) / (following - value)) + PAST
  end
end
