# frozen_string_literal: true

# Two crews that ask for the same work at once each have a task of their own.
Sequel.migration do
  change do
    alter_table(:tasks) do
      drop_index :key, unique: true, where: { state: %w[waiting running] }
      add_index %i[crew_id key], unique: true, where: { state: %w[waiting running] }
    end
  end
end
