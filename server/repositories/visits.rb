# frozen_string_literal: true

module Gorvant
  module Server
    # Visits with their site, unit, rig revision and the tally of their readings.
    class Visits < Repository
      MOST_LISTED = 200
      Content = Struct.new(:db, :id) do
        def to_hash = db[:rig_revisions].where(id: id).get(:content).to_hash
      end

      # Newest day first.
      def all = listed(scoped)

      def find(id) = with_content(super)

      # [row, created?]
      def create(id, body, fields)
        row, first_time = insert_once(id, body, as_json({ symptoms: [] }.merge(fields)))
        [with_content(row), first_time]
      end

      # Those to one unit, newest first.
      def of_unit(unit_id) = listed(scoped.where(Sequel[:visits][:unit_id] => unit_id))

      JSON_FIELDS = %i[symptoms safety as_found bench setting_labels found_marks defrost].freeze

      def change(id, version, fields)
        find(id)
        update_version(id, version, as_json(fields))
      end

      # The Rig value of the visit's revision.
      def rig(row) = Warm.rig(row)

      private

      def as_json(fields) = fields.to_h { |key, value| [key, JSON_FIELDS.include?(key) ? Sequel.pg_jsonb(value) : value] }
      def table = :visits
      def thing = "visit"

      # Newest first.
      def listed(dataset) = dataset.reverse(:visit_on, Sequel[:visits][:created_at]).limit(MOST_LISTED).all.map { |row| with_content(row) }

      # The rig's file is most of a row and mostly known already: it is fetched when somebody reads it.
      def with_content(row) = row.merge(content: Content.new(db, row[:rig_revision_id]))

      def scoped
        db[:visits].where(Sequel[:visits][:crew_id] => viewer.crew_id)
                   .join(:units, id: Sequel[:visits][:unit_id]).join(:sites, id: Sequel[:units][:site_id])
                   .join(:rig_revisions, id: Sequel[:visits][:rig_revision_id])
                   .select_all(:visits)
                   .select_append(Sequel[:units][:name].as(:unit_name), Sequel[:sites][:name].as(:site_name), Sequel[:rig_revisions][:digest],
                                  Sequel[:rig_revisions][:number].as(:revision_number), Sequel[:rig_revisions][:rig_id], tally("agrees").as(:agreeing),
                                      tally("disagrees").as(:disagreeing), agreeing_calls.as(:agreeing_calls))
      end

      # Calls in which a standing reading agrees, with commas between.
      def agreeing_calls
        Readings.standing(db[:readings]).where(visit_id: Sequel[:visits][:id], verdict: "agrees").select(Sequel.lit("string_agg(DISTINCT condition->>'call', ',')"))
      end

      # How many readings that stand have this verdict.
      def tally(verdict)
        Readings.standing(db[:readings]).where(visit_id: Sequel[:visits][:id], verdict: verdict).select { count.function.* }
      end
    end
  end
end
