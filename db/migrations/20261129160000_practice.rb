# frozen_string_literal: true

# The practice bench: drills with what is really so sealed in them, tries of one learner each, courses.
Sequel.migration do
  scoped = %i[drills courses drill_tries]

  up do
    create_table(:drills) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest, null: false
      foreign_key :rig_id, :rigs, type: :uuid, on_delete: :set_null, index: true
      text :rig_name, null: false
      text :digest, null: false
      jsonb :content, null: false
      text :form, null: false
      text :subject, null: false
      integer :level, null: false
      jsonb :symptoms, null: false, default: Sequel.lit("'[]'::jsonb")
      float :outdoor_degrees_f
      integer :questions, null: false, default: 0
      jsonb :sealed, null: false
      text :made_by, null: false
      constraint(:drills_made_by, made_by: %w[made file demo])
      index %i[crew_id form subject level]
    end
    create_table(:courses) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest, null: false
      integer :version, null: false, default: 1
      text :name, null: false
      jsonb :drill_ids, null: false
      jsonb :learner_ids, null: false
      boolean :demo, null: false, default: false
    end
    create_table(:drill_tries) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      foreign_key :created_by, :users, type: :uuid, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      text :request_digest, null: false
      foreign_key :drill_id, :drills, type: :uuid, null: false, on_delete: :cascade, index: true
      foreign_key :course_id, :courses, type: :uuid, on_delete: :set_null, index: true
      integer :version, null: false, default: 1
      text :state, null: false, default: "open"
      jsonb :standing
      jsonb :log, null: false, default: Sequel.lit("'[]'::jsonb")
      jsonb :decision
      jsonb :result
      integer :marks
      timestamptz :done_at
      constraint(:drill_tries_state, state: %w[open judging done])
      index %i[crew_id created_by state]
    end
    scoped.each do |table|
      run "ALTER TABLE #{table} ENABLE ROW LEVEL SECURITY"
      run "CREATE POLICY own_crew ON #{table} USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
    end
  end

  down { scoped.reverse_each { |table| drop_table(table) } }
end
