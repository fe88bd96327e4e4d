# frozen_string_literal: true

# What came from elsewhere in an archive keeps the names of those who wrote it, who have no account here. An archive
# comes up in parts, which are kept until it is taken in, for a day at most.
Sequel.migration do
  named = %i[visits readings visit_desks photos closings rig_revisions]

  up do
    named.each { |table| add_column table, :by_name, :text }
    add_column :closings, :reopened_name, :text
    create_table(:archive_parts) do
      uuid :archive_id, null: false
      integer :number, null: false
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      bytea :content, null: false
      primary_key %i[crew_id archive_id number]
    end
    run "ALTER TABLE archive_parts ENABLE ROW LEVEL SECURITY"
    run "CREATE POLICY own_crew ON archive_parts USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
  end

  down do
    drop_table(:archive_parts)
    named.each { |table| drop_column table, :by_name }
    drop_column :closings, :reopened_name
  end
end
