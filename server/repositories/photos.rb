# frozen_string_literal: true

module Gorvant
  module Server
    # Photos of a visit. Lists carry no pictures.
    class Photos < Repository
      MOST = 60

      def of(visit_id) = scoped.where(visit_id: visit_id).order(:created_at).select(*LISTED).all

      # [row, created?]
      def create(id, digest, fields)
        db.transaction do
          # One at a time, so that the count holds.
          db[:visits].where(crew_id: viewer.crew_id, id: fields[:visit_id]).for_update.get(:id)
          full = scoped.where(visit_id: fields[:visit_id]).exclude(id: id).count >= MOST
          raise Refused.new(field: "/", problem: "a visit keeps at most #{MOST} photos; delete one first") if full

          pictures = fields.slice(:content, :small).transform_values { |bytes| Sequel.blob(bytes) }
          insert_once(id, digest, fields.merge(pictures)).tap { tell("photo", fields[:visit_id]) }
        end
      end

      # The whole picture, wherever it lies.
      def bytes(id) = Depot.current.bytes(find(id))

      def change(id, fields)
        row = find(id)
        db.transaction do
          Visits.new(db, viewer).hold(row[:visit_id])
          db[:photos].where(crew_id: viewer.crew_id, id: id).update(**fields)
          tell("photo", row[:visit_id])
        end
        find(id)
      end

      def delete(id)
        row = find(id)
        db.transaction do
          Visits.new(db, viewer).hold(row[:visit_id])
          db[:photos].where(crew_id: viewer.crew_id, id: id).delete
          tell("photo", row[:visit_id])
        end
      end

      LISTED = %i[id visit_id of fact_key note width height created_at].freeze

      # { visit => [bytes of each of its photos] } of a unit. unknown: of one that lies in a storage, whose size no row
      # has.
      def sizes(unit_id, unknown:)
        size = Sequel.function(:coalesce, Sequel.function(:octet_length, Sequel[:photos][:content]), unknown)
        db[:photos]
          .where(Sequel[:photos][:crew_id] => viewer.crew_id)
          .join(:visits, id: :visit_id, unit_id: unit_id)
          .select_map([Sequel[:photos][:visit_id], size.as(:size)])
          .group_by(&:first)
          .transform_values { |rows| rows.map(&:last) }
      end

      private

      def table = :photos
      def thing = "photo"
    end
  end
end
