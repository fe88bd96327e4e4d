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

    # [Signal] with the value that holds at the beginning, and at most two changes a pixel.
    def signals = @timeline.signals.map { |signal| signal.with(steps: [[from, @timeline.value_at(signal.id, from)]] + thinned(inside(signal.steps), &:last)) }

    # [Curve] with the values at both ends; of each pixel the least and the most.
    def curves
      @timeline.curves.map { |curve| curve.with(points: [[from, value(curve, from)], *thinned(inside(curve.points), &:last), [to, value(curve, to)]]) }
    end

    private

    def inside(points) = points.select { |at, _value| at > from && at <= to }

    def thinned(points)
      points.chunk_while { |a, b| ((a[0] - from) / @pixel).floor == ((b[0] - from) / @pixel).floor }.flat_map do |same|
        same.size <= 2 ? same : [same.first, same.last]
      end
    end

    def value(curve, at)
      after = curve.points.find { |seconds, _value| seconds >= at } or return curve.points.last[1]
      before = curve.points.reverse_each.find { |seconds, _value| seconds <= at } || after
      return after[1] if after[0] == before[0]

      (before[1] + ((after[1] - before[1]) * (at - before[0]) / (after[0] - before[0]))).round(3)
    end
  end
end
