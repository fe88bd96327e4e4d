# frozen_string_literal: true

module Gorvant
  module Server
    # What a free bench came to, once it is decided: score, and each act gone over again.
    class JudgeTry
      KIND = "judged_try"

      # input: { "try_id", "crew_id", "user_id" }
      def initialize(input, db)
        viewer =
          Viewer.new(crew_id: input["crew_id"], user_id: input["user_id"], name: "", crew_name: "", role: "worker")
        @tries = DrillTries.new(db, viewer)
        @try = @tries.find(input.fetch("try_id"))
        row = Drills.new(db, viewer).find(@try[:drill_id])
        @drill = Drills.open(row)
        @made = BenchLibrary.new(@drill.rig, row[:digest], @drill.outdoor_degrees_f, db)
      end

      def resumes? = true
      def total = @made.total + 1
      def step(index) = index < @made.total ? @made.step(index) : nil

      def answer(pieces)
        weighing = Practice::Weighing.new(@drill, @made.library(pieces.first(pieces.size - 1)))
        outcomes = replayed
        score = Practice::Score.of(weighing, outcomes, decision(weighing.library))
        @tries.judged(@try[:id], score.marks, result(weighing, outcomes, score))
        { "try_id" => @try[:id] }
      end

      private

      # Decisions that this unit cannot have count as none.
      def decision(library)
        @try[:decision].to_a.filter_map do |given|
          Practice::Decision.resolve(library, given.to_hash)
        rescue Practice::BadAct
          nil
        end
      end

      def replayed
        bench = Practice::Bench.new(@drill)
        standing = bench.start
        @try[:log].map do |entry|
          act = Practice::Act.parse(entry["act"].to_hash, @drill)
          outcome = bench.take(standing, act)
          standing = outcome.standing
          [act, outcome]
        end
      end

      def result(weighing, outcomes, score)
        debrief = Practice::Debrief.new(weighing, outcomes)
        {
          "score" => score.to_h.transform_keys(&:to_s),
          "par" => @drill.par.to_h.transform_keys(&:to_s),
          "truth" => debrief.truth.map { |one| one.transform_keys(&:to_s) },
          "spells" => !@drill.truth.spells.nil?,
          "steps" => debrief.steps.map { |step| step.to_h.transform_keys(&:to_s) }
        }
      end
    end
  end
end
