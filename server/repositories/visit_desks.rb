# frozen_string_literal: true

module Gorvant
  module Server
    # What each desk keeps of a visit: a row a desk, with a version of its own. mark: how the desk stands; made_from:
    # the digest of all that the mark follows from.
    class VisitDesks < Repository
      # The rows of one visit, asked for when somebody reads them.
      Rows =
        Struct.new(:db, :visit_id, :carried) do
          def all =
            @all ||=
              db[:visit_desks]
                .where(visit_id: visit_id)
                .join(:users, id: :changed_by)
                .select_all(:visit_desks)
                .select_append(
                  Sequel.function(:coalesce, Sequel[:visit_desks][:by_name], Sequel[:users][:name]).as(:by)
                )
                .all
                .to_h { |row| [row[:desk], row] }
          def kept = all.transform_values { |row| row[:content].to_hash }
          def marks = all.transform_values { |row| row[:mark] }
          # given: what a page has of it that is not kept yet.
          def as_found(given = Desks.as_found(kept)) = carried ? Carried.under(given, carried.to_h) : given
          def versions = Desks.keeping.to_h { |desk| [desk, all.dig(desk, :version) || 0] }
        end

      # { visit => { desk => mark } } of many visits.
      def marks(visit_ids)
        scoped
          .where(visit_id: visit_ids)
          .select_map(%i[visit_id desk mark])
          .group_by(&:first)
          .transform_values { |rows| rows.to_h { |_visit, desk, mark| [desk, mark] } }
      end

      # Keeps what a desk holds, on the version that was seen (0 where nothing was kept yet); Stale with both otherwise.
      # The same change sent twice stands as it is.
      def keep(visit_id, desk, version, content)
        row = scoped.where(visit_id: visit_id, desk: desk).first
        had = row ? row[:version] : 0
        return row if had == version + 1 && plain(row[:content]) == plain(content)
        return stale!(desk, row, content) if had != version

        db.transaction do
          row ? update(row, content) : insert(visit_id, desk, content)
          tell("desk", visit_id, desk: desk, version: had + 1)
        end
      end

      # marks: { desk => mark } as they follow now; a desk that keeps nothing has no row to mark.
      def remark(visit_id, marks, made_from)
        marks.each do |desk, mark|
          scoped.where(visit_id: visit_id, desk: desk).update(mark: mark, made_from: made_from)
        end
      end

      private

      def table = :visit_desks

      def insert(visit_id, desk, content)
        db[:visit_desks].insert(
          visit_id: visit_id,
          desk: desk,
          crew_id: viewer.crew_id,
          changed_by: viewer.user_id,
          content: Sequel.pg_jsonb(content)
        )
      end

      def update(row, content)
        scoped.where(row.slice(:visit_id, :desk)).update(
          content: Sequel.pg_jsonb(content),
          version: row[:version] + 1,
          changed_by: viewer.user_id,
          by_name: nil,
          updated_at: Sequel::CURRENT_TIMESTAMP
        )
      end

      def stale!(desk, row, content)
        raise Stale.new(
                thing: "#{Catalogue.desks.fetch(desk).fetch("title").downcase} desk",
                current_version: row ? row[:version] : 0,
                current: row ? row[:content].to_hash : {},
                given: content
              )
      end
    end
  end
end
