# frozen_string_literal: true

module Gorvant
  module Server
    # How Find stood when it was last asked of a visit, as long as nothing that it follows from has changed since. What
    # an older engine said counts no more.
    class FindMarks < Repository
      STATE = <<~SQL.freeze
        '#{Computed::ENGINE[0, 16]}' || md5(concat_ws('|', visits.rig_revision_id, visits.symptoms,
          visits.outdoor_degrees_f, visits.carried,
          (SELECT concat_ws(' ', count(*), max(received_at), count(retracted_at), max(retracted_at))
             FROM readings WHERE readings.visit_id = visits.id),
          (SELECT string_agg(desk || version, ' ' ORDER BY desk) FROM visit_desks
             WHERE visit_desks.visit_id = visits.id AND desk <> 'close_out')))
      SQL

      # By which a later change is seen; asked for before anything is read.
      def state(visit_id) = mine.where(Sequel[:visits][:id] => visit_id).get(Sequel.lit(STATE))

      def keep(visit_id, mark, state)
        fields = { mark: mark, state: state }
        db[:find_marks].insert_conflict(target: :visit_id, update: fields).insert(
          crew_id: viewer.crew_id,
          visit_id: visit_id,
          **fields
        )
      end

      # { visit => mark } of those that still hold.
      def of(visit_ids)
        mine
          .join(:find_marks, visit_id: Sequel[:visits][:id])
          .where(Sequel[:visits][:id] => visit_ids, Sequel[:find_marks][:state] => Sequel.lit(STATE))
          .select_hash(Sequel[:visits][:id], Sequel[:find_marks][:mark])
      end

      private

      def mine = db[:visits].where(Sequel[:visits][:crew_id] => viewer.crew_id)
      def table = :find_marks
      def thing = "mark"
    end
  end
end
