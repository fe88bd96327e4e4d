# frozen_string_literal: true

module Gorvant
  module Server
    # Which faults of a rig no voltage tells apart: their signatures, grouped. Works in steps, so that a killed worker's
    # task goes on where it stood.
    class Alike
      KIND = "alike"
      ANSWER_ALONE = true

      def self.key(digest) = Computed.key("alike", digest)

      # input: { "rig" => rig file }
      def initialize(input, _db = nil)
        rig = Formats::RigJson.read(input.fetch("rig"))
        @signatures = Faults::Signatures.new(rig, faults: Faults::Library.everything(rig))
      end

      def resumes? = true
      def total = @signatures.faults.size + 1
      # One JSON-able piece of the answer; the healthy rig comes first.
      def step(index) = @signatures.digest(index.zero? ? nil : @signatures.faults[index - 1])

      # { "classes" => [[fault, ...]], "unseen" => [fault, ...] }: groups of two and more, and what looks healthy.
      def answer(pieces)
        groups = @signatures.faults.zip(pieces.drop(1)).group_by(&:last).transform_values { |pairs| pairs.map(&:first) }
        unseen = groups.delete(pieces.first) || []
        { "classes" => groups.values.select { |group| group.size > 1 }, "unseen" => unseen }
      end
    end
  end
end
