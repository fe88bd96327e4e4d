# frozen_string_literal: true

# Crews look after sites; sites have units; a visit is one job at one unit. Rigs are kept as immutable revisions;
# readings are never updated but for being superseded or retracted.
Sequel.migration do
  owned =
    Kernel.lambda do |table|
      table.uuid :id, primary_key: true, default: Sequel.lit("gen_random_uuid()")
      table.foreign_key :crew_id, :crews, type: :uuid, null: false
      table.foreign_key :created_by, :users, type: :uuid, null: false
      table.integer :version, null: false, default: 1
      table.timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      table.timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      table.text :request_digest # of the body that made the row: a retry is told from a clash
      table.boolean :demo, null: false, default: false
    end

  up do
    create_table(:crews) do
      uuid :id, primary_key: true, default: Sequel.lit("gen_random_uuid()")
      text :name, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
    end
    create_table(:users) do
      uuid :id, primary_key: true, default: Sequel.lit("gen_random_uuid()")
      foreign_key :crew_id, :crews, type: :uuid, null: false
      text :name, null: false
      text :role, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      constraint(:known_role, role: %w[owner technician])
    end
    create_table(:sites) do
      owned.call(self)
      text :name, null: false
      index :crew_id
    end
    create_table(:units) do
      owned.call(self)
      foreign_key :site_id, :sites, type: :uuid, null: false, on_delete: :cascade
      text :name, null: false
      index :site_id
    end
    create_table(:rigs) do
      owned.call(self)
      text :name, null: false
      index :crew_id
    end
    create_table(:rig_revisions) do
      uuid :id, primary_key: true, default: Sequel.lit("gen_random_uuid()")
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      foreign_key :rig_id, :rigs, type: :uuid, null: false, on_delete: :cascade
      foreign_key :parent_id, :rig_revisions, type: :uuid
      integer :number, null: false
      text :digest, null: false
      jsonb :content, null: false
      unique %i[rig_id number]
    end
    create_table(:visits) do
      owned.call(self)
      foreign_key :unit_id, :units, type: :uuid, null: false, on_delete: :cascade
      foreign_key :rig_revision_id, :rig_revisions, type: :uuid, null: false
      date :visit_on, null: false
      text :complaint, null: false, default: ""
      jsonb :symptoms, null: false, default: Sequel.lit("'[]'::jsonb")
      float :outdoor_degrees_f
      index %i[crew_id visit_on]
      index :unit_id
      index :rig_revision_id
    end
    create_table(:readings) do
      owned.call(self)
      foreign_key :visit_id, :visits, type: :uuid, null: false, on_delete: :cascade
      foreign_key :rig_revision_id, :rig_revisions, type: :uuid, null: false
      text :circuit, null: false, default: "reference"
      text :function, null: false
      text :from_node, null: false
      text :to_node, null: false
      float :value_volts_ac, null: false
      text :instrument, null: false
      jsonb :condition, null: false
      jsonb :expected, null: false
      text :verdict, null: false
      text :says, null: false
      text :note, null: false, default: ""
      timestamptz :taken_at, null: false
      timestamptz :received_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      foreign_key :supersedes_id, :readings, type: :uuid, unique: true
      timestamptz :retracted_at
      foreign_key :retracted_by, :users, type: :uuid
      constraint(:known_function, function: %w[volts_ac])
      constraint(:known_circuit, circuit: %w[reference as_found])
      constraint(:known_verdict, verdict: %w[agrees disagrees undetermined])
      index %i[visit_id received_at]
    end
    create_table(:computed_results) do
      text :key, primary_key: true
      text :content, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      index :created_at
    end
    create_table(:settings) do
      text :name, primary_key: true
      jsonb :value, null: false
    end
    crew = self[:crews].returning(:id).insert(name: "Larkmere crew").first[:id]
    self[:users].insert(crew_id: crew, name: "Local owner", role: "owner")
  end

  down do
    drop_table(:settings, :computed_results, :readings, :visits, :rig_revisions, :rigs, :units, :sites, :users, :crews)
  end
end
