# frozen_string_literal: true

module Gorvant
  module Server
    # What everything that could be so with a unit would show in every test: worked out once for a unit, its wiring as
    # found and its weather. Works in steps, so that a killed worker's task goes on where it stood.
    class Signatures
      KIND = "signatures"
      ANSWER_ALONE = true

      # situation: Diagnosis::Situation; digest: of the rig revision.
      def self.key(digest, situation) = Computed.key(KIND, digest, situation.made_from)

      # Of a first look at it: Diagnosis::FirstLook.
      def self.first_key(digest, situation, look) = Computed.key(KIND, digest, situation.made_from, look.states)

      # input: { "rig" => rig file, "as_found" => as the visit keeps it, "outdoor_degrees_f", "symptoms" => the
      # complaint, "first_key" => where what is worked out for it first is kept }; without the last two it is worked
      # out in one go.
      def initialize(input, _db = nil)
        rig = Formats::RigJson.read(input.fetch("rig"))
        found = AsFound.parse(input.fetch("as_found"), rig)
        situation = Desks::Find.situation(rig, found, input["outdoor_degrees_f"])
        @first_key = input["first_key"]
        @look = @first_key && Diagnosis::FirstLook.of(situation, input.fetch("symptoms", []))
        @maker = Diagnosis::Maker.new(situation)
      end

      def resumes? = true
      def total = @maker.hypotheses.size + first

      # What one hypothesis shows; nil of one that follows from another. First, of all of them, what the complaint asks
      # for.
      def step(index)
        index < first ? looked_at(index) : @maker.shows(@maker.hypotheses[index - first])
      end

      def answer(pieces) = Diagnosis::Packed.of(pieces.drop(first))

      # [key, answer] once the first look is done.
      def early(pieces) = @look && pieces.size == first ? [@first_key, Diagnosis::Packed.of(pieces)] : nil

      private

      # The first look is what somebody waits for: all that is still to be done of it is done at once, by two.
      def looked_at(index)
        @looked ||= { from: index, pieces: SideBySide.map(likeliest.drop(index)) { |one| @maker.shows(one, @look) } }
        @looked[:pieces][index - @looked[:from]]
      end

      def likeliest = @likeliest ||= @look ? @look.among(@maker.hypotheses) : []
      def first = likeliest.size
    end
  end
end
