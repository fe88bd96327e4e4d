# frozen_string_literal: true

module Gorvant
  module Server
    # One learner at one drill: what was done so far, left half-way or not, and what it came to. A learner sees no one
    # else's; who hands out a course sees what it came to.
    class DrillTries < Repository
      SHOWN = 60 # of the latest

      # [row, created?]
      def begin_one(id, body, drill_row, standing, course_id: nil)
        fields = { drill_id: drill_row[:id], course_id: course_id, standing: standing && Sequel.pg_jsonb(standing) }
        insert_once(id, body, fields)
      end

      # Rows of this learner, the newest first, each with its drill's form, subject, level and rig.
      def mine(*states)
        db[:drill_tries]
          .where(Sequel[:drill_tries][:created_by] => viewer.user_id, :state => states)
          .join(:drills, id: :drill_id)
          .reverse(Sequel[:drill_tries][:updated_at])
          .limit(SHOWN)
          .select_all(:drill_tries)
          .select_append(:form, :subject, :level, :rig_name, :questions, Sequel[:drills][:symptoms])
          .all
      end

      # { subject => [marks] }, the oldest first.
      def marks_by_subject
        db[:drill_tries]
          .where(Sequel[:drill_tries][:created_by] => viewer.user_id, :state => "done")
          .join(:drills, id: :drill_id)
          .order(:done_at)
          .select_map(%i[subject marks done_at])
          .group_by(&:first)
      end

      # Rows of everybody at the drills of a course.
      def of_course(course_id) =
        db[:drill_tries]
          .where(crew_id: viewer.crew_id, course_id: course_id)
          .order(:created_at)
          .select(:drill_id, :created_by, :state, :marks, :done_at)
          .all

      # One more thing done: the log grows by a line. Stale where another page was first.
      def add(row, version, entry, **fields)
        log = Sequel.pg_jsonb(row[:log].to_a + [entry])
        update_version(row[:id], version, { log: log, **fields })
      end

      # The row after one act at the bench. Raises Practice::BadAct.
      def take(row, version, drill_row, given)
        drill = Drills.open(drill_row)
        act = Practice::Act.parse(given, drill)
        standing = Practice::Standing.from(row[:standing].to_hash)
        outcome = EvenTime.hold { Warm.dear { Practice::Bench.new(drill).take(standing, act) } }
        entry = Present.act_entry(act, outcome, Assembly.netlist(drill.rig))
        add(row, version, entry, standing: Sequel.pg_jsonb(outcome.standing.to_h))
      end

      def decide(row, version, decision, **fields) =
        update_version(row[:id], version, { decision: Sequel.pg_jsonb(decision), **fields })

      # The worker's: what it came to.
      def judged(id, marks, result)
        db[:drill_tries].where(crew_id: viewer.crew_id, id: id, state: "judging").update(
          state: "done",
          marks: marks,
          result: Sequel.pg_jsonb(result),
          done_at: Sequel::CURRENT_TIMESTAMP,
          updated_at: Sequel::CURRENT_TIMESTAMP
        )
      end

      private

      def table = :drill_tries
      def thing = "try"
      def scoped = super.where(Sequel[:drill_tries][:created_by] => viewer.user_id)
    end
  end
end
