# frozen_string_literal: true

# A site is one of its name in a crew, a unit one of its name at a site. Rows that two requests made at once become the
# oldest of them.
Sequel.migration do
  up do
    # What belongs to a younger twin goes to the oldest of the same name.
    fold =
      lambda do |table, unique, children|
        names = unique.join(", ")
        run <<~SQL
        CREATE TEMPORARY TABLE twins ON COMMIT DROP AS
          SELECT id, first_value(id) OVER (PARTITION BY #{names} ORDER BY created_at, id) AS oldest FROM #{table}
      SQL
        children.each do |child, column|
          run "UPDATE #{child} SET #{column} = twins.oldest FROM twins WHERE #{child}.#{column} = twins.id AND twins.id <> twins.oldest"
        end
        run "DELETE FROM #{table} USING twins WHERE #{table}.id = twins.id AND twins.id <> twins.oldest"
        run "DROP TABLE twins"
      end
    fold.call(:sites, %i[crew_id name], { units: :site_id })
    fold.call(:units, %i[site_id name], { visits: :unit_id })
    add_index :sites, %i[crew_id name], unique: true
    add_index :units, %i[site_id name], unique: true
    add_index :visits, %i[crew_id visit_on created_at id]
  end

  down do
    drop_index :visits, %i[crew_id visit_on created_at id]
    drop_index :units, %i[site_id name]
    drop_index :sites, %i[crew_id name]
  end
end
