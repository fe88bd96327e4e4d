# frozen_string_literal: true

module Gorvant
  module Server
    # Long work of a crew: asked for, watched, cancelled.
    class Tasks < Repository
      CHANNEL = "gorvant_tasks" # a word to workers that have nothing to do
      AHEAD = "ahead" # in the input of what nobody waits for yet

      # The task for a key: one that waits or runs already, or a new one. One that waits is asked for anew: what was
      # begun ahead of anybody's asking is wanted now.
      def ask(kind, key, input)
        fields = {
          crew_id: viewer.crew_id,
          created_by: viewer.user_id,
          kind: kind,
          key: key,
          input: Sequel.pg_jsonb(input)
        }
        unfinished = { target: %i[crew_id key], conflict_where: { state: %w[waiting running] } }
        wanted = { update: { input: Sequel[:excluded][:input] }, update_where: { Sequel[:tasks][:state] => "waiting" } }
        wanted = {} if input.key?(AHEAD)
        db[:tasks].insert_conflict(**unfinished, **wanted).insert(fields)
        db.notify(CHANNEL)
        newest(key)
      end

      # The task for a key in place of those of the same kind that the visit wanted before.
      def ask_anew(kind, key, visit_id, input)
        db.transaction do
          older = db[:tasks].where(crew_id: viewer.crew_id, kind: kind, state: %w[waiting running]).exclude(key: key)
          older.where(Sequel.lit("input ->> 'visit_id' = ?", visit_id)).update(
            state: "cancelled",
            updated_at: Sequel::CURRENT_TIMESTAMP
          )
          ask(kind, key, input.merge("visit_id" => visit_id))
        end
      end

      # The last one that was asked for by a key, or nil.
      def newest(key) = scoped.where(key: key).reverse(:created_at).first

      def cancel(id)
        find(id)
        db[:tasks].where(crew_id: viewer.crew_id, id: id, state: %w[waiting running]).update(
          state: "cancelled",
          updated_at: Sequel::CURRENT_TIMESTAMP
        )
        find(id)
      end

      # What of a kind is not done is wanted no more.
      def call_off(kind)
        unfinished = db[:tasks].where(crew_id: viewer.crew_id, kind: kind, state: %w[waiting running])
        unfinished.update(state: "cancelled", updated_at: Sequel::CURRENT_TIMESTAMP)
      end

      private

      def table = :tasks
      def thing = "task"
    end
  end
end
