# frozen_string_literal: true

# How often somebody asked, and who has a dear answer in hand: shared by every process on this database, of no crew, and
# worth nothing after a crash (UNLOGGED).
Sequel.migration do
  up do
    create_table(:rate_counts, unlogged: true) do
      text :key, primary_key: true
      integer :asked, null: false
      timestamptz :expires_at, null: false
      index :expires_at
    end
    create_table(:dear_answers, unlogged: true) do
      uuid :user_id, primary_key: true
      uuid :holder, null: false
      timestamptz :until, null: false
    end
  end

  down { drop_table(:dear_answers, :rate_counts) }
end
