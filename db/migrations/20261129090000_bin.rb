# frozen_string_literal: true

# A site, a unit or a visit goes into the bin first, and for good after thirty days.
Sequel.migration do
  tables = %i[sites units visits]

  up do
    tables.each do |table|
      alter_table(table) do
        add_column :binned_at, :timestamptz
        add_foreign_key :binned_by, :users, type: :uuid
      end
      add_index table, :binned_at, where: Sequel.~(binned_at: nil)
    end
  end

  # What lies in the bin comes out of it: an older program would show it, and nothing is lost.
  down do
    tables.each do |table|
      drop_index table, :binned_at
      alter_table(table) do
        drop_foreign_key :binned_by
        drop_column :binned_at
      end
    end
  end
end
