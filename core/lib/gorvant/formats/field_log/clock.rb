# frozen_string_literal: true

module Gorvant
  module Formats
    # A field logger's file that cannot be read; problems: [{ "field", "problem" }], lines as /lines/NUMBER.
    class BadFieldLog < Error
      says "%<first>s"
      attr_reader :problems

      def initialize(problems)
        @problems = problems
        super(first: "#{problems.first["field"]}: #{problems.first["problem"]}")
      end
    end

    # Times of a logger as seconds since 1970, UTC. A logger's clock follows a zone with its daylight saving, or keeps
    # one offset all year, or writes the offset, or counts seconds.
    class FieldLogClock
      ORDERS = %w[ymd mdy dmy].freeze
      FORMS = {
        "ymd" => %r{\A(?<y>\d{4})[-/.](?<m>\d{1,2})[-/.](?<d>\d{1,2})},
        "mdy" => %r{\A(?<m>\d{1,2})[-/](?<d>\d{1,2})[-/](?<y>\d{4}|\d{2})},
        "dmy" => %r{\A(?<d>\d{1,2})[-/.](?<m>\d{1,2})[-/.](?<y>\d{4}|\d{2})}
      }.freeze
      OFFSET = /(?<zone>Z|[-+]\d{2}:?\d{2})?/
      HALF = /(?<half>[AaPp]\.?[Mm]\.?)?/
      HOURS = /[T ,.]+(?<h>\d{1,2}):(?<min>\d{2})(?::(?<s>\d{2}(?:[.,]\d+)?))?\s*#{HALF}\s*#{OFFSET}\z/
      KEPT = 4000
      DAY_SECONDS = 86_400

      class << self
        def time?(text) = FORMS.any? { |_order, date| text.match?(date) } && text.match?(/\d{1,2}:\d{2}|\A[^ T]+\z/)

        # Which order of the date fits all of these texts; "seconds" for plain numbers; nil for none. Where both fit,
        # the month comes first, as is usual here, and the guess is to be looked at; with dots between the day comes
        # first.
        def order(texts)
          return nil if texts.empty?
          return "seconds" if texts.all? { |text| text.match?(/\A\d+(?:[.,]\d+)?\z/) }

          ORDERS.find { |order| texts.all? { |text| parts(text, order) } }
        end

        # { year, month, … } or nil
        def parts(text, order)
          date = FORMS.fetch(order).match(text) or return nil
          clock = HOURS.match(date.post_match) or return nil
          year = date[:y].to_i
          year += 2000 if year < 100
          return nil unless Date.valid_date?(year, date[:m].to_i, date[:d].to_i)

          hour = hour(clock) or return nil
          return nil if clock[:min].to_i > 59 || clock[:s].to_f >= 60

          {
            year: year,
            month: date[:m].to_i,
            day: date[:d].to_i,
            hour: hour,
            minute: clock[:min].to_i,
            second: clock[:s].to_s.tr(",", ".").to_f,
            zone: clock[:zone]
          }
        end

        private

        def hour(clock)
          hour = clock[:h].to_i
          return hour < 24 ? hour : nil unless clock[:half]
          return nil unless hour.between?(1, 12)

          (hour % 12) + (clock[:half].downcase.start_with?("p") ? 12 : 0)
        end
      end

      # Why the last text could not be read; a sentence's end.
      attr_reader :problem

      # order: of ORDERS, or "seconds" from start (seconds since 1970 where start is nil). zone: name of a time zone.
      # daylight_saving: whether the logger's clock follows it.
      def initialize(order:, zone: "UTC", daylight_saving: true, start: nil)
        @order = order
        @start = start.to_f
        @zone = FieldLogClock.zone(zone)
        @daylight_saving = daylight_saving
        @minutes = {}
      end

      # Raises BadFieldLog for one that is not known.
      def self.zone(name)
        require "tzinfo"
        TZInfo::Timezone.get(name).tap(&:current_period)
      rescue TZInfo::InvalidTimezoneIdentifier, TZInfo::InvalidDataSource
        raise BadFieldLog.new([{ "field" => "/mapping/zone", "problem" => "'#{name.to_s[0, 40]}' is no time zone" }])
      end

      # Seconds since 1970, or nil with `problem`. last: of the row before, by which an hour that comes twice is told
      # apart.
      def read(text, last)
        return seconds(text) if @order == "seconds"

        # What comes before and after the seconds changes once a minute; most rows are of the same as the row before.
        if @same && text.start_with?(@same) && text.size == @same_size
          second = two_digits(text, @same.size)
          return at(@same_minute, last, second) if second
        end
        cut, size = seconds_at(text)
        return whole(text, last) unless cut

        key = size == text.size ? text[0, cut] : text[0, cut] + text[size..]
        minute = @minutes[key]
        unless minute
          minute = of_minute(text) or return nil
          @minutes.clear if @minutes.size > KEPT
          @minutes[key] = minute
        end
        second = text[cut, size - cut].to_f
        return fail("has seconds over 59") if second >= 60

        remember(text, cut, size, minute)
        at(minute, last, second)
      end

      private

      def remember(text, cut, size, minute)
        return unless size == text.size && size == cut + 2

        @same = text[0, cut]
        @same_size = text.size
        @same_minute = minute
      end

      # 0 to 59 at a place, or nil.
      def two_digits(text, at)
        tens, ones = text.getbyte(at) - 48, text.getbyte(at + 1) - 48
        tens.between?(0, 5) && ones.between?(0, 9) ? (tens * 10) + ones : nil
      end

      def fail(problem) = (@problem = problem) && nil

      def seconds(text)
        number = Float(text.tr(",", "."), exception: false)
        number ? @start + number : fail("'#{text[0, 30]}' is no number of seconds")
      end

      # Where the seconds stand: after the second colon, two digits and what follows of them.
      def seconds_at(text)
        first = text.index(":") or return nil
        second = text.index(":", first + 1) or return nil
        unless second == first + 3 && text.getbyte(second + 1)&.between?(48, 53) &&
                 text.getbyte(second + 2)&.between?(48, 57)
          return nil
        end

        to = second + 3
        to += 1 while (byte = text.getbyte(to)) && (byte == 46 || byte.between?(48, 57))
        [second + 1, to]
      end

      def whole(text, last)
        minute = of_minute(text) or return nil
        at(minute, last, minute[:second])
      end

      # utc: seconds of its minute, both where the hour comes twice.
      def of_minute(text)
        parts = FieldLogClock.parts(text, @order)
        return fail("'#{text[0, 30]}' is no time in the order #{@order}") unless parts

        local = Time.utc(parts[:year], parts[:month], parts[:day], parts[:hour], parts[:minute]).to_i
        utc = parts[:zone] ? [local - offset(parts[:zone])] : candidates(local)
        if utc.empty?
          return(
            fail(
              "'#{text[0, 30]}' does not exist on that day: clocks were put on; if the logger's clock is not, say so"
            )
          )
        end

        { utc: utc, second: parts[:second] }
      end

      def offset(zone)
        return 0 if zone == "Z"

        digits = zone.delete(":")
        (digits[0] == "-" ? -1 : 1) * ((digits[1, 2].to_i * 3600) + (digits[3, 2].to_i * 60))
      end

      def candidates(local)
        return [local - @zone.period_for_utc(Time.at(local).utc).base_utc_offset] unless @daylight_saving

        @zone.periods_for_local(Time.at(local).utc).map { |period| local - period.observed_utc_offset }.sort
      end

      def at(minute, last, second)
        first, later = minute[:utc]
        time = first + second
        later && last && time < last ? later + second : time
      end
    end
  end
end
