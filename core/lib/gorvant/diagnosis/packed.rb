# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # The signatures of a unit as they are kept: tests that show the same share a column, and a column is its commonest
    # code with the hypotheses that show another. It is an eighth of what each hypothesis shows by itself, and laid out
    # in a third of the time.
    class Packed
      # common: code; others: { code => [index] }, of hypotheses that show something by themselves.
      Group = Value.define(:common, :others)

      # kept: what Packed.of gave, as JSON has it.
      def initialize(kept)
        @groups = kept.fetch("columns").map { |common, others| Group.new(common: common, others: others) }
        @of = kept.fetch("of")
        @marks = kept.fetch("marks")
      end

      attr_reader :groups

      # { state => [mark] } of each hypothesis, nil of one that follows from another.
      attr_reader :marks

      # The number of a test's Group, by the place of the test in the list.
      def number(place) = @of.fetch(place)

      # { "columns" => [[code, { code => [index] }]], "of" => [number of its column for each test], "marks" => [...] },
      # of what Maker#shows gave hypothesis by hypothesis.
      def self.of(pieces)
        shown = pieces.each_index.select { |i| pieces[i] }
        numbers = {}
        of =
          (0...pieces[shown.first]["codes"].size).map do |place|
            codes = shown.map { |i| pieces[i]["codes"][place].to_s }
            numbers[codes] ||= numbers.size
          end
        {
          "columns" => numbers.each_key.map { |codes| parted(codes, shown) },
          "of" => of,
          "marks" => pieces.map { |piece| piece && piece["marks"] }
        }
      end

      def self.parted(codes, shown)
        members = shown.each_index.group_by { |place| codes[place] }
        common = members.max_by { |_code, list| list.size }.first
        [common, members.except(common).transform_values { |list| list.map { |place| shown[place] } }]
      end
      private_class_method :parted
    end
  end
end
