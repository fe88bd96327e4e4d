# frozen_string_literal: true

module Gorvant
  module Server
    # What was done to accounts, tokens and whole records, by whom and when. Rows are added and never changed: the roles
    # that serve may do nothing else with them.
    class AuditTrail
      PAGE = 100
      KINDS = {
        "password" => "set a new password",
        "code_on" => "asks for a one-time code now",
        "code_off" => "asks for no one-time code any more",
        "passkey" => "made a passkey",
        "passkey_removed" => "took a passkey off",
        "signed_out" => "signed out everywhere",
        "invited" => "invited somebody",
        "invitation_revoked" => "took an invitation back",
        "joined" => "came in by an invitation",
        "way_back" => "made a way back",
        "came_back" => "came back by a new password",
        "role" => "gave another role",
        "account_closed" => "closed an account",
        "crew" => "made a crew",
        "mark" => "changed the crew's mark",
        "device" => "let a device write",
        "device_revoked" => "revoked a device",
        "binned" => "put in the bin",
        "restored" => "took out of the bin",
        "deleted" => "deleted for good",
        "exported" => "took out all that the crew keeps",
        "imported" => "took in from an archive",
        "demo" => "changed the demo data"
      }.freeze

      def initialize(db) = @db = db

      def add(viewer, kind, about = "")
        KINDS.fetch(kind)
        @db[:audit_trail].insert(
          crew_id: viewer.crew_id,
          user_id: viewer.user_id,
          by: viewer.name,
          kind: kind,
          about: about.to_s[0, 200]
        )
      end

      # Newest first. before: the id of the last one that was seen.
      def of(crew_id, before: nil)
        rows = @db[:audit_trail].where(crew_id: crew_id).reverse(:id).limit(PAGE)
        before ? rows.where(Sequel[:id] < before).all : rows.all
      end
    end
  end
end
