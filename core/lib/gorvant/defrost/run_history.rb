# frozen_string_literal: true

module Gorvant
  # A history that cannot be read; problems: [{ "field", "problem" }].
  class BadHistory < Error
    says "%<first>s"
    attr_reader :problems

    def initialize(problems)
      @problems = problems
      super(first: "#{problems.first['field']}: #{problems.first['problem']}")
    end
  end

  # When the compressor was fed and when the coil switch was closed, as stretches of minutes: what schools are compared on.
  # spans: { "fed" / "cold" / "y" / "cooling" / "unpowered" => [[from, to]] }, in minutes; to may be Float::INFINITY.
  RunHistory = Value.define(:spans, :minutes)

  class RunHistory
    LANES = { "fed" => "compressor fed", "cold" => "coil switch closed", "y" => "Y live", "cooling" => "in cooling", "unpowered" => "board without power" }.freeze
    MOST_MINUTES = 2880.0
    MOST_SPANS = 300

    class << self
      # From JSON: { "minutes" => 240, "fed" => "0-25, 40-62, 75-", "cold" => "always" }. A lane left out: y as fed, cold never, none else.
      def parse(given)
        problems = []
        raise BadHistory.new([problem("/history", "has to be an object such as {\"minutes\": 240, \"fed\": \"0-25, 40-\"}")]) unless given.is_a?(Hash)

        minutes = given["minutes"]
        problems << problem("/history/minutes", "has to be 1 to #{MOST_MINUTES.round} minutes, not #{minutes.inspect}") unless minutes.is_a?(Numeric) && minutes.between?(1, MOST_MINUTES)
        (given.keys - LANES.keys - ["minutes"]).each { |key| problems << problem("/history/#{key.to_s[0, 40]}", "unknown; known are minutes, #{LANES.keys.join(', ')}") }
        spans = LANES.keys.to_h { |lane| [lane, given.key?(lane) ? spans(given[lane], lane, problems) : nil] }
        raise BadHistory.new(problems) if problems.any?

        new(spans: { "fed" => [], "cold" => [], "y" => spans["fed"] || [], "cooling" => [], "unpowered" => [] }.merge(spans.compact), minutes: minutes.to_f)
      end

      private

      def problem(field, says) = { "field" => field, "problem" => says }

      def spans(text, lane, problems)
        field = "/history/#{lane}"
        return [[0.0, Float::INFINITY]] if text.to_s.strip.casecmp?("always")
        return [] if text.to_s.strip.empty? || text.to_s.strip.casecmp?("never")

        read = text.to_s.split(",").map { |part| span(part.strip) }
        bad = text.to_s.split(",")[read.index(nil)] if read.include?(nil)
        return (problems << problem(field, "'#{bad.strip[0, 30]}' is no stretch of minutes; write 0-25, 40-62, 75-, or always, or never")) && [] if bad
        return (problems << problem(field, "has #{read.size} stretches; at most #{MOST_SPANS}")) && [] if read.size > MOST_SPANS

        over = read.each_cons(2).find { |(_a, to), (from, _b)| from < to }
        problems << problem(field, "#{format('%g', over[1][0])} comes before the end of the stretch before it") if over
        read
      end

      def span(text)
        match = /\A(\d+(?:\.\d+)?)\s*[-–]\s*(\d+(?:\.\d+)?)?\z/.match(text) or return nil
        from = match[1].to_f
        to = match[2]&.to_f || Float::INFINITY
        to > from ? [from, to] : nil
      end
    end

    def on?(lane, minute) = spans.fetch(lane).any? { |from, to| minute >= from && minute < to }

    # Minutes at which anything changes, 0 among them.
    def changes = ([0.0] + spans.values.flatten.select { |at| at.finite? && at < minutes }).uniq.sort

    def to_json_hash
      spans.transform_values { |list| list.map { |from, to| "#{format('%g', from)}-#{format('%g', to) if to.finite?}" }.join(", ") }.merge("minutes" => minutes)
    end
  end
end
