# frozen_string_literal: true

module Gorvant
  module Server
    # Whose eyes a repository sees with: every query is kept to this crew. Somebody who signed in, or a device, which
    # has a device_id and acts for who let it in.
    Viewer =
      Value.define(
        *%i[crew_id user_id name crew_name role server_owner sign_in_name device_id client],
        defaults: {
          server_owner: false,
          sign_in_name: nil,
          device_id: nil,
          client: nil
        }
      )

    class Viewer
      # client: the page that asks, so that it is not told of what it did itself.
      def self.of(row) =
        new(
          crew_id: row[:crew_id],
          user_id: row[:id],
          name: row[:name],
          crew_name: row[:crew_name],
          role: row[:role],
          server_owner: row[:server_owner],
          sign_in_name: row[:sign_in_name]
        )

      # The first owner of the server: in local mode the person at this machine.
      def self.local_owner(db)
        row =
          db[:users]
            .join(:crews, id: :crew_id)
            .where(role: "owner", closed_at: nil)
            .order(Sequel.desc(:server_owner), Sequel[:users][:created_at])
            .select(
              Sequel[:users][:id],
              :crew_id,
              Sequel[:users][:name],
              :role,
              :server_owner,
              :sign_in_name,
              Sequel[:crews][:name].as(:crew_name)
            )
            .first
        of(row)
      end
    end
  end
end
