# frozen_string_literal: true

module Gorvant
  module Server
    # Who is in the crew, and what was done to its accounts; the crews of the server.
    class PeopleResource < Resource
      get "/api/people" do
        everybody = people.of(viewer.crew_id)
        names = everybody.to_h { |row| row.values_at(:id, :name) }
        json(
          people: everybody.map { |row| Present.person(row) },
          invitations: invitations.open_of(viewer.crew_id).map { |row| Present.invitation(row, names) }
        )
      end

      # The first to invite somebody has to be able to come in themselves: with a second account the start's link opens
      # nothing any more.
      post "/api/people/invitations" do
        role = RoleRequest.parse(body_json)[:role]
        need_password
        if people.of(viewer.crew_id).size >= People::MOST
          raise Refused.new(field: "/", problem: "a crew has at most #{People::MOST} people")
        end

        row, token = invitations.make(crew_id: viewer.crew_id, by: viewer.user_id, role: role)
        audit.add(viewer, "invited", role)
        json Present.link(row, token), 201
      end

      post "/api/people/invitations/:id/revocation" do
        invitations.revoke(viewer.crew_id, params[:id])
        audit.add(viewer, "invitation_revoked")
        json(revoked: params[:id])
      end

      post "/api/people/:id/role" do
        role = RoleRequest.parse(body_json)[:role]
        person = people.member(viewer.crew_id, params[:id])
        people.give_role(viewer.crew_id, person[:id], role)
        audit.add(viewer, "role", "#{person[:name]}: #{role}")
        json Present.person(people.of(viewer.crew_id).find { |row| row[:id] == person[:id] })
      end

      post "/api/people/:id/way-back" do
        person = people.member(viewer.crew_id, params[:id])
        row, token =
          invitations.make(crew_id: viewer.crew_id, by: viewer.user_id, role: person[:role], user_id: person[:id])
        audit.add(viewer, "way_back", person[:name])
        json Present.link(row, token), 201
      end

      post "/api/people/:id/closing" do
        person = people.member(viewer.crew_id, params[:id])
        people.close(viewer.crew_id, person[:id])
        audit.add(viewer, "account_closed", person[:name])
        json(closed: person[:id])
      end

      get "/api/crews" do
        json(crews: people.crews.map { |row| Present.crew(row) })
      end

      post "/api/crews" do
        name = CrewRequest.parse(body_json)[:name].strip
        need_password
        row, token =
          door.transaction { invitations.make(crew_id: people.make_crew(name), by: viewer.user_id, role: "owner") }
        audit.add(viewer, "crew", name)
        json Present.link(row, token), 201
      end

      get "/api/audit" do
        before = params["before"]
        unless before.nil? || before.to_s.match?(/\A\d{1,18}\z/)
          raise Refused.new(field: "/before", problem: "has to be the number that came as next")
        end

        rows = audit.of(viewer.crew_id, before: before&.to_i)
        json(
          entries: rows.map { |row| Present.audit_entry(row) },
          next: rows.size == AuditTrail::PAGE ? rows.last[:id] : nil
        )
      end

      # The crew's mark, as it stands on its papers.
      get "/api/crew/mark" do
        mark = people.mark(viewer.crew_id) or raise NotFound.new(thing: "mark", id: viewer.crew_name)
        content_type "image/jpeg"
        headers "cache-control" => "private, no-cache", "x-content-type-options" => "nosniff"
        mark
      end

      post "/api/crew/mark" do
        people.keep_mark(viewer.crew_id, Pictures.shrink(body_json)[:small])
        audit.add(viewer, "mark")
        json({ kept: true }, 201)
      end

      post "/api/crew/mark/removal" do
        people.keep_mark(viewer.crew_id, nil)
        audit.add(viewer, "mark", "none")
        json(kept: false)
      end

      private

      def people = People.new(door)
      def invitations = Invitations.new(door)

      def need_password
        return if people.member(viewer.crew_id, viewer.user_id)[:password_hash]

        raise Refused.new(
                field: "/",
                problem: "set your own password first: with a second account the start's link ends"
              )
      end
    end
  end
end
