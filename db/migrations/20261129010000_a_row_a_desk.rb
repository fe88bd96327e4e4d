# frozen_string_literal: true

# What a desk keeps of a visit is a row of its own: two people on two pages never collide. The columns of visits that
# held it stay for one release and are read no more; going back fills them again.
Sequel.migration do
  parts = {
    "wiring" => "as_found - 'settings'",
    "thermostat" =>
      "jsonb_strip_nulls(jsonb_build_object('settings', as_found -> 'settings', 'bench', nullif(bench, '{}'), " \
        "'labels', nullif(setting_labels, '{}')))",
    "defrost" => "defrost"
  }

  up do
    create_table(:visit_desks) do
      foreign_key :visit_id, :visits, type: :uuid, null: false, on_delete: :cascade
      text :desk, null: false
      foreign_key :crew_id, :crews, type: :uuid, null: false
      foreign_key :changed_by, :users, type: :uuid, null: false
      integer :version, null: false, default: 1
      jsonb :content, null: false
      text :mark, null: false, default: "untouched"
      text :made_from # digest of all that the mark follows from
      timestamptz :updated_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      primary_key %i[visit_id desk]
    end
    parts.each do |desk, content|
      content = Sequel.lit(content)
      kept =
        from(:visits).exclude(content => Sequel.lit("'{}'::jsonb")).select(
          :id,
          Sequel.lit("?", desk),
          :crew_id,
          :created_by,
          content,
          Sequel.lit("coalesce(found_marks ->> ?, 'untouched')", desk)
        )
      from(:visit_desks).insert(%i[visit_id desk crew_id changed_by content mark], kept)
    end
  end

  down do
    contents =
      parts.keys.to_h do |desk|
        [desk, from(:visit_desks).where(visit_id: Sequel[:visits][:id], desk: desk).select(:content)]
      end
    empty = Sequel.lit("'{}'::jsonb")
    marks = from(:visit_desks).where(visit_id: Sequel[:visits][:id]).select(Sequel.lit("jsonb_object_agg(desk, mark)"))
    from(:visits).update(
      as_found:
        Sequel.lit(
          "coalesce(?, '{}') || jsonb_strip_nulls(jsonb_build_object('settings', ? -> 'settings'))",
          contents["wiring"],
          contents["thermostat"]
        ),
      bench: Sequel.lit("coalesce(? -> 'bench', '{}')", contents["thermostat"]),
      setting_labels: Sequel.lit("coalesce(? -> 'labels', '{}')", contents["thermostat"]),
      defrost: Sequel.function(:coalesce, contents["defrost"], empty),
      found_marks: Sequel.function(:coalesce, marks, empty)
    )
    drop_table(:visit_desks)
  end
end
