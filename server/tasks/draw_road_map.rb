# frozen_string_literal: true

module Gorvant
  module Server
    # The tests of a visit from here on as a tree. It asks Find some forty times over, which is no work for a request.
    class DrawRoadMap
      KIND = "road_map"
      ANSWER_ALONE = true

      # state: FindMarks#state of the visit, by which whatever the map follows from is another once it changed; asked:
      # what a FindRequest gives.
      def self.key(row, state, asked) =
        Computed.key(KIND, row[:digest], state, row[:desks].versions["close_out"], asked)

      # input: { "visit_id", "asked", "crew_id", "user_id" }
      def initialize(input, db)
        viewer =
          Viewer.new(crew_id: input["crew_id"], user_id: input["user_id"], name: "", crew_name: "", role: "worker")
        @row = Visits.new(db, viewer).alone(input.fetch("visit_id"))
        @asked = input.fetch("asked").transform_keys(&:to_sym)
        @answers = Answers.new(Computed.new(db), Readings.new(db, viewer))
      end

      def resumes? = false
      def total = 1
      def step(_index) = @answers.road_map(@row, @asked) || raise(Changed.new)
      def answer(pieces) = pieces.first

      # The unit is another by now, and its signatures are still to be worked out.
      class Changed < Error
        says "the unit was changed while its road map was drawn: ask for it again"
      end
    end
  end
end
