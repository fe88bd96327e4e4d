# frozen_string_literal: true

# A device may be a stand-in of a meter, for visits of the demo data.
Sequel.migration do
  scopes = ->(db, known) do
    db.alter_table(:devices) do
      drop_constraint(:known_scope)
      add_constraint(:known_scope, scope: known)
    end
  end

  up { scopes.call(self, %w[readings log_rows stand_in]) }

  down do
    from(:devices).where(scope: "stand_in").delete
    scopes.call(self, %w[readings log_rows])
  end
end
