# frozen_string_literal: true

module Gorvant
  module Server
    # Drills in an order, handed to some of the crew or to all of it.
    class Courses < Repository
      MOST = 100
      MOST_DRILLS = 40

      # Courses that this viewer is handed, or made; an owner sees all.
      def all
        rows = scoped.order(:created_at).all
        return rows if viewer.role == "owner"

        rows.select { |row| row[:created_by] == viewer.user_id || handed?(row) }
      end

      # [row, created?]
      def make(id, body, name:, drill_ids:, learner_ids:, demo: false)
        raise Refused.new(field: "/", problem: "a crew keeps #{MOST} courses") if scoped.count >= MOST

        lists = { drill_ids: Sequel.pg_jsonb(drill_ids), learner_ids: Sequel.pg_jsonb(learner_ids) }
        insert_once(id, body, { name: name, demo: demo, **lists })
      end

      def find(id)
        row = super
        seen = viewer.role == "owner" || row[:created_by] == viewer.user_id || handed?(row)
        seen ? row : raise(NotFound.new(thing: thing, id: id))
      end

      def remove(id) = scoped.where(id: own(id)[:id]).delete

      # The row, where it is the viewer's own to hand out and look at. NotAllowed for a learner.
      def own(id)
        row = find(id)
        return row if viewer.role == "owner" || row[:created_by] == viewer.user_id

        raise NotAllowed.new(problem: "who made the course, or the owner, does this")
      end

      # { user_id => name } of the crew.
      def crew_names = db[:users].where(crew_id: viewer.crew_id, closed_at: nil).select_hash(:id, :name)

      private

      def handed?(row) = row[:learner_ids].to_a.empty? || row[:learner_ids].to_a.include?(viewer.user_id)
      def table = :courses
      def thing = "course"
    end
  end
end
