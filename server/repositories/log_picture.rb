# frozen_string_literal: true

module Gorvant
  module Server
    # A stretch of a record thinned to what a width can show: least and most of every pixel.
    class LogPicture
      def initialize(ids, columns, from, to, width)
        @ids, @columns, @from, @to, @width = ids, columns, from, to, width
        @least = columns.to_h { |id| [id, Array.new(width)] }
        @most = columns.to_h { |id| [id, Array.new(width)] }
      end

      # hours: rows of log_hours; slot: seconds of a level, nil for the rows themselves.
      # { "from", "to", "width", "columns" => { id => { "least" => [], "most" => [] } } }
      def of(hours, slot)
        hours.each { |row| slot ? level(row, slot) : samples(row) }
        lists = @columns.to_h { |id| [id, { "least" => @least[id], "most" => @most[id] }] }
        { "from" => @from, "to" => @to, "width" => @width, "columns" => lists }
      end

      private

      def level(row, slot)
        content = row[Logs::LEVELS.fetch(slot)].to_s
        pairs = RecordHour.unpack_level(@ids, slot, content)
        @columns.each do |id|
          pairs.fetch(id).each_with_index { |pair, i| add(id, (row[:hour] * 3600) + (i * slot), *pair) if pair }
        end
      end

      def samples(row)
        hour = RecordHour.unpack(row[:hour], @ids, Depot.current.bytes(row))
        pieces = pieces(hour)
        @columns.each do |id|
          values = hour.columns.fetch(id)
          pieces.each do |at, first, last|
            some = values[first...last]
            some = some.reject(&:nan?) if some.sum.nan?
            add(id, at, *some.minmax) if some.any?
          end
        end
      end

      # [time, first row, row after the last] of each pixel that has rows of this hour.
      def pieces(hour)
        step = (@to - @from) / @width
        begins = [((hour.starts_at - @from) / step).floor, 0].max
        ends = [((hour.starts_at + 3600 - @from) / step).ceil, @width].min
        bounds = (begins..ends).map { |pixel| row_at(hour.seconds, @from + (pixel * step) - hour.starts_at) }
        (begins...ends)
          .zip(bounds.each_cons(2))
          .filter_map { |pixel, (first, last)| [@from + ((pixel + 0.5) * step), first, last] if last > first }
      end

      def row_at(seconds, from) = seconds.bsearch_index { |at| at >= from - 1e-6 } || seconds.size

      def add(id, at, low, high)
        return if at < @from || at >= @to

        pixel = ((at - @from) / (@to - @from) * @width).to_i
        least, most = @least.fetch(id), @most.fetch(id)
        least[pixel] = low.round(2) if least[pixel].nil? || low < least[pixel]
        most[pixel] = high.round(2) if most[pixel].nil? || high > most[pixel]
      end
    end
  end
end
