# frozen_string_literal: true

# What the defrost desk keeps: with each visit its record, and a crew's own thermistor tables.
Sequel.migration do
  up do
    alter_table(:visits) { add_column :defrost, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb") }
    create_table(:sensor_tables) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      integer :version, null: false, default: 1
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest
      text :name, null: false
      float :tolerance_degrees_f, null: false
      jsonb :points, null: false
      unique %i[crew_id name]
    end
  end

  down do
    drop_table(:sensor_tables)
    alter_table(:visits) { drop_column :defrost }
  end
end
