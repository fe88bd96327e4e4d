# frozen_string_literal: true

# People sign in, invite one another, let devices write; what they do to accounts is written down. Whose a row is, the
# database itself looks after: each crew's rows are there for its own members only (row-level security), whoever forgot
# to ask for the crew. What signing in needs is another role's, which sees nothing of what crews keep.
Sequel.migration do
  owned = %i[
    sites
    units
    rigs
    rig_revisions
    visits
    readings
    tasks
    photos
    setting_profiles
    sensor_tables
    visit_desks
    devices
    audit_trail
  ]
  up do
    alter_table(:users) do
      drop_constraint :known_role
      add_constraint :known_role, role: %w[owner technician apprentice]
      add_column :sign_in_name, :text
      add_column :password_hash, :text
      add_column :server_owner, :boolean, null: false, default: false
      add_column :version, Integer, null: false, default: 1
      add_column :closed_at, :timestamptz
    end
    add_index :users, Sequel.function(:lower, :sign_in_name), unique: true, name: :users_sign_in_name
    first = from(:users).where(role: "owner").order(:created_at).get(:id)
    from(:users).where(id: first).update(server_owner: true)

    create_table(:sessions) do
      foreign_key :user_id, :users, type: :uuid, null: false, on_delete: :cascade
      text :session_key, null: false # keyed digest: the table opens no door
      text :agent, null: false, default: ""
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
      primary_key %i[user_id session_key]
    end
    create_table(:one_time_keys) do
      foreign_key :id, :users, type: :uuid, primary_key: true, on_delete: :cascade
      text :key, null: false
      integer :num_failures, null: false, default: 0
      timestamptz :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
    end
    create_table(:recovery_codes) do
      foreign_key :id, :users, type: :uuid, null: false, on_delete: :cascade
      text :code, null: false
      primary_key %i[id code]
    end
    create_table(:sign_in_attempts) do
      text :key, primary_key: true
      integer :failures, null: false, default: 0
      timestamptz :last_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      index :last_at
    end
    # user_id: whose way in is made anew; without it somebody new is let in.
    create_table(:invitations) do
      uuid :id, primary_key: true, default: Sequel.lit("gen_random_uuid()")
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      foreign_key :user_id, :users, type: :uuid
      text :role, null: false
      text :token_digest, null: false, unique: true
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :expires_at, null: false
      timestamptz :used_at
      timestamptz :revoked_at
      constraint(:known_role, role: %w[owner technician apprentice])
      index :crew_id
    end
    create_table(:devices) do
      uuid :id, primary_key: true
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      text :request_digest
      text :name, null: false
      text :scope, null: false
      text :token_digest, null: false, unique: true
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :last_seen_at
      timestamptz :revoked_at
      constraint(:known_scope, scope: %w[readings log_rows])
      index :crew_id
    end
    create_table(:audit_trail) do
      primary_key :id, type: :bigint
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :user_id, :users, type: :uuid
      text :by, null: false # as they were called then
      text :kind, null: false
      text :about, null: false, default: ""
      timestamptz :at, null: false, default: Sequel::CURRENT_TIMESTAMP
      index %i[crew_id id]
    end

    run <<~SQL
      CREATE FUNCTION current_crew() RETURNS uuid LANGUAGE sql STABLE
        AS $$ SELECT nullif(current_setting('app.crew', true), '')::uuid $$
    SQL
    own = { **owned.to_h { |table| [table, :crew_id] }, users: :crew_id, invitations: :crew_id, crews: :id }
    own.each do |table, column|
      run "ALTER TABLE #{table} ENABLE ROW LEVEL SECURITY"
      run "CREATE POLICY own_crew ON #{table} USING (#{column} = current_crew()) WITH CHECK (#{column} = current_crew())"
    end
  end

  down do
    run "DROP POLICY IF EXISTS own_crew ON crews"
    (owned + %i[users invitations crews]).each do |table|
      run "DROP POLICY IF EXISTS own_crew ON #{table}"
      run "ALTER TABLE #{table} DISABLE ROW LEVEL SECURITY"
      policies = from(:pg_policies).where(schemaname: "public", tablename: table.to_s).select_map(:policyname)
      policies.each { |policy| run "DROP POLICY #{policy} ON #{table}" }
    end
    run "DROP FUNCTION current_crew()"
    drop_table(:audit_trail, :devices, :invitations, :sign_in_attempts, :recovery_codes, :one_time_keys, :sessions)
    drop_index :users, nil, name: :users_sign_in_name
    # The older table knows two roles: an apprentice may not change anything, so none becomes more than that.
    if from(:users).where(role: "apprentice").any?
      raise Sequel::Error.new("apprentices were let in since; the older table has no place for them")
    end

    alter_table(:users) do
      drop_constraint :known_role
      add_constraint :known_role, role: %w[owner technician]
      %i[sign_in_name password_hash server_owner version closed_at].each { |column| drop_column column }
    end
  end
end
