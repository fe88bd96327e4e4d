# frozen_string_literal: true

module Gorvant
  module Formats
    # Reads the files of a logger bit by bit into hours of a record. A row that cannot be read makes the record one that
    # is refused; it goes on to find the first fifty, and keeps nothing of them.
    class FieldLogReader
      # What was seen on the way, for a person. gaps: [[from, to]] in seconds since 1970; repeated: rows whose time did
      # not go on; strange: { column => rows outside of what a sensor can read }; empty: { column => rows }; stuck:
      # [[column, from, to]]; changes: [[seconds, hours]] of the clock; interval_seconds: usual.
      Told =
        Value.define(
          :rows,
          :from,
          :to,
          :interval_seconds,
          :gaps,
          :gap_seconds,
          :repeated,
          :repeated_line,
          :back_seconds,
          :strange,
          :empty,
          :stuck,
          :changes
        )

      NAN = Float::NAN
      SAMPLES = 8192
      USUAL_ROWS = 101
      YEARS = (631_152_000.0..4_102_444_800.0) # 1990 to 2100

      attr_reader :problems, :rows

      # keep: called with every RecordHour in turn.
      def initialize(mapping, &keep)
        @mapping = mapping
        @keep = keep
        @about = mapping.ids.map { |id| Catalogue.recorded.dig("columns", id) }
        @at = mapping.ids.map { |id| mapping.columns.dig(id, "at") }
        @turn = mapping.ids.map { |id| turn(mapping.columns.dig(id, "unit")) }
        @kinds = @about.map { |one| one.fetch("kind") }
        @limits = Catalogue.recorded.fetch("limits")
        @degrees = Catalogue.recorded.fetch("degrees").values
        @clock = FieldLogClock.new(**mapping.to_h.slice(:order, :zone, :daylight_saving, :start))
        nothing_read
      end

      # A new file of the record begins. number: from 1, for what is told of its lines. head: of the file, which may
      # begin otherwise than the first.
      def file(number, head)
        if head.names != @mapping.names
          raise BadFieldLog.new(
                  [
                    {
                      "field" => "/files/#{number}",
                      "problem" => "has other columns than the first: #{head.names.first(6).join(", ")}"
                    }
                  ]
                )
        end

        @file = number
        @line = 0
        @skip = head.skip
        @separator = head.separator
        @rest = +""
        @encoding = head.encoding
        @convert =
          (
            if @encoding.start_with?("UTF-16")
              Encoding::Converter.new(@encoding, "UTF-8", invalid: :replace, undef: :replace)
            else
              nil
            end
          )
        self
      end

      def <<(bytes)
        text = @convert ? @convert.convert(bytes) : bytes.dup.force_encoding("UTF-8")
        text = (@rest << text)
        text = text.tr("\r", "\n") if text.include?("\r") && !text.include?("\n")
        last = text.rindex("\n")
        if last.nil?
          refuse_long(text)
          @rest = text
        else
          @rest = text[(last + 1)..]
          lines(text[0, last])
        end
        self
      end

      # Rows that are numbers already, in the units that are kept: an hour of a record that came live.
      def hour(given)
        values = @mapping.ids.map { |id| given.columns.fetch(id) }
        given.seconds.each_with_index do |second, i|
          time = given.starts_at + second
          next again(time) if @last && time <= @last

          begin_row(time)
          values.each_with_index { |column, at| @columns[at] << column[i] }
        end
        self
      end

      def end_file
        lines(@rest) unless @rest.empty?
        @rest = +""
        self
      end

      # Told, when all files are read. Raises BadFieldLog with the first bad lines.
      def finish
        raise BadFieldLog.new(@problems) if @problems.any?
        raise BadFieldLog.new([{ "field" => "/file", "problem" => "has no row" }]) if @rows.zero?

        flush
        usual
        close_still(@last)
        Told.new(
          rows: @rows,
          from: @from,
          to: @last,
          interval_seconds: @interval,
          gaps: @gaps.first(@limits.fetch("told_gaps")),
          gap_seconds: @gap_seconds,
          repeated: @repeated,
          repeated_line: @repeated_line,
          back_seconds: @back,
          strange: @strange.transform_keys { |i| @mapping.ids[i] },
          empty: @empty.transform_keys { |i| @mapping.ids[i] },
          stuck: @stuck,
          changes: changes
        )
      end

      # { id => OnOff } of the columns that switch.
      def on_off =
        @mapping
          .ids
          .each_with_index
          .filter_map { |id, i| @samples[i] && [id, OnOff.of(@samples[i], unit: @about[i]["unit"])] }
          .to_h

      private

      def nothing_read
        @problems = []
        @bad = 0
        @rows = @repeated = 0
        @hour = @last = @from = @repeated_line = @interval = nil
        @back = @gap_seconds = 0.0
        @seconds = []
        @columns = @at.map { [] }
        @deltas, @gaps = [], []
        @strange, @empty = Hash.new(0), Hash.new(0)
        @samples = @kinds.map { |kind| kind == "switched" ? [] : nil }
        @stride = 1
        @still = @at.map { nil }
        @stuck = []
      end

      def turn(unit)
        pair = FieldLogMapping::UNITS.fetch(unit)
        pair == [1.0, 0.0] ? nil : pair
      end

      def refuse_long(text)
        return if text.bytesize <= @limits.fetch("line_bytes")

        raise BadFieldLog.new(
                [
                  {
                    "field" => "/lines/#{@line + 1}",
                    "problem" => "has over #{@limits.fetch("line_bytes")} characters"
                  }
                ]
              )
      end

      # The quick way where nothing is quoted and no number is written in a way that only Ruby knows.
      def lines(text)
        text = text.scrub("?") unless text.valid_encoding?
        text = text.delete("\r") if text.include?("\r")
        text = text.tr(",", ".") if @mapping.decimal_comma && @separator != ","
        slow = text.include?('"') || text.match?(/\d_\d|0[xX]\h/)
        count = @mapping.names.size
        text.each_line(chomp: true) do |line|
          @line += 1
          next if @line <= @skip || line.empty?

          cells = slow ? FieldLogHead.cells(line, @separator) : line.split(@separator, -1)
          if cells.size == count
            row(cells, slow)
          elsif !line.strip.empty?
            bad("has #{cells.size} columns where the others have #{count}")
          end
        end
      end

      def row(cells, slow)
        text = time_of(cells)
        time = @clock.read(text, @last)
        return bad(@clock.problem) unless time
        return bad("'#{text[0, 30]}' is before 1990 or after 2100") unless YEARS.cover?(time)
        return again(time) if @last && time <= @last

        kept = @problems.empty?
        begin_row(time) if kept
        i = 0
        while i < @at.size
          cell = cells[@at[i]]
          value = number(cell, slow) || word(cell, i) or return bad(no_number(cell, i))
          add(value, i) if kept
          i += 1
        end
      end

      def time_of(cells)
        first, second = @mapping.time
        text = second ? "#{cells[first]} #{cells[second]}" : cells[first]
        text.start_with?(" ") || text.end_with?(" ") ? text.strip : text
      end

      def number(cell, slow) = slow && cell.match?(/_|x/i) ? nil : Float(cell, exception: false)
      def no_number(cell, index) = "'#{cell.strip[0, 30]}' in #{@mapping.names[@at[index]]} is no number"

      def add(value, index)
        pair = @turn[index]
        @columns[index] << (pair ? (value * pair[0]) + pair[1] : value)
      end

      # Text in the place of a number: nothing, or on and off in words; nil for what is neither.
      def word(cell, index)
        plain = cell.strip.downcase
        words = Catalogue.recorded.fetch("words")
        return NAN if words["gap"].include?(plain)
        return nil unless @kinds[index] == "switched"
        return 1.0 if words["on"].include?(plain)

        words["off"].include?(plain) ? 0.0 : nil
      end

      def bad(problem)
        @bad += 1
        return if @problems.size >= @limits.fetch("told_lines")

        place = @file == 1 ? "/lines/#{@line}" : "/files/#{@file}/lines/#{@line}"
        @problems << { "field" => place, "problem" => problem }
      end

      def again(time)
        @repeated += 1
        @repeated_line ||= @line
        @back = [@back, @last - time].max
      end

      def begin_row(time)
        hour = (time / 3600).to_i
        flush if @hour && hour != @hour
        delta(time) if @last
        @hour = hour
        @from ||= time
        @last = time
        @rows += 1
        @seconds << (time - (hour * 3600))
      end

      def delta(time)
        passed = time - @last
        if @interval
          gap(@last, passed) if passed > @most
        else
          @deltas << [passed, @last]
          usual if @deltas.size >= USUAL_ROWS
        end
      end

      # What is usual is known after some rows; gaps among those are told then.
      def usual
        return if @interval || @deltas.empty?

        @interval = @deltas.map(&:first).sort[@deltas.size / 2]
        numbers = Catalogue.recorded.fetch("reading")
        @most = [@interval * numbers.fetch("gap_intervals"), numbers.fetch("gap_least_seconds")].max
        @deltas.each { |passed, from| gap(from, passed) if passed > @most }
        @deltas = []
      end

      def gap(from, passed)
        @gap_seconds += passed
        @gaps << [from, from + passed]
      end

      def flush
        return if @seconds.empty?

        @columns.each_with_index { |values, i| look(values, i) }
        still
        @keep.call(RecordHour.new(hour: @hour, seconds: @seconds, columns: @mapping.ids.zip(@columns).to_h))
        @seconds = []
        @columns = @at.map { [] }
      end

      # What no sensor can read is a gap, and told.
      def look(values, index)
        whole = !values.sum.nan?
        low, high = @degrees
        if @kinds[index] == "degrees" && !(whole && values.min >= low && values.max <= high)
          values.each_with_index do |value, at|
            next if value.nan? || value.between?(low, high)

            @strange[index] += 1
            values[at] = NAN
          end
        end
        empty = whole ? 0 : values.count(&:nan?)
        @empty[index] += empty if empty.positive?
        sample(values, index) if @samples[index]
      end

      def sample(values, index)
        values.each_with_index { |value, at| @samples[index] << value if (at % @stride).zero? }
        return if @samples[index].size <= SAMPLES

        @samples = @samples.map { |all| all && all.each_slice(2).map(&:first) }
        @stride = [@stride * 2, 60].min
      end

      # Degrees that stay the very same for hours while others move.
      def still
        ranges =
          @columns.map do |values|
            known = values.sum.nan? ? values.reject(&:nan?) : values
            known.empty? ? nil : known.minmax
          end
        degrees = @kinds.each_index.select { |i| @kinds[i] == "degrees" && ranges[i] }
        degrees.each do |i|
          low, high = ranges[i]
          if low == high && (@still[i].nil? || @still[i][:value] == low)
            @still[i] ||= { value: low, from: @hour * 3600, others: {} }
            (degrees - [i]).each { |other| widen(@still[i][:others], other, ranges[other]) }
          else
            tell_still(i, @hour * 3600)
          end
        end
      end

      def widen(others, index, range)
        was = others[index] || range
        others[index] = [[was[0], range[0]].min, [was[1], range[1]].max]
      end

      def tell_still(index, to)
        one = @still[index] or return
        @still[index] = nil
        numbers = Catalogue.recorded.fetch("reading")
        moved = one[:others].values.map { |low, high| high - low }.max.to_f
        unless to - one[:from] >= numbers.fetch("stuck_hours") * 3600 &&
                 moved >= numbers.fetch("stuck_others_degrees_f")
          return
        end

        @stuck << [@mapping.ids[index], one[:from], to]
      end

      def close_still(to) = @still.each_index { |i| tell_still(i, to) }

      # When the clock was put on or back within the record: [[seconds, hours]].
      def changes
        return [] if !@mapping.daylight_saving || @mapping.order == "seconds"

        FieldLogClock
          .zone(@mapping.zone)
          .transitions_up_to(Time.at(@last).utc, Time.at(@from).utc)
          .map do |one|
            [one.timestamp_value, (one.offset.observed_utc_offset - one.previous_offset.observed_utc_offset) / 3600.0]
          end
      end
    end
  end
end
