# frozen_string_literal: true

module Gorvant
  module Server
    # Accounts, invitations and devices as JSON: never a password, a digest or a token that was shown.
    module Present
      class << self
        # task: the one that makes it; files: rows.
        def export(row, task, files)
          {
            id: row[:id],
            created_at: row[:created_at].iso8601,
            goes_at: (row[:created_at] + Exports::KEPT_SECONDS).iso8601,
            state: task ? task[:state] : "failed",
            error: task && task[:error],
            files: files.map { |file| file.slice(:number, :name, :visits, :records, :bytes) }
          }
        end

        def viewer(viewer)
          {
            id: viewer.user_id,
            name: viewer.name,
            crew: viewer.crew_name,
            role: viewer.role,
            may_change: viewer.role != "apprentice",
            owner: viewer.role == "owner",
            server_owner: viewer.server_owner
          }
        end

        def open_session(row) =
          { agent: row[:agent], since: row[:created_at].iso8601, last_use: row[:last_use].iso8601 }

        # host: the name that it opens; another after the server has moved.
        def passkey(row) =
          row.slice(:id, :name, :host).merge(since: row[:created_at].iso8601, last_use: row[:last_use]&.iso8601)

        def person(row)
          row.slice(:id, :name, :role, :sign_in_name, :signs_in).merge(since: row[:created_at].iso8601)
        end

        # names: { user_id => name } of the crew.
        def invitation(row, names)
          row.slice(:id, :role).merge(for: names[row[:user_id]], expires_at: row[:expires_at].iso8601)
        end

        def link(row, token) = { path: "/welcome/#{token}", expires_at: row[:expires_at].iso8601 }
        def crew(row) = row.slice(:id, :name, :people).merge(since: row[:created_at].iso8601)

        def device(row)
          row.slice(:id, :name, :scope).merge(
            since: row[:created_at].iso8601,
            last_seen_at: row[:last_seen_at]&.iso8601,
            revoked_at: row[:revoked_at]&.iso8601
          )
        end

        # What a device has sent, as those who look see it.
        def sample(input, device)
          input.slice(:id, :function, :value, :unit, :stable).merge(
            device_id: device.device_id,
            device: device.name,
            device_time: input[:device_time].utc.iso8601(3)
          )
        end

        def binned(row) =
          row.slice(:kind, :id, :title, :by).merge(binned_at: row[:binned_at].iso8601, goes_at: row[:goes_at].iso8601)

        def audit_entry(row)
          row.slice(:id, :by, :about).merge(says: AuditTrail::KINDS.fetch(row[:kind]), at: row[:at].iso8601)
        end
      end
    end
  end
end
