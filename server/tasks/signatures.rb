# frozen_string_literal: true

module Gorvant
  module Server
    # What everything that could be so with a unit would show in every test: worked out once for a unit, its wiring as
    # found and its weather. Works in steps, so that a killed worker's task goes on where it stood.
    class Signatures
      KIND = "signatures"

      # situation: Diagnosis::Situation; digest: of the rig revision.
      def self.key(digest, situation) = Computed.key(KIND, digest, situation.made_from)

      # input: { "rig" => rig file, "as_found" => as the visit keeps it, "outdoor_degrees_f" }
      def initialize(input, _db = nil)
        rig = Formats::RigJson.read(input.fetch("rig"))
        found = AsFound.parse(input.fetch("as_found"), rig)
        @maker = Diagnosis::Maker.new(Desks::Find.situation(rig, found, input["outdoor_degrees_f"]))
      end

      def resumes? = true
      def total = @maker.hypotheses.size
      # What one hypothesis shows; nil of one that follows from another.
      def step(index) = @maker.shows(@maker.hypotheses[index])
      def answer(pieces) = pieces
    end
  end
end
