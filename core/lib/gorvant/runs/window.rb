# frozen_string_literal: true

module Gorvant
  # A stretch of a timeline, thinned to what a width in pixels can show.
  class Window
    attr_reader :from, :to

    def initialize(timeline, from:, to:, width:)
      @timeline = timeline
      @from = from
      @to = to
      @pixel = (to - from) / width.to_f
    end

    # [Signal] with the value that holds at the beginning, and at most two changes a pixel: the first and the last, so
    # that a pulse is seen.
    def signals =
      @timeline.signals.map do |signal|
        signal.with(
          steps:
            [[from, @timeline.value_at(signal.id, from)]] +
              by_pixel(inside(signal.steps)) { |same| [same.first, same.last] }
        )
      end

    # [Curve] with the values at both ends; of each pixel the first, the least, the most and the last, in the order in
    # which they came, so that a line goes on from where it was.
    def curves
      @timeline.curves.map do |curve|
        kept = by_pixel(inside(curve.points)) { |same| keep(same) }
        curve.with(points: [[from, value(curve, from)], *kept, [to, value(curve, to)]])
      end
    end

    private

    def inside(points) = points.select { |at, _value| at > from && at <= to }

    def by_pixel(points)
      points
        .chunk_while { |a, b| ((a[0] - from) / @pixel).floor == ((b[0] - from) / @pixel).floor }
        .flat_map { |same| same.size <= 2 ? same : yield(same) }
    end

    def keep(same)
      least, most = same.each_index.minmax_by { |i| same[i].last }
      same.values_at(*[0, least, most, same.size - 1].uniq.sort)
    end

    def value(curve, at)
      after = curve.points.find { |seconds, _value| seconds >= at } or return curve.points.last[1]
      before = curve.points.reverse_each.find { |seconds, _value| seconds <= at } || after
      return after[1] if after[0] == before[0]

      (before[1] + ((after[1] - before[1]) * (at - before[0]) / (after[0] - before[0]))).round(3)
    end
  end
end
