# frozen_string_literal: true

module Gorvant
  module Server
    # Draws a free bench of a subject and level from a rig and keeps it. The seed is drawn here and kept with the truth:
    # nothing that anybody sent or is answered leads to it.
    class MakeDrill
      KIND = "drill"

      # input: { "drill_id", "rig_id", "subject", "level", "crew_id", "user_id" }
      def initialize(input, db)
        @input = input
        @db = db
        @viewer =
          Viewer.new(crew_id: input["crew_id"], user_id: input["user_id"], name: "", crew_name: "", role: "worker")
        @row = Rigs.new(db, @viewer).find(input.fetch("rig_id"))
        rig = Target.rig(Formats::RigJson.read(@row[:content].to_hash))
        weather = Practice::Drill.weather(rig, input.fetch("subject"))
        @made = BenchLibrary.new(rig, Digest::SHA256.hexdigest(JSON.generate(Formats::RigJson.dump(rig))), weather, db)
      end

      def resumes? = true
      def total = @made.total + 1
      def step(index) = index < @made.total ? @made.step(index) : nil

      # { "drill_id" } or { "none" => true } where this rig gives none of this kind.
      def answer(pieces)
        maker = Practice::DrillMaker.new(@made.library(pieces.first(pieces.size - 1)))
        drill = maker.drill(*@input.values_at("subject", "level"), SecureRandom.random_number(2**31))
        return { "none" => true } unless drill

        Drills.new(@db, @viewer).keep(@input.fetch("drill_id"), @input.slice("drill_id"), drill, @row, made_by: made_by)
        { "drill_id" => @input.fetch("drill_id") }
      end

      private

      def made_by = @input["made_up"] ? "demo" : "made"
    end
  end
end
