# frozen_string_literal: true

module Gorvant
  # Straight lines and where they cross: what drawing needs of geometry.
  module Geometry
    BRIDGE_RADIUS = 6
    GAP_HALF = 9
    CHEVRON_EVERY = 34

    class << self
      # Splits a polyline at half of its length, leaving a gap: [first half, second half, middle].
      def split(points)
        half = length(points) / 2.0
        [cut(points, 0, half - GAP_HALF), cut(points, half + GAP_HALF, half * 2), at(points, half)[0]]
      end

      def length(points) = points.each_cons(2).sum { |a, b| distance(a, b) }

      # [[x, y], angle in degrees] at a distance along the polyline.
      def at(points, along)
        points.each_cons(2) do |a, b|
          step = distance(a, b)
          if along <= step && step.positive?
            return [a[0] + ((b[0] - a[0]) * along / step), a[1] + ((b[1] - a[1]) * along / step)], angle(a, b)
          end

          along -= step
        end
        [points.last, angle(*points.last(2))]
      end

      # SVG path of a polyline that hops over the given crossings [[x, y]] on its horizontal stretches.
      def path(points, crossings)
        points
          .each_cons(2)
          .inject("M#{number(points[0][0])} #{number(points[0][1])}") do |d, (a, b)|
            hops_of(a, b, crossings).inject(d) { |so_far, x| so_far + hop(x, a[1], b[0] > a[0]) } +
              "L#{number(b[0])} #{number(b[1])}"
          end
      end

      # x of the crossings on a stretch, in the order that they are met.
      def hops_of(from, to, crossings)
        return [] unless from[1] == to[1]

        hops = crossings.select { |x, y| y == from[1] && x.between?(*[from[0], to[0]].minmax) }.map(&:first).sort
        to[0] < from[0] ? hops.reverse : hops
      end

      # Upright stretches of many polylines: [[x, top, foot, index of the polyline]], from left to right.
      def uprights(lines)
        lines
          .each_with_index
          .flat_map do |points, i|
            points.each_cons(2).filter_map { |a, b| [a[0], *[a[1], b[1]].minmax, i] if a[0] == b[0] && a[1] != b[1] }
          end
          .sort_by
          .with_index { |upright, i| [upright.first, i] }
      end

      # Where a polyline's level stretches cross upright ones of others: [[x, y]]. own: its index among them.
      def crossings(points, uprights, own)
        points
          .each_cons(2)
          .flat_map do |a, b|
            next [] unless a[1] == b[1]

            left, right = [a[0], b[0]].minmax
            first = uprights.bsearch_index { |upright| upright[0] > left + 1 } || uprights.size
            uprights[first..]
              .take_while { |upright| upright[0] < right - 1 }
              .filter_map { |x, top, foot, line| [x, a[1]] if line != own && a[1] > top + 1 && a[1] < foot - 1 }
          end
          .uniq
      end

      def chevrons(points)
        total = length(points)
        count = (total / CHEVRON_EVERY).floor
        (1..count).map do |i|
          (x, y), angle = at(points, total * (i - 0.5) / count)
          { x: x.round(1), y: y.round(1), angle: angle }
        end
      end

      # Whether two boxes [left, top, right, bottom] share more than an edge.
      def overlap?(one, two) = one[0] < two[2] && two[0] < one[2] && one[1] < two[3] && two[1] < one[3]

      # The box of a straight stretch of a given width.
      def stretch(from, to, width)
        half = width / 2.0
        x = [from[0], to[0]].minmax
        y = [from[1], to[1]].minmax
        from[0] == to[0] ? [x[0] - half, y[0], x[1] + half, y[1]] : [x[0], y[0] - half, x[1], y[1] + half]
      end

      # Points without those that stand on the straight way between their neighbors.
      def straightened(points)
        kept = points.each_with_index.reject { |point, i| i.positive? && points[i - 1] == point }.map(&:first)
        inner =
          kept
            .each_cons(3)
            .reject { |a, b, c| (a[0] == b[0] && b[0] == c[0]) || (a[1] == b[1] && b[1] == c[1]) }
            .map { |three| three[1] }
        kept.size < 3 ? kept : [kept.first, *inner, kept.last]
      end

      def number(value) = value == value.round ? value.round : value.round(1)

      private

      def hop(x, y, rightwards)
        r = BRIDGE_RADIUS
        from, to = rightwards ? [x - r, x + r] : [x + r, x - r]
        "L#{number(from)} #{number(y)}A#{r} #{r} 0 0 #{rightwards ? 1 : 0} #{number(to)} #{number(y)}"
      end

      def cut(points, from, to)
        start = at(points, from)[0]
        finish = at(points, to)[0]
        passed = 0.0
        inner =
          points
            .each_cons(2)
            .filter_map do |a, b|
              passed += distance(a, b)
              b if passed > from && passed < to
            end
        [start, *inner, finish]
      end

      def distance(a, b) = Math.hypot(b[0] - a[0], b[1] - a[1])
      def angle(a, b) = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180 / Math::PI).round
    end
  end
end
