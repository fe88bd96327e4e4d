# frozen_string_literal: true

module Gorvant
  # A history that cannot be read; problems: [{ "field", "problem" }].
  class BadHistory < Error
    says "%<first>s"
    attr_reader :problems

    def initialize(problems)
      @problems = problems
      super(first: "#{problems.first["field"]}: #{problems.first["problem"]}")
    end
  end

  # When the compressor was fed and when the coil switch was closed, as stretches of minutes: what schools are compared
  # on. spans: { key of LANES => [[from, to]] }, in minutes; to may be Float::INFINITY. temperatures: { "coil" /
  # "outdoor" => [[minute, °F]] }, straight between the points; none where nobody wrote them down. given: lanes that
  # were written down.
  RunHistory =
    Value.define(:spans, :minutes, :temperatures, :given, defaults: { temperatures: {}.freeze, given: [].freeze })

  class RunHistory
    LANES = {
      "fed" => "compressor fed",
      "cold" => "coil switch closed",
      "y" => "Y live",
      "cooling" => "in cooling",
      "unpowered" => "board without power",
      "aps" => "air-pressure switch closed"
    }.freeze
    TEMPERATURES = { "coil" => "coil, °F", "outdoor" => "outdoor air, °F" }.freeze
    DEGREES = (-60.0..200.0)
    MOST_MINUTES = 2880.0
    MOST_SPANS = 300

    class << self
      # From JSON: { "minutes" => 240, "fed" => "0-25, 40-62, 75-", "cold" => "always" }. A lane left out: y as fed,
      # cold never, none else.
      def parse(given)
        unless given.is_a?(Hash)
          raise BadHistory.new(
                  [problem("/history", "has to be an object such as {\"minutes\": 240, \"fed\": \"0-25, 40-\"}")]
                )
        end

        problems = [*length_problem(given["minutes"]), *stray_problems(given)]
        spans = LANES.keys.to_h { |lane| [lane, given.key?(lane) ? spans(given[lane], lane, problems) : nil] }
        temperatures =
          TEMPERATURES
            .keys
            .reject { |lane| given[lane].to_s.strip == "" }
            .to_h { |lane| [lane, points(given[lane], lane, problems)] }
        raise BadHistory.new(problems) if problems.any?

        usual = LANES.keys.to_h { |lane| [lane, lane == "y" ? spans["fed"] || [] : []] }
        new(
          spans: usual.merge(spans.compact),
          minutes: given["minutes"].to_f,
          temperatures: temperatures,
          given: spans.compact.keys
        )
      end

      private

      def problem(field, says) = { "field" => field, "problem" => says }

      def length_problem(minutes)
        return [] if minutes.is_a?(Numeric) && minutes.between?(1, MOST_MINUTES)

        [problem("/history/minutes", "has to be 1 to #{MOST_MINUTES.round} minutes, not #{minutes.inspect}")]
      end

      def stray_problems(given)
        known = [*LANES.keys, *TEMPERATURES.keys]
        (given.keys - known - ["minutes"]).map do |key|
          problem("/history/#{key.to_s[0, 40]}", "unknown; known are minutes, #{known.join(", ")}")
        end
      end

      def spans(text, lane, problems)
        words = text.to_s.strip
        return [[0.0, Float::INFINITY]] if words.casecmp?("always")
        return [] if words.empty? || words.casecmp?("never")

        parts = words.split(",").map(&:strip)
        read = parts.map { |part| span(part) }
        says = spans_wrong(parts, read) or return read
        problems << problem("/history/#{lane}", says)
        []
      end

      # What is wrong with the stretches, or nil.
      def spans_wrong(parts, read)
        if (bad = read.index(nil))
          return "'#{parts[bad][0, 30]}' is no stretch of minutes; write 0-25, 40-62, 75-, or always, or never"
        end
        return "has #{read.size} stretches; at most #{MOST_SPANS}" if read.size > MOST_SPANS

        over = read.each_cons(2).find { |(_a, to), (from, _b)| from < to }
        over && "#{format("%g", over[1][0])} comes before the end of the stretch before it"
      end

      # "28", or "0:40, 30:22, 90:18": minute and °F.
      def points(text, lane, problems)
        parts = text.to_s.split(",").map(&:strip)
        read = parts.map { |part| point(parts.one? && !part.include?(":") ? "0:#{part}" : part) }
        says = points_wrong(parts, read) or return read
        problems << problem("/history/#{lane}", says)
        []
      end

      # What is wrong with the points, or nil.
      def points_wrong(parts, read)
        if (bad = read.index { |pair| !point?(pair) })
          return "'#{parts[bad][0, 30]}' is no minute and temperature; write 0:40, 30:22, or one temperature for all"
        end
        return "has #{read.size} points; at most #{MOST_SPANS}" if read.size > MOST_SPANS

        back = read.each_cons(2).find { |(first, _), (second, _)| second <= first }
        back && "minute #{format("%g", back[1][0])} comes after #{format("%g", back[0][0])}"
      end

      def point(text) = text.split(":", 2).map { |number| Float(number, exception: false) }

      def point?(pair) =
        pair.size == 2 && pair.none?(&:nil?) && pair[0].between?(0, MOST_MINUTES) && DEGREES.cover?(pair[1])

      def span(text)
        match = /\A(\d+(?:\.\d+)?)\s*[-–]\s*(\d+(?:\.\d+)?)?\z/.match(text) or return nil
        from = match[1].to_f
        to = match[2]&.to_f || Float::INFINITY
        to > from ? [from, to] : nil
      end
    end

    def on?(lane, minute) = spans.fetch(lane).any? { |from, to| minute >= from && minute < to }

    # Whether the air-pressure switch was closed; nil where nobody wrote it down.
    def frost(minute) = given.include?("aps") ? on?("aps", minute) : nil

    # °F of "coil" or "outdoor" at a minute; nil where nobody wrote it down.
    def degrees(name, minute)
      points = temperatures[name] or return nil
      after = points.find { |at, _| at >= minute } or return points.last[1]
      before = points.reverse_each.find { |at, _| at <= minute } || after
      return after[1] if after[0] == before[0]

      before[1] + ((after[1] - before[1]) * (minute - before[0]) / (after[0] - before[0]))
    end

    def temperatures? = TEMPERATURES.keys.all? { |name| temperatures.key?(name) }

    # Minutes at which anything changes, 0 among them; with temperatures every minute counts.
    def changes
      ticks = temperatures.empty? ? [] : (0..minutes.floor).map(&:to_f)
      ([0.0] + ticks + spans.values.flatten.select { |at| at.finite? && at < minutes }).uniq.sort
    end

    # Lanes that change at this very minute.
    def turning(minute) =
      spans.select { |_lane, list| list.flatten.any? { |at| (at - minute).abs < 1e-9 && minute.positive? } }.keys

    def to_json_hash
      lanes = spans.slice(*given)
      lanes
        .transform_values do |list|
          list.map { |from, to| "#{format("%g", from)}-#{format("%g", to) if to.finite?}" }.join(", ")
        end
        .merge(
          temperatures.transform_values do |points|
            points.map { |at, degrees| "#{format("%g", at)}:#{format("%g", degrees)}" }.join(", ")
          end
        )
        .merge("minutes" => minutes)
    end
  end
end
