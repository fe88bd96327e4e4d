# frozen_string_literal: true

# Passkeys of people, and the questions that an authenticator has yet to answer: each is answered once.
Sequel.migration do
  up do
    create_table(:passkeys) do
      uuid :id, primary_key: true, default: Sequel.function(:gen_random_uuid)
      foreign_key :user_id, :users, type: :uuid, null: false, on_delete: :cascade, index: true
      text :name, null: false
      text :host, null: false
      text :credential_id, null: false, unique: true
      text :public_key, null: false
      bigint :sign_count, null: false
      timestamptz :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      timestamptz :last_use
    end
    create_table(:passkey_challenges) do
      text :digest, primary_key: true
      foreign_key :user_id, :users, type: :uuid, on_delete: :cascade
      timestamptz :made_at, null: false, default: Sequel::CURRENT_TIMESTAMP, index: true
    end
  end

  down { drop_table(:passkey_challenges, :passkeys) }
end
