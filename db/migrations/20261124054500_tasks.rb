# frozen_string_literal: true

# Work that takes longer than a request should: claimed by a worker, with progress, cancelled or taken up again after a
# kill.
Sequel.migration do
  change do
    create_table(:tasks) do
      uuid :id, primary_key: true, default: Sequel.lit("gen_random_uuid()")
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :created_by, :users, type: :uuid, null: false
      text :kind, null: false
      text :key, null: false # of what it works out: the same work is done once
      jsonb :input, null: false
      text :state, null: false, default: "waiting"
      integer :done, null: false, default: 0
      integer :total, null: false, default: 0
      jsonb :partial, null: false, default: Sequel.lit("'[]'::jsonb")
      text :error
      timestamptz :beat_at
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      constraint(:known_state, state: %w[waiting running done failed cancelled])
      index %i[state created_at]
      index :key, unique: true, where: { state: %w[waiting running] }
    end
  end
end
