# frozen_string_literal: true

module Gorvant
  module Server
    # Whose eyes a repository sees with: every query is kept to this crew.
    Viewer = Value.define(:crew_id, :user_id, :name, :crew_name, :role)

    class Viewer
      # The seeded owner of a local installation.
      def self.local_owner(db)
        row =
          db[:users]
            .join(:crews, id: :crew_id)
            .where(role: "owner")
            .order(Sequel[:users][:created_at])
            .select(Sequel[:users][:id], :crew_id, Sequel[:users][:name], :role, Sequel[:crews][:name].as(:crew_name))
            .first
        new(crew_id: row[:crew_id], user_id: row[:id], name: row[:name], crew_name: row[:crew_name], role: row[:role])
      end
    end
  end
end
