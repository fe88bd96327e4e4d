# frozen_string_literal: true

# A visit is closed by a snapshot that nothing changes any more; opened again, it is closed by the next one.
Sequel.migration do
  up do
    create_table(:closings) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :visit_id, :visits, type: :uuid, null: false, on_delete: :cascade
      integer :number, null: false
      text :mark, null: false
      jsonb :content, null: false
      text :digest, null: false # of the content, keys in order
      text :request_digest, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel.function(:clock_timestamp)
      timestamptz :reopened_at
      foreign_key :reopened_by, :users, type: :uuid
      text :reopened_why
      unique %i[visit_id number]
      index :crew_id
    end
    run "ALTER TABLE closings ENABLE ROW LEVEL SECURITY"
    run "CREATE POLICY own_crew ON closings USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
    alter_table(:visits) do
      add_column :closed_number, Integer # of the closing that holds; null while the visit is open
      add_column :closed_as, :text # its mark
    end
  end

  # The closings go: an older program knows none, and its visits are open.
  down do
    alter_table(:visits) do
      drop_column :closed_number
      drop_column :closed_as
    end
    drop_table(:closings)
  end
end
