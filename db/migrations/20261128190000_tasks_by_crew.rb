# frozen_string_literal: true

# A task is a crew's: the same question of another crew is another task.
Sequel.migration do
  open = { where: { state: %w[waiting running] } }

  up do
    alter_table(:tasks) do
      drop_index :key, unique: true, **open
      add_index %i[crew_id key], unique: true, **open
    end
  end

  # Of two crews' tasks with one key the younger waits no more.
  down do
    younger =
      from(Sequel[:tasks].as(:other)).where(
        Sequel[:other][:key] => Sequel[:tasks][:key],
        Sequel[:other][:state] => %w[waiting running]
      )
    younger = younger.where { other[:created_at] < tasks[:created_at] }.select(1)
    from(:tasks).where(state: %w[waiting running]).where(younger.exists).update(state: "cancelled")
    alter_table(:tasks) do
      drop_index %i[crew_id key], unique: true, **open
      add_index :key, unique: true, **open
    end
  end
end
