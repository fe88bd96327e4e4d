# frozen_string_literal: true

# A unit's readings as they were when all was well, to hold later ones against; and a crew's mark for its papers.
Sequel.migration do
  change do
    add_column :units, :known_good, :jsonb
    add_column :units, :known_good_visit_id, :uuid
    add_column :crews, :mark, :bytea
  end
end
