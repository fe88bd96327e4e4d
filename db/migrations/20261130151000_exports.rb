# frozen_string_literal: true

# Records come in by archives too, with the name of who wrote them there. An export is all that a crew keeps, as one
# archive a unit or more; its files lie in parts for a day.
Sequel.migration do
  scoped = %i[exports export_files export_parts]

  up do
    add_column :logs, :by_name, :text
    create_table(:exports) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest, null: false
    end
    create_table(:export_files) do
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :export_id, :exports, type: :uuid, null: false, on_delete: :cascade
      integer :number, null: false
      text :name, null: false
      integer :visits, null: false
      integer :records, null: false
      Bignum :bytes, null: false
      Bignum :crc32, null: false
      primary_key %i[export_id number]
    end
    create_table(:export_parts) do
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      uuid :export_id, null: false
      integer :file, null: false
      integer :number, null: false
      bytea :content, null: false
      primary_key %i[export_id file number]
      foreign_key %i[export_id file], :export_files, on_delete: :cascade
    end
    scoped.each do |table|
      run "ALTER TABLE #{table} ENABLE ROW LEVEL SECURITY"
      run "CREATE POLICY own_crew ON #{table} USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
    end
  end

  down do
    scoped.reverse_each { |table| drop_table(table) }
    drop_column :logs, :by_name
  end
end
