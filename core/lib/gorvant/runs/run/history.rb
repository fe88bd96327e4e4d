# frozen_string_literal: true

module Gorvant
  class Run
    # The courses of continuous quantities as points with straight lines between.
    class History
      BESIDE = { nil => 0.02, "frost" => 0.005 }.freeze # of the quantity's own unit

      def initialize
        @points = Hash.new { |hash, key| hash[key] = [] }
        @lines = {}
      end

      # Notes every quantity at an instant; where a line bent since, its own corner too.
      def note(now, quantities, clock_minutes, counting)
        quantities.each { |name, quantity| line(name, quantity, now) }
        clock =
          Quantity.new(
            value: clock_minutes,
            at_seconds: now,
            target: counting ? 1e9 : clock_minutes,
            rate: counting ? 1 / 60.0 : 0.0
          )
        line("clock", clock, now)
      end

      # { name => [[seconds, value]] } up to the end, in as few points as keep within BESIDE of the course.
      def close(now)
        @lines.each { |name, quantity| corners(name, quantity, now) }
        @points.each { |name, list| @points[name] = few(list, BESIDE.fetch(name, BESIDE.fetch(nil))) }
      end

      private

      def line(name, quantity, now)
        was = @lines[name]
        corners(name, was, now) if was
        put(name, now, quantity.at(now))
        @lines[name] = quantity
      end

      # Where it bent on the way.
      def corners(name, quantity, now)
        from = @points[name].last[0]
        quantity.corners(now).each { |at, value| put(name, at, value) if at > from }
        put(name, now, quantity.at(now))
      end

      def put(name, seconds, value)
        value = value.round(3)
        @points[name] << [seconds, value] unless @points[name].last == [seconds, value]
      end

      # From each point kept on as far as one straight line goes by all that lie between.
      def few(list, beside)
        kept = list.first(1)
        least, most = -Float::INFINITY, Float::INFINITY
        list
          .each_cons(2)
          .with_index do |(point, following), i|
            least, most = narrowed(kept.last, point, beside, least, most) if i.positive?
            next if i.zero? || slope(kept.last, following)&.between?(least, most)

            kept << point
            least, most = -Float::INFINITY, Float::INFINITY
          end
        list.size > 1 ? kept << list.last : kept
      end

      # The slopes by which a line from a point still goes by all so far.
      def narrowed(from, point, beside, least, most)
        seconds = point[0] - from[0]
        return least, most unless seconds.positive?

        rise = point[1] - from[1]
        [[least, (rise - beside) / seconds].max, [most, (rise + beside) / seconds].min]
      end

      def slope(from, to) = to[0] > from[0] ? (to[1] - from[1]) / (to[0] - from[0]) : nil
    end
  end
end
