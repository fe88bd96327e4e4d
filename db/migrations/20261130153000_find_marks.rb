# frozen_string_literal: true

# How Find stood when it was last asked of a visit. state: what it followed from; once the visit goes on it is of
# another state, and the mark is none.
Sequel.migration do
  up do
    create_table(:find_marks) do
      foreign_key :visit_id, :visits, type: :uuid, primary_key: true, on_delete: :cascade
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      text :mark, null: false
      text :state, null: false
    end
    run "ALTER TABLE find_marks ENABLE ROW LEVEL SECURITY"
    run "CREATE POLICY own_crew ON find_marks USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
  end

  down { drop_table(:find_marks) }
end
