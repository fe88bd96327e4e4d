# frozen_string_literal: true

module Gorvant
  module Server
    # Rigs and their immutable revisions. A row carries its newest revision.
    class Rigs < Repository
      NEWEST =
        Sequel.lit("rig_revisions.number = (SELECT max(number) FROM rig_revisions AS r WHERE r.rig_id = rigs.id)")

      def all = scoped.order(Sequel[:rigs][:name]).all

      # [row, created?]. body is what the client sent; rig a checked Rig.
      def create(id, body, rig, demo: false)
        db.transaction do
          digest = Sent.digest(body)
          inserted =
            db[:rigs]
              .returning(:id)
              .insert_conflict(target: :id)
              .insert(owned(id: id, name: rig.name, request_digest: digest, demo: demo))
          add_revision(id, rig, parent_id: nil, number: 1) if inserted.any?
          row = scoped.where(Sequel[:rigs][:id] => id).first
          raise IdTaken.new(field: "/id", id: id) unless row && Sent.same?(body, row[:request_digest])

          [row, inserted.any?]
        end
      end

      # A new revision on top of the one that the client saw; Stale when another came first.
      def revise(id, version, rig)
        db.transaction do
          lock(id)
          before = find(id)
          return before if before[:version] == version + 1 && same?(before, rig)

          changed =
            db[:rigs].where(crew_id: viewer.crew_id, id: id, version: version).update(
              name: rig.name,
              version: version + 1,
              updated_at: Sequel::CURRENT_TIMESTAMP
            )
          if changed.zero?
            raise Stale.new(
                    thing: thing,
                    current_version: before[:version],
                    current: {
                      "revision" => before[:number],
                      "content" => before[:content].to_hash
                    },
                    given: {
                      "content" => Formats::RigJson.dump(rig)
                    }
                  )
          end

          add_revision(id, rig, parent_id: before[:revision_id], number: before[:number] + 1)
          find(id)
        end
      end

      # A revision that a visit makes at the unit, begun from the one of that number. Returns its id; RigMoved where
      # another came meanwhile, with what it changed and both put together.
      def append(id, number, rig)
        db.transaction do
          lock(id)
          row = find(id)
          base = db[:rig_revisions].where(crew_id: viewer.crew_id, rig_id: id, number: number).first
          unless base
            raise Refused.new(field: "/revision", problem: "is no revision of this rig; the newest is #{row[:number]}")
          end

          return row[:revision_id] if row[:number] == number + 1 && same?(row, rig)

          rig_moved!(row, base, rig) if number != row[:number]
          db[:rigs].where(crew_id: viewer.crew_id, id: id).update(
            name: rig.name,
            version: row[:version] + 1,
            updated_at: Sequel::CURRENT_TIMESTAMP
          )
          add_revision(id, rig, parent_id: base[:id], number: row[:number] + 1)
        end
      end

      # Newest first, each with who made it.
      def revisions(id)
        find(id)
        db[:rig_revisions]
          .where(Sequel[:rig_revisions][:crew_id] => viewer.crew_id, :rig_id => id)
          .join(:users, id: Sequel[:rig_revisions][:created_by])
          .select_all(:rig_revisions)
          .select_append(Sequel.function(:coalesce, Sequel[:rig_revisions][:by_name], Sequel[:users][:name]).as(:by))
          .reverse(:number)
          .all
      end

      # { revision => name of its rig }.
      def names(revision_ids)
        db[:rig_revisions]
          .where(Sequel[:rig_revisions][:crew_id] => viewer.crew_id, Sequel[:rig_revisions][:id] => revision_ids)
          .join(:rigs, id: :rig_id)
          .select_hash(Sequel[:rig_revisions][:id], Sequel[:rigs][:name])
      end

      # The Rig value of a row.
      def value(row) = Warm.rig(row)

      private

      # Whether the newest revision is this very rig: then it was sent before, and its answer was lost.
      def same?(row, rig) = row[:digest] == Formats::RigJson.digest(rig)

      # One at a time changes a rig; the others wait, then see what it did.
      def lock(id) = UUID.match?(id.to_s) && db[:rigs].where(crew_id: viewer.crew_id, id: id).for_update.get(:id)

      def rig_moved!(row, base, mine)
        was, theirs = [base, row].map { |one| Warm.rig(one) }
        merge = Merge.new(was, theirs, mine)
        raise RigMoved.new(
                current_version: row[:number],
                current: {
                  "revision" => row[:number],
                  "content" => Formats::RigJson.dump(theirs)
                },
                given: {
                  "content" => Formats::RigJson.dump(mine)
                },
                merged: merge.clean? ? dumped(merge) : nil,
                mine_stands: dumped(merge),
                theirs_stand: dumped(Merge.new(was, mine, theirs)),
                theirs: Comparison.of(was, theirs).map(&:to_h),
                both: merge.both.map(&:to_h)
              )
      end

      def dumped(merge) = merge.rig && Formats::RigJson.dump(merge.rig)

      def table = :rigs
      def thing = "rig"

      def scoped
        db[:rigs]
          .where(Sequel[:rigs][:crew_id] => viewer.crew_id)
          .join(:rig_revisions, rig_id: :id)
          .where(NEWEST)
          .select(
            Sequel[:rigs][:id],
            Sequel[:rigs][:name],
            Sequel[:rigs][:version],
            Sequel[:rigs][:request_digest],
            Sequel[:rigs][:demo],
            Sequel[:rigs][:created_at],
            Sequel[:rig_revisions][:id].as(:revision_id),
            :number,
            :digest,
            :content
          )
      end

      def add_revision(rig_id, rig, parent_id:, number:)
        db[:rig_revisions]
          .returning(:id)
          .insert(
            crew_id: viewer.crew_id,
            created_by: viewer.user_id,
            rig_id: rig_id,
            parent_id: parent_id,
            number: number,
            digest: Formats::RigJson.digest(rig),
            content: Sequel.pg_jsonb(Formats::RigJson.dump(rig))
          )
          .first[
          :id
        ]
      end
    end
  end
end
