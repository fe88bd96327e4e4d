# frozen_string_literal: true

module Gorvant
  class Saying
    # The words of a line, each with what it may mean; the longest sayings first.
    class Parts
      KINDS = {
        letter: "letters",
        at: "places",
        call: "calls",
        part: "parts",
        load: "loads",
        degrees_at: "degrees",
        psi_at: "psi",
        meter: "instruments",
        capacitor: "capacitors"
      }.freeze
      LISTS = {
        link: "links",
        across: "across",
        about: "about",
        open: "open",
        nothing: "nothing",
        alone: "alone",
        stopped: "stopped",
        denied: "denied",
        untold: "untold"
      }.freeze

      attr_reader :number

      def initialize(words, vocabulary)
        @words = words
        @spent = Array.new(words.size, false)
        @found = Hash.new { |all, kind| all[kind] = [] }
        @vocabulary = vocabulary
        find_numbers
        find_words
      end

      def all(kind) = @found[kind].sort_by.with_index { |one, i| [one.first, i] }.map(&:last)
      def first(kind) = all(kind).first

      # The first of a kind that is not part of something else that was said.
      def unspent(kind) = @found[kind].reject { |from, to, _value| @spent[from...to].all? }.min_by(&:first)&.last

      def text = @words.join(" ")

      def any?(kind) = @found.key?(kind) && @found[kind].any?
      # Whether a number is said, and not only "dead" or "nothing".
      def measured? = @measured
      def amount? = !@number.nil? || any?(:open)
      def ohms? = any?(:ohms) || any?(:open)
      # Whether this unit is said; "" is none at all.
      def unit?(word) = word.empty? ? none_of_units? : any?(word.to_sym)
      def none_of_units? = @vocabulary.fetch("units").keys.none? { |unit| any?(unit.to_sym) }

      # [[id, Range of words]] of what is said of { id => [saying] }: the longest where one is part of another, and
      # nothing that is part of a call's name; in the line's order.
      def said(sayings)
        all = sayings.flat_map { |id, list| list.flat_map { |saying| spans(saying).map { |span| [id, span] } } }
        longer = all.map(&:last) + @found[:call].map { |from, to, _value| from...to }
        all
          .reject { |_id, span| longer.any? { |other| other.size > span.size && other.cover?(span) } }
          .sort_by { |_id, span| span.begin }
      end

      # The spans that a word turns round: the next one after it, or where it ends the line the last one. "no" does so
      # right before one, or before what this is about.
      def denied(spans, about)
        words = @found[:denied].map { |from, to, _value| from...to } + lone_noes(spans + about)
        words.reject! { |word| spans.any? { |span| span.cover?(word) } }
        spend(words)
        words.filter_map { |word| spans.find { |span| span.begin >= word.end } || spans.last }.uniq
      end

      # Whether what was measured is denied: "not 24", "no 24", "is not dead".
      def denied_number? =
        any?(:denied) || @found[:number].any? { |from, _to, _value| from.positive? && @words[from - 1] == "no" }

      def lone_noes(spans) =
        spans
          .map { |span| (span.begin - 1)...span.begin }
          .select { |one| @words[one.begin] == "no" && !one.begin.negative? }

      # Amount as JSON has it. signed: of what can be below zero.
      def amount(may_open: false, signed: false)
        return { "open" => true } if may_open && any?(:open)

        low, high = signed ? @number : @number.map { |value| value&.abs }
        { "value" => low, "value_high" => high, "about" => any?(:about) || nil }.compact
      end

      # What these kinds say is part of the reading.
      def use(*kinds) =
        (kinds + %i[about open nothing]).each { |kind| @found[kind].each { |from, to, _value| spend_at(from, to) } }

      def spend(spans) = spans.each { |span| spend_at(span.begin, span.end) }

      # Words that are part of nothing.
      def left
        filler = @vocabulary.fetch("filler")
        %i[call at number].each { |kind| @found[kind].each { |from, to, _value| spend_at(from, to) } }
        @words
          .each_with_index
          .reject { |word, i| @spent[i] || filler.include?(word) || word == "to" || word == "and" }
          .map(&:first)
      end

      private

      def spans(saying)
        size = saying.split.size
        @words.each_cons(size).with_index.filter_map { |words, i| i ... (i + size) if words.join(" ") == saying }
      end

      def spend_at(from, to) = (from...to).each { |i| @spent[i] = true }

      # Every kind of word, the longest sayings first; a word that is taken by a longer saying is taken.
      def find_words
        sayings = KINDS.flat_map { |kind, table| named(kind, @vocabulary.fetch(table)) }
        sayings += LISTS.flat_map { |kind, table| @vocabulary.fetch(table).map { |saying| [saying.split, kind, true] } }
        sayings +=
          @vocabulary.fetch("units").flat_map { |unit, list| list.map { |saying| [saying.split, unit.to_sym, true] } }
        sayings
          .sort_by
          .with_index { |(words, _kind, _value), i| [-words.size, i] }
          .each { |words, kind, value| take(words, kind, value) }
        nothing
      end

      def named(kind, table) = table.flat_map { |id, list| list.map { |saying| [saying.split, kind, id] } }

      def take(words, kind, value)
        @words
          .each_cons(words.size)
          .with_index do |here, i|
            next unless here == words && (i...(i + words.size)).none? { |place| taken?(place, words.size) }

            @found[kind] << [i, i + words.size, value]
            @longest[i] = [@longest[i], words.size].max
            (i...(i + words.size)).each { |place| @longest[place] = [@longest[place], words.size].max }
          end
      end

      def taken?(place, size) = @longest[place] > size

      def nothing
        @number = [0.0, nil] if @number.nil? && !any?(:open) && any?(:nothing)
      end

      # Numbers, and a range where two are joined by a link.
      def find_numbers
        @longest = Array.new(@words.size, 0)
        i = 0
        found = []
        while i < @words.size
          to = nil
          value, used = letter_two?(i) ? nil : SpokenNumber.at(@words, i)
          if value
            from, to, value = with_sign(i, i + used, value)
            found << [from, to, value]
            @found[:number] << found.last
            (from...to).each { |place| @longest[place] = 9 }
          end
          i = to || (i + 1)
        end
        @number = number_of(found)
        @measured = found.any?
      end

      # [from, to, value] with the words that put it below zero: "minus 10", "ten below zero".
      def with_sign(from, to, value)
        return from - 1, to, -value if from.positive? && @vocabulary.fetch("minus").include?(@words[from - 1])

        below = @vocabulary.fetch("below").find { |saying| @words[to, saying.split.size] == saying.split }
        below ? [from, to + below.split.size, -value] : [from, to, value]
      end

      # "why two", "w 2", "t one": a terminal's own number, where another number follows.
      def letter_two?(index)
        return false unless %w[two 2 one 1].include?(@words[index]) && index.positive?

        terminal = %w[y why wye w u you t tee tea heat cool].include?(@words[index - 1])
        terminal &&
          ((index + 1)...@words.size).any? do |i|
            SpokenNumber.at(@words, i) || %w[ol nothing dead zero].include?(@words[i])
          end
      end

      def number_of(found)
        return nil if found.empty? || found.size > 2
        return found[0][2], nil if found.one?

        between = @words[found[0][1]...found[1][0]]
        between == ["to"] && found[1][2] > found[0][2] ? [found[0][2], found[1][2]] : nil
      end
    end
  end
end
