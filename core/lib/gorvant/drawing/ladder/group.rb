# frozen_string_literal: true

module Gorvant
  class Ladder
    # Rungs that share their beginning: one under the other, each row only what is its own. Finds where every stop
    # stands.
    class Group
      Row = Value.define(:way, :from, :to) # way: the Way; from, to: indexes of its first and last stop that are its own

      HALVES = { left: 0, right: 0, pin: 24, terminal: 24, neutral: 24, device: 25, load: 36 }.freeze
      GAP = 2

      attr_reader :rows

      # ways: [Way], the first one whole.
      def initialize(ways)
        @rows = []
        @placed = {}
        ways.each { |way| add(way) }
        sort
      end

      # Whether a way begins as this group does, beyond the rail and its R.
      def shares?(way) = prefix(way) > 2

      def add(way)
        from = prefix(way)
        from, way = 0, own_start(way) if from <= 2 && @rows.any?
        to = suffix(way, from)
        @rows << Row.new(way: way, from: from, to: to)
        way.stops[from..to].each { |stop| @placed[stop.key] = stop unless rail?(stop) }
      end

      # Of a row's stops those of its own, and the one before and after.
      def drawn_stops(row) = row.way.stops[[row.from - 1, 0].max..[row.to + 1, row.way.stops.size - 1].min]

      # { stop key => x } between the rails. Loads stand at `loads`, or as far left of it as their way home needs.
      def columns(left, right, loads)
        edges = @rows.flat_map { |row| drawn_stops(row).each_cons(2).to_a }
        stops = edges.flatten.uniq(&:key)
        ends = { "right" => -right, "neutral" => 44 - right }
        latest = settle(edges.map(&:reverse), Hash.new(-right).merge(ends)) # the same problem, seen from the right rail
        x = Hash.new(left).merge("left" => left)
        stops.each do |stop|
          x[stop.key] = [loads, -latest[stop.key]].min if stop.kind == :load
          x[stop.key] = left + 100 if stop.kind == :pin
        end
        settle(edges, x).merge("right" => right)
      end

      # Rows that join sooner lie nearer, so that what joins later crosses none of them; a row lies under those that it
      # leans on.
      def sort
        x = columns(0, 0, 0)
        waiting = @rows.drop(1)
        @rows = @rows.first(1)
        until waiting.empty?
          standing = @rows.flat_map { |row| own(row) }
          ready = waiting.select { |row| leans_on(row).all? { |key| standing.include?(key) } }
          row =
            (ready.empty? ? waiting : ready).min_by { |one| [ends_at(one, x), @placed.keys.index(own(one).first) || 0] }
          @rows << waiting.delete(row)
        end
      end

      private

      def own(row) = row.way.stops[row.from..row.to].map(&:key)

      # Stops of other rows that a row starts from or ends at.
      def leans_on(row)
        stops = [(row.way.stops[row.from - 1] if row.from.positive?), row.way.stops[row.to + 1]].compact
        stops.reject { |stop| rail?(stop) }.map(&:key)
      end

      # A way that shares no more than its R has an R of its own.
      def own_start(way)
        stops =
          way.stops.map do |stop|
            if @placed.key?(stop.key) && stop.kind == :terminal && stop.key.end_with?(".R")
              stop.with(key: "#{stop.key}##{@rows.size}")
            else
              stop
            end
          end
        way.with(stops: stops)
      end

      def rail?(stop) = %i[left right neutral].include?(stop.kind)
      def ends_at(row, x) =
        row.way.stops[row.to + 1].then { |stop| stop.nil? || rail?(stop) ? Float::INFINITY : x[stop.key] }

      # How many of a way's first stops stand already (its rail counts).
      def prefix(way)
        return 0 if @rows.empty?

        way.stops.take_while { |stop| stop.kind == :left || @placed.key?(stop.key) }.size
      end

      # The last stop that is the way's own.
      def suffix(way, from)
        return way.stops.size - 1 if @rows.empty?

        shared =
          way
            .stops
            .drop(from + 1)
            .reverse
            .take_while { |stop| @placed.key?(stop.key) || %i[right neutral].include?(stop.kind) }
        # Home by the rail alone is drawn anew.
        shared = [] if shared.size == 1 && rail?(shared.first)
        way.stops.size - 1 - shared.size
      end

      def settle(edges, x)
        edges.size.times do
          moved = false
          edges.each do |a, b|
            least = x[a.key] + HALVES.fetch(a.kind) + HALVES.fetch(b.kind) + GAP
            next unless least > x[b.key]

            x[b.key] = least
            moved = true
          end
          break unless moved
        end
        x
      end
    end
  end
end
