# frozen_string_literal: true

require "digest"

module Gorvant
  module Server
    # Rows of one table as its viewer's crew sees them. There is no find without a viewer.
    class Repository
      UUID = Ids::UUID

      def initialize(db, viewer)
        @db = db
        @viewer = viewer
      end

      # The row, or NotFound.
      def find(id)
        raise NotFound.new(thing: thing, id: id.to_s[0, 60]) unless UUID.match?(id.to_s)

        scoped.where(Sequel[table][:id] => id).first || raise(NotFound.new(thing: thing, id: id))
      end

      # The row by itself, where what is reckoned up beside it is not asked for. Or NotFound.
      def alone(id) = find(id)

      private

      attr_reader :db, :viewer

      def scoped = db[table].where(Sequel[table][:crew_id] => viewer.crew_id)
      def owned(**fields) = { crew_id: viewer.crew_id, created_by: viewer.user_id, **fields }

      # Inserts a row under the client's id. The same id with the same body gives the row that is there: [row,
      # created?]. With another body: IdTaken. body is what the client sent.
      def insert_once(id, body, fields)
        digest = Sent.digest(body)
        inserted =
          db[table].returning(:id).insert_conflict(target: :id).insert(owned(id: id, request_digest: digest, **fields))
        return find(id), true if inserted.any?

        row = scoped.where(Sequel[table][:id] => id).first
        raise IdTaken.new(field: "/id", id: id) unless row && Sent.same?(body, row[:request_digest])

        [row, false]
      end

      # Tells those who look at the visit.
      def tell(kind, visit_id, **payload) = Events.new(db).add(viewer, kind, visit_id, payload.transform_keys(&:to_s))

      def taken!(name) = raise(Refused.new(field: "/name", problem: "'#{name}' is kept already; take another name"))

      # The same change sent twice, since the first answer never came: it stands already.
      def retried?(current, version, fields)
        current[:version] == version + 1 && fields.all? { |name, value| plain(current[name]) == plain(value) }
      end

      def plain(value) = JSON.parse(JSON.generate([value.respond_to?(:to_hash) ? value.to_hash : value]))

      # Changes a row if its version is still the one that the client saw; Stale with both values otherwise.
      def update_version(id, version, fields)
        changed =
          db[table].where(crew_id: viewer.crew_id, id: id, version: version).update(
            **fields,
            version: version + 1,
            updated_at: Sequel::CURRENT_TIMESTAMP
          )
        current = find(id)
        return current if changed == 1 || retried?(current, version, fields)

        raise Stale.new(
                thing: thing,
                current_version: current[:version],
                current: current.slice(*fields.keys),
                given: fields
              )
      end
    end
  end
end
