# frozen_string_literal: true

module Gorvant
  module Server
    # Units with their site, and what stays with them from visit to visit.
    class Units < Repository
      # Keeps { notes:, installed_year: }, either or both, on the version that was seen.
      def change(id, version, fields) = update_version(id, version, fields)

      # Keeps a visit's readings as those of a unit that is well.
      def know_good(id, visit_id, kept)
        db[:units].where(crew_id: viewer.crew_id, id: id).update(
          known_good: Sequel.pg_jsonb(kept),
          known_good_visit_id: visit_id
        )
        tell("visit", visit_id, known_good: true)
      end

      # Findings of the closings that hold, newest day first: [{ on:, visit_id:, number:, mark:, report: }].
      def findings(id)
        db[:closings]
          .where(Sequel[:closings][:crew_id] => viewer.crew_id, Sequel[:closings][:reopened_at] => nil)
          .join(:visits, id: :visit_id, unit_id: id, binned_at: nil)
          .reverse(Sequel[:visits][:visit_on], Sequel[:closings][:number])
          .select(
            Sequel[:visits][:visit_on].as(:on),
            Sequel[:visits][:id].as(:visit_id),
            Sequel[:closings][:number],
            Sequel[:closings][:mark],
            Sequel.lit("closings.content -> 'report' -> 'sections' -> 0 -> 'blocks' -> 0 AS found"),
            Sequel.lit(
              "closings.content -> 'record' -> 'visit' -> 'desks' -> 'close_out' -> 'content' ->> 'done' AS did"
            )
          )
          .all
      end

      # Photos of all its visits, newest first, without the pictures.
      def photos(id)
        db[:photos]
          .where(Sequel[:photos][:crew_id] => viewer.crew_id)
          .join(:visits, id: :visit_id, unit_id: id, binned_at: nil)
          .reverse(Sequel[:photos][:created_at])
          .limit(MOST_PHOTOS)
          .select(*Photos::LISTED.map { |name| Sequel[:photos][name] })
          .all
      end

      MOST_PHOTOS = 60

      private

      def table = :units
      def thing = "unit"

      def scoped
        db[:units]
          .where(Sequel[:units][:crew_id] => viewer.crew_id, Sequel[:units][:binned_at] => nil)
          .join(:sites, id: :site_id, binned_at: nil)
          .select_all(:units)
          .select_append(Sequel[:sites][:name].as(:site_name))
      end
    end
  end
end
