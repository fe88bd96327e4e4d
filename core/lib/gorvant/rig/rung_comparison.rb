# frozen_string_literal: true

module Gorvant
  # What differs between two rigs, rung by rung.
  module RungComparison
    # code: of the load; says: sentences; before, after: [text] of its feeds, nil where that rig has no such rung;
    # marked: codes and nodes that differ.
    Rung = Value.define(:code, :title, :same, :says, :before, :after, :marked)

    class << self
      # [Rung] in the order of the vocabulary. names: what to call the two, in sentences.
      def of(before, after, names: %w[first second])
        both = [before, after].map { |rig| Notation.rungs(rig) }
        (both[0].keys | both[1].keys).map { |code| rung(code, both.map { |rungs| rungs[code] }, names) }
      end

      private

      def rung(code, feeds, names)
        plain = feeds.map { |list| list&.map(&:plain) }
        says = plain.include?(nil) ? absent(plain, names) : differences(plain, names)
        Rung.new(
          code: code,
          title: Naming.component(code),
          same: says.empty?,
          says: says,
          before: shown(feeds[0]),
          after: shown(feeds[1]),
          marked: plain.include?(nil) ? [code] : marked(plain)
        )
      end

      def shown(feeds) = feeds&.map { |feed| feed.words.join(" > ") }
      def absent(plain, names) = ["only on the #{names[plain.index { |one| one }]}"]

      # The main feeds word by word; other feeds as wholes.
      def differences(plain, names)
        first, second = plain.map { |feeds| feeds.first || [] }
        moved = out_of_order(first, second)
        says =
          moved.map do |word|
            "#{word} stands #{where(first, word)} on the #{names[0]}, #{where(second, word)} on the #{names[1]}"
          end
        says +=
          (first - second).map { |word| "#{word} only on the #{names[0]}" } +
            (second - first).map { |word| "#{word} only on the #{names[1]}" }
        says + others(plain, names)
      end

      def others(plain, names)
        rest = plain.map { |feeds| (feeds || []).drop(1) }
        (rest[0] - rest[1]).map { |feed| "#{names[0]} also feeds it by #{feed.drop(1).join(" > ")}" } +
          (rest[1] - rest[0]).map { |feed| "#{names[1]} also feeds it by #{feed.drop(1).join(" > ")}" }
      end

      def marked(plain)
        first, second = plain.map { |feeds| feeds.first || [] }
        rest = plain.map { |feeds| (feeds || []).drop(1) }
        (
          out_of_order(first, second) + (first - second) + (second - first) +
            ((rest[0] - rest[1]) + (rest[1] - rest[0])).flatten.uniq
        ).uniq - ["R"]
      end

      # Words that both have, but not in the same order: what a longest common order leaves out.
      def out_of_order(first, second)
        common = first & second
        common - longest(first & common, second & common)
      end

      def where(words, word)
        at = words.index(word)
        before = words[at - 1]
        "after #{before}"
      end

      def longest(one, two)
        table = Array.new(one.size + 1) { Array.new(two.size + 1) { [] } }
        one.each_with_index do |a, i|
          two.each_with_index do |b, j|
            table[i + 1][j + 1] = a == b ? table[i][j] + [a] : [table[i][j + 1], table[i + 1][j]].max_by(&:size)
          end
        end
        table[one.size][two.size]
      end
    end
  end
end
