# frozen_string_literal: true

module Gorvant
  # Numbers as people say them: "twenty four point three", "two forty", "a hundred and twenty", "24.3".
  module SpokenNumber
    ONES = %w[
      zero
      one
      two
      three
      four
      five
      six
      seven
      eight
      nine
      ten
      eleven
      twelve
      thirteen
      fourteen
      fifteen
      sixteen
      seventeen
      eighteen
      nineteen
    ].each_with_index.to_h.freeze
    TENS =
      %w[twenty thirty forty fifty sixty seventy eighty ninety]
        .each_with_index
        .to_h { |word, i| [word, (i + 2) * 10] }
        .freeze
    DIGITS = ONES.select { |_word, value| value < 10 }.merge("oh" => 0).freeze
    HALVES = [%w[and a half], %w[and one half], %w[a half], %w[half]].freeze
    PLAIN = /\A\d+(?:\.\d+)?\z/

    class << self
      # [number, how many words of the list it takes], or nil where none begins there.
      def at(words, from)
        return after_point(words, from, 0) if words[from] == "point"

        whole, used = words[from]&.match?(PLAIN) ? [words[from].to_f, 1] : whole(words, from)
        return half(words, from, 0.0, 0) unless whole
        return after_point(words, from + used, whole.to_i, used) if words[from + used] == "point" && (whole % 1).zero?

        half(words, from, whole.to_f, used) || [whole.to_f, used]
      end

      private

      # With "and a half" after it, or half of one; nil where no half is said.
      def half(words, from, whole, used)
        said = HALVES.find { |list| words[from + used, list.size] == list } or return nil
        [whole + 0.5, used + said.size]
      end

      def whole(words, from)
        return hundreds(words, from, 1, 0) if words[from] == "hundred"

        small, used = under_hundred(words, from)
        return nil unless small

        following = words[from + used]
        return hundreds(words, from, small, used) if following == "hundred"
        return small, used unless small.between?(1, 9) && used == 1

        rest, more = under_hundred(words, from + used)
        rest && rest >= 10 ? [(small * 100) + rest, used + more] : [small, used]
      end

      def hundreds(words, from, small, used)
        used += 1
        used += 1 if words[from + used] == "and" && under_hundred(words, from + used + 1)
        rest, more = under_hundred(words, from + used)
        rest ? [(small * 100) + rest, used + more] : [small * 100, used]
      end

      def under_hundred(words, from)
        word = words[from]
        return TENS[word] + ones(words, from + 1), ones(words, from + 1).zero? ? 1 : 2 if TENS.key?(word)

        ONES.key?(word) ? [ONES[word], 1] : nil
      end

      def ones(words, from) = ONES.fetch(words[from], 0).then { |value| value.between?(1, 9) ? value : 0 }

      # Digits after "point", one by one or as a numeral.
      def after_point(words, from, whole, before = 0)
        digits = +""
        used = 1
        while (digit = DIGITS[words[from + used]] || words[from + used]&.then { |word| word[/\A\d\z/] })
          digits << digit.to_s
          used += 1
        end
        digits.empty? ? nil : ["#{whole}.#{digits}".to_f, before + used]
      end
    end
  end
end
