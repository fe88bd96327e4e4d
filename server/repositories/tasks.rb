# frozen_string_literal: true

module Gorvant
  module Server
    # Long work of a crew: asked for, watched, cancelled.
    class Tasks < Repository
      # The task for a key: one that waits or runs already, or a new one.
      def ask(kind, key, input)
        fields = {
          crew_id: viewer.crew_id,
          created_by: viewer.user_id,
          kind: kind,
          key: key,
          input: Sequel.pg_jsonb(input)
        }
        db[:tasks].insert_conflict(target: %i[crew_id key], conflict_where: { state: %w[waiting running] }).insert(
          fields
        )
        scoped.where(key: key).reverse(:created_at).first
      end

      def cancel(id)
        find(id)
        db[:tasks].where(crew_id: viewer.crew_id, id: id, state: %w[waiting running]).update(
          state: "cancelled",
          updated_at: Sequel::CURRENT_TIMESTAMP
        )
        find(id)
      end

      private

      def table = :tasks
      def thing = "task"
    end
  end
end
