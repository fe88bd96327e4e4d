# frozen_string_literal: true

# What a visit finds: landings and settings, the room, what was looked at for safety, lines ticked off; photos; a
# maker's own setting numbers as labels that can be used again.
Sequel.migration do
  up do
    alter_table(:visits) do
      add_column :set_point_degrees_f, Float
      add_column :room_degrees_f, Float
      add_column :safety, :jsonb, null: false, default: Sequel.lit("'[]'::jsonb")
      add_column :as_found, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
      add_column :bench, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
      add_column :setting_labels, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
      add_column :found_marks, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
    end
    create_table(:photos) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      foreign_key :visit_id, :visits, type: :uuid, null: false, on_delete: :cascade
      text :request_digest
      text :of, null: false
      text :fact_key
      text :note, null: false, default: ""
      integer :width, null: false
      integer :height, null: false
      bytea :content, null: false
      bytea :small, null: false
      index :visit_id
    end
    create_table(:setting_profiles) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      integer :version, null: false, default: 1
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest
      text :name, null: false
      jsonb :labels, null: false
      unique %i[crew_id name]
    end
  end

  down do
    drop_table(:setting_profiles, :photos)
    alter_table(:visits) do
      %i[set_point_degrees_f room_degrees_f safety as_found bench setting_labels found_marks].each do |column|
        drop_column column
      end
    end
  end
end
