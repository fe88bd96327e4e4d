# frozen_string_literal: true

# Bytes of photos and of logged hours may lie in a storage beside the database: the row then has the object's key in the
# place of the bytes. An object is noted before it is put, and is claimed by the row that names it; what no row names,
# because a write was given up or its row is gone, is due to be taken away. Kept without a key of the crew's row, since
# it outlives it.
Sequel.migration do
  held = %i[photos log_hours]

  up do
    create_table(:stored_objects) do
      text :key, primary_key: true
      uuid :crew_id, null: false
      timestamptz :due_at, index: true # nothing while a row names it
    end
    run "ALTER TABLE stored_objects ENABLE ROW LEVEL SECURITY"
    run <<~SQL
      CREATE POLICY own_crew ON stored_objects
        USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())
    SQL
    run <<~SQL
      CREATE FUNCTION claim_object() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER
        SET search_path = public, pg_temp AS $$
      BEGIN
        IF TG_OP <> 'DELETE' AND NEW.object_key IS NOT NULL THEN
          UPDATE stored_objects SET due_at = NULL WHERE key = NEW.object_key AND crew_id = NEW.crew_id;
          IF NOT FOUND THEN
            RAISE EXCEPTION 'no stored object %', NEW.object_key USING ERRCODE = 'foreign_key_violation';
          END IF;
        END IF;
        IF TG_OP <> 'INSERT' AND OLD.object_key IS NOT NULL THEN
          IF TG_OP = 'DELETE' OR NEW.object_key IS DISTINCT FROM OLD.object_key THEN
            UPDATE stored_objects SET due_at = now() WHERE key = OLD.object_key;
          END IF;
        END IF;
        RETURN NULL;
      END $$
    SQL
    held.each do |table|
      alter_table(table) { set_column_allow_null :content }
      alter_table(table) do
        add_column :object_key, :text, unique: true
        add_constraint(:"#{table}_lie_somewhere") { Sequel.lit("(content IS NULL) <> (object_key IS NULL)") }
      end
      run <<~SQL
        CREATE TRIGGER claims_object AFTER INSERT OR UPDATE OR DELETE ON #{table}
          FOR EACH ROW EXECUTE FUNCTION claim_object()
      SQL
    end
  end

  down do
    held.each do |table|
      if self[table].exclude(object_key: nil).any?
        raise(Sequel::Error.new("bin/depot back first: bytes of #{table} lie outside the database"))
      end

      run "DROP TRIGGER claims_object ON #{table}"
      alter_table(table) do
        drop_constraint(:"#{table}_lie_somewhere")
        drop_column :object_key
        set_column_not_null :content
      end
    end
    run "DROP FUNCTION claim_object()"
    drop_table(:stored_objects)
  end
end
