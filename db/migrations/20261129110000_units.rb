# frozen_string_literal: true

# What stays with a unit and a site from visit to visit: notes for the next one. And what a visit begins with, as the
# one before told it.
Sequel.migration do
  up do
    %i[units sites].each { |table| add_column table, :notes, :text, null: false, default: "" }
    add_column :visits, :carried, :jsonb
  end

  down do
    %i[units sites].each { |table| drop_column table, :notes }
    drop_column :visits, :carried
  end
end
