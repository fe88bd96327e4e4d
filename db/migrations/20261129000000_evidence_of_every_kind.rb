# frozen_string_literal: true

# A reading is what a person read, saw, looked up or did, not volts alone: value or range or open, or a choice, of two
# points or at a place. value_volts_ac stays for one release and is written no more. Which functions there are is data
# of the core, so no constraint names them.
Sequel.migration do
  up do
    alter_table(:readings) do
      drop_constraint :known_function
      set_column_allow_null :value_volts_ac
      set_column_allow_null :from_node
      set_column_allow_null :to_node
      add_column :value, Float
      add_column :value_high, Float
      add_column :about, :boolean, null: false, default: false
      add_column :open, :boolean, null: false, default: false
      add_column :isolated, :boolean, null: false, default: false
      add_column :place, :text
      add_column :choice, :jsonb
      add_column :moment, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
    end
    from(:readings).update(value: :value_volts_ac)
    alter_table(:readings) do
      add_constraint :says_something, Sequel.lit("value IS NOT NULL OR open OR choice IS NOT NULL")
      add_constraint :is_somewhere, Sequel.lit("(from_node IS NOT NULL AND to_node IS NOT NULL) OR place IS NOT NULL")
    end
  end

  down do
    if from(:readings).exclude(function: "volts_ac").or(about: true).or(Sequel.~(value_high: nil)).any?
      raise Sequel::Error.new(
              "readings of other kinds than volts were kept since; the older table has no place for them"
            )
    end
    from(:readings).update(value_volts_ac: :value)
    alter_table(:readings) do
      drop_constraint :says_something
      drop_constraint :is_somewhere
      %i[value value_high about open isolated place choice moment].each { |column| drop_column column }
      set_column_not_null :value_volts_ac
      set_column_not_null :from_node
      set_column_not_null :to_node
      add_constraint :known_function, function: %w[volts_ac]
    end
  end
end
