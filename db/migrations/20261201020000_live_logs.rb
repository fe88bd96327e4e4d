# frozen_string_literal: true

# A record may come while it is measured, from a device of the crew: when it was last heard, and from which.
Sequel.migration do
  states = ->(db, known) do
    db.alter_table(:logs) do
      drop_constraint(:logs_state)
      add_constraint(:logs_state, state: known)
    end
  end

  up do
    alter_table(:logs) do
      add_column :live, :boolean, null: false, default: false
      add_column :heard_at, :timestamptz
      add_column :heard_from, :text
    end
    states.call(self, %w[coming reading read refused live])
  end

  down do
    from(:logs).where(state: "live").delete
    states.call(self, %w[coming reading read refused])
    alter_table(:logs) do
      drop_column :live
      drop_column :heard_at
      drop_column :heard_from
    end
  end
end
