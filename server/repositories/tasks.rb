# frozen_string_literal: true

module Gorvant
  module Server
    # Long work of a crew: asked for, watched, cancelled.
    class Tasks < Repository
      CHANNEL = "gorvant_tasks" # a word to workers that have nothing to do
      AHEAD = "ahead" # in the input of what nobody waits for yet
      UNFINISHED = %w[waiting running].freeze

      # In the input: [id] of the visits that a task is worked out for.
      WANTED_BY = "wanted_by"
      BY_ALL = "coalesce(tasks.input -> 'wanted_by', '[]')"
      BY_THIS = "coalesce(excluded.input -> 'wanted_by', '[]')"
      # One that waits is asked for anew: what was begun ahead of anybody's asking is wanted now. One that runs, or that
      # somebody waits for, is wanted by one visit more.
      ASKED_AGAIN = {
        update: {
          input: Sequel.lit(<<~SQL)
            CASE WHEN tasks.state = 'waiting' AND NOT excluded.input ? 'ahead' THEN excluded.input ELSE tasks.input END
              || jsonb_build_object(
                'wanted_by', #{BY_ALL} - coalesce(excluded.input -> 'wanted_by' ->> 0, '') || #{BY_THIS}
              )
          SQL
        },
        update_where: Sequel.lit("tasks.state = 'waiting' OR NOT #{BY_ALL} @> #{BY_THIS}")
      }.freeze
      private_constant :BY_ALL, :BY_THIS, :ASKED_AGAIN

      # The task for a key: one that waits or runs already, or a new one.
      def ask(kind, key, input)
        fields = {
          crew_id: viewer.crew_id,
          created_by: viewer.user_id,
          kind: kind,
          key: key,
          input: Sequel.pg_jsonb(input)
        }
        db[:tasks].insert_conflict(
          target: %i[crew_id key],
          conflict_where: {
            state: UNFINISHED
          },
          **ASKED_AGAIN
        ).insert(fields)
        db.notify(CHANNEL)
        newest(key)
      end

      # The task for a key in place of those of the same kind that the visit wanted before: they are called off, unless
      # another visit wants them too.
      def ask_anew(kind, key, visit_id, input)
        db.transaction do
          older = unfinished.where(kind: kind).exclude(key: key)
          older.where(Sequel.lit("input -> 'wanted_by' @> to_jsonb(?::text)", visit_id)).update(
            state:
              Sequel.lit(
                "CASE WHEN input -> 'wanted_by' = jsonb_build_array(?::text) THEN 'cancelled' ELSE state END",
                visit_id
              ),
            input: Sequel.lit("jsonb_set(input, '{wanted_by}', (input -> 'wanted_by') - ?)", visit_id),
            updated_at: Sequel::CURRENT_TIMESTAMP
          )
          ask(kind, key, input.merge("visit_id" => visit_id, WANTED_BY => [visit_id]))
        end
      end

      # The last one that was asked for by a key, or nil.
      def newest(key) = scoped.where(key: key).reverse(:created_at).first

      def cancel(id)
        find(id)
        unfinished.where(id: id).update(state: "cancelled", updated_at: Sequel::CURRENT_TIMESTAMP)
        find(id)
      end

      # What of a kind is not done is wanted no more.
      def call_off(kind)
        unfinished.where(kind: kind).update(state: "cancelled", updated_at: Sequel::CURRENT_TIMESTAMP)
      end

      private

      def unfinished = db[:tasks].where(crew_id: viewer.crew_id, state: UNFINISHED)
      def table = :tasks
      def thing = "task"
    end
  end
end
