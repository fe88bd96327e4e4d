# frozen_string_literal: true

# A kept answer has its kind, since each kind has a budget of its own. What was kept before is of none, and goes first.
Sequel.migration do
  up do
    alter_table(:computed_results) do
      add_column :kind, :text, null: false, default: "other"
      add_index %i[kind created_at]
    end
  end

  down do
    alter_table(:computed_results) do
      drop_index %i[kind created_at]
      drop_column :kind
    end
  end
end
