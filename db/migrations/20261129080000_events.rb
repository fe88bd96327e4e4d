# frozen_string_literal: true

# What a crew's people and devices do, so that who looks at the same visit sees it at once. Kept for a day.
Sequel.migration do
  up do
    create_table(:events) do
      primary_key :id, type: :bigint
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :visit_id, :visits, type: :uuid, on_delete: :cascade
      text :kind, null: false
      jsonb :payload, null: false
      uuid :source_id # of who sent it: the same sent twice is one
      timestamptz :at, null: false, default: Sequel.function(:clock_timestamp)
      index %i[crew_id id]
      index :at
      unique %i[crew_id source_id]
    end
    run "ALTER TABLE events ENABLE ROW LEVEL SECURITY"
    run "CREATE POLICY own_crew ON events USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
  end

  down { drop_table(:events) }
end
