# frozen_string_literal: true

module Gorvant
  module Server
    # The signatures that a drill is made and judged by: as they were kept, else worked out step by step and kept. They
    # follow from the rig as drawn and its weather alone, so nothing in them tells what a drill hides.
    class BenchLibrary
      # rig: Rig as drawn; digest: of its content.
      def initialize(rig, digest, outdoor_degrees_f, db)
        @situation = Diagnosis::Situation.new(rig, outdoor_degrees_f: outdoor_degrees_f)
        @key = Signatures.key(digest, @situation)
        @computed = Computed.new(db)
        @kept = @computed.get(@key)
      end

      # Steps that are still to be made.
      def total = @kept ? 0 : maker.hypotheses.size
      def step(index) = maker.shows(maker.hypotheses[index])

      # Diagnosis::Library. pieces: of all steps.
      def library(pieces)
        return Diagnosis::Library.new(@situation, JSON.parse(@kept)) if @kept

        made = Diagnosis::Packed.of(pieces)
        @computed.put(Signatures::KIND, @key, JSON.generate(made))
        Diagnosis::Library.new(@situation, made)
      end

      private

      def maker = @maker ||= Diagnosis::Maker.new(@situation)
    end
  end
end
