# frozen_string_literal: true

module Gorvant
  class Run
    # The courses of continuous quantities as points with straight lines between.
    class History
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

      # { name => [[seconds, value]] } up to the end.
      def close(now)
        @lines.each { |name, quantity| corner(name, quantity, now) }
        @points.each do |name, list|
          @points[name] = list
            .each_with_index
            .select { |point, i| i.zero? || i == list.size - 1 || !straight?(list[i - 1], point, list[i + 1]) }
            .map(&:first)
        end
      end

      private

      def line(name, quantity, now)
        was = @lines[name]
        corner(name, was, now) if was
        put(name, now, quantity.at(now))
        @lines[name] = quantity
      end

      # Where it reached its target on the way.
      def corner(name, quantity, now)
        reached =
          quantity.rate.zero? ? nil : quantity.at_seconds + ((quantity.target - quantity.value).abs / quantity.rate)
        put(name, reached, quantity.target) if reached && reached < now && reached > @points[name].last[0]
        put(name, now, quantity.at(now))
      end

      def put(name, seconds, value)
        value = value.round(3)
        @points[name] << [seconds, value] unless @points[name].last == [seconds, value]
      end

      def straight?(before, point, after)
        return false if after[0] == before[0]

        share = (point[0] - before[0]) / (after[0] - before[0])
        (before[1] + ((after[1] - before[1]) * share) - point[1]).abs < 0.01
      end
    end
  end
end
