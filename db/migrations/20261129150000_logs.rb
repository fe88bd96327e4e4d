# frozen_string_literal: true

# What field loggers wrote down of a unit: on its way up in parts, then as packed hours, never a row a sample. How a
# kind of logger's columns are read is kept for the next file of that kind.
Sequel.migration do
  scoped = %i[logs log_parts log_hours logger_types]

  up do
    create_table(:logs) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest, null: false
      foreign_key :unit_id, :units, type: :uuid, null: false, on_delete: :cascade, index: true
      integer :version, null: false, default: 1
      text :name, null: false
      text :state, null: false, default: "coming"
      jsonb :mapping
      jsonb :told
      jsonb :on_off
      jsonb :problems, null: false, default: Sequel.lit("'[]'::jsonb")
      boolean :demo, null: false, default: false
      constraint(:logs_state, state: %w[coming reading read refused])
    end
    create_table(:log_parts) do
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :log_id, :logs, type: :uuid, null: false, on_delete: :cascade
      integer :file, null: false
      integer :number, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      bytea :content, null: false
      primary_key %i[log_id file number]
    end
    create_table(:log_hours) do
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :log_id, :logs, type: :uuid, null: false, on_delete: :cascade
      integer :hour, null: false
      bytea :content, null: false
      bytea :minutes, null: false
      bytea :tens, null: false
      primary_key %i[log_id hour]
    end
    create_table(:logger_types) do
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      text :names_digest, null: false
      jsonb :mapping, null: false
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      primary_key %i[crew_id names_digest]
    end
    scoped.each do |table|
      run "ALTER TABLE #{table} ENABLE ROW LEVEL SECURITY"
      run "CREATE POLICY own_crew ON #{table} USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
    end
  end

  down { scoped.reverse_each { |table| drop_table(table) } }
end
