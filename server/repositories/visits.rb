# frozen_string_literal: true

module Gorvant
  module Server
    # Visits with their site, unit, rig revision and the tally of their readings.
    class Visits < Repository
      MOST_LISTED = 200
      PAGE = 50
      CURSOR = /\A(\d{4}-\d\d-\d\d)_(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{6}Z)_(#{UUID.source[2..-3]})\z/
      Content = Struct.new(:db, :id) { def to_hash = db[:rig_revisions].where(id: id).get(:content).to_hash }

      # A page of them, newest day first: [rows, cursor of the next page or nil]. before: the cursor of the page before.
      def page(before: nil, limit: PAGE)
        rows =
          listed(
            (
              if before
                scoped.where(Sequel.lit("(visits.visit_on, visits.created_at, visits.id) < (?, ?, ?)", *cursor(before)))
              else
                scoped
              end
            ),
            limit + 1
          )
        more = rows.size > limit
        rows = rows.first(limit)
        [
          rows,
          (
            if more
              rows
                .last
                .values_at(:visit_on, :created_at, :id)
                .then { |on, at, id| "#{on.iso8601}_#{at.utc.iso8601(6)}_#{id}" }
            else
              nil
            end
          )
        ]
      end

      def all = page(limit: MOST_LISTED).first

      def find(id) = with_content(super).merge(found_mark: FindMarks.new(db, viewer).of([id])[id])

      # With its rig, and without names, tallies and marks of readings.
      def alone(id)
        row = in_sight(with_rig).where(Sequel[:visits][:id] => id).first if UUID.match?(id.to_s)
        row ? with_content(row) : raise(NotFound.new(thing: thing, id: id.to_s[0, 60]))
      end

      # The same, also of one that was thrown into the bin meanwhile: what was read on it is not lost.
      def even_binned(id)
        row = with_rig.where(Sequel[:visits][:id] => id).first if UUID.match?(id.to_s)
        row ? with_content(row) : raise(NotFound.new(thing: thing, id: id.to_s[0, 60]))
      end

      # [row, created?]
      def create(id, body, fields)
        row, first_time = insert_once(id, body, as_json({ symptoms: [] }.merge(fields)))
        [with_content(row), first_time]
      end

      # Those to one unit, newest first.
      def of_unit(unit_id) = listed(scoped.where(Sequel[:visits][:unit_id] => unit_id))

      # Those of these ids that are in sight, newest first.
      def those(ids) = ids.empty? ? [] : listed(scoped.where(Sequel[:visits][:id] => ids))

      JSON_FIELDS = %i[symptoms safety carried].freeze

      def change(id, version, fields)
        find(id)
        db.transaction do
          update_version(id, version, as_json(fields)).tap { |row| tell("visit", id, version: row[:version]) }
        end
      end

      # Holds a visit until the transaction ends: what its desks' marks follow from is read and written by one at a
      # time. Raises Closed where it was closed meanwhile: a closed visit is read only.
      # after: of one who closes it and knows of that many closings, who is told of a later one otherwise.
      def hold(id, after: nil)
        row = db[:visits].where(crew_id: viewer.crew_id, id: id).for_update.first if UUID.match?(id.to_s)
        closed = row && row[:closed_number]
        raise Closed.new(number: closed) if closed && (after.nil? || closed == after)

        row && row[:id]
      end

      # Closes a visit that is held, or opens a closed one.
      def close(id, number, mark)
        db[:visits].where(crew_id: viewer.crew_id, id: id).update(closed_number: number, closed_as: mark)
      end

      def open_again(id, number)
        held = { crew_id: viewer.crew_id, id: id, closed_number: number }
        return if db[:visits].where(held).update(closed_number: nil, closed_as: nil) == 1

        raise Refused.new(field: "/number", problem: "closing #{number} is not the one that holds; nothing was opened")
      end

      # The Rig value of the visit's revision.
      def rig(row) = Warm.rig(row)

      private

      def as_json(fields) =
        fields.to_h { |key, value| [key, JSON_FIELDS.include?(key) ? Sequel.pg_jsonb(value) : value] }
      def table = :visits
      def thing = "visit"

      # Newest first, with the marks of their desks and not what the desks keep.
      def listed(dataset, limit = MOST_LISTED)
        rows = dataset.reverse(:visit_on, Sequel[:visits][:created_at], Sequel[:visits][:id]).limit(limit).all
        ids = rows.map { |row| row[:id] }
        marks = VisitDesks.new(db, viewer).marks(ids)
        found = FindMarks.new(db, viewer).of(ids)
        rows.map do |row|
          kept = marks.fetch(row[:id], {}).merge({ "find" => found[row[:id]] }.compact)
          with_content(row).merge(listed_marks: kept)
        end
      end

      def cursor(text)
        parts = CURSOR.match(text)&.captures
        Date.iso8601(parts[0]) && Time.iso8601(parts[1]) if parts
        parts || raise(Date::Error)
      rescue ArgumentError
        raise Refused.new(field: "/before", problem: "is no place in the list; take the one that came as next")
      end

      # The rig's file is most of a row and mostly known already: it is fetched when somebody reads it.
      # So is what its desks keep.
      def with_content(row) =
        row.merge(
          content: Content.new(db, row[:rig_revision_id]),
          desks: VisitDesks::Rows.new(db, row[:id], row[:carried])
        )

      def with_rig
        db[:visits]
          .where(Sequel[:visits][:crew_id] => viewer.crew_id)
          .join(:rig_revisions, id: Sequel[:visits][:rig_revision_id])
          .select_all(:visits)
          .select_append(
            Sequel[:rig_revisions][:digest],
            Sequel[:rig_revisions][:number].as(:revision_number),
            Sequel[:rig_revisions][:rig_id]
          )
      end

      # Without those in the bin, and those of a unit or a site in the bin.
      def in_sight(rows)
        rows
          .where(Sequel[:visits][:binned_at] => nil)
          .join(:units, id: Sequel[:visits][:unit_id], binned_at: nil)
          .join(:sites, id: Sequel[:units][:site_id], binned_at: nil)
      end

      def scoped
        in_sight(with_rig).select_append(
          Sequel[:units][:name].as(:unit_name),
          Sequel[:sites][:name].as(:site_name),
          tally("agrees").as(:agreeing),
          tally("disagrees").as(:disagreeing),
          agreeing_calls.as(:agreeing_calls)
        )
      end

      # Calls in which a standing reading of the circuit agrees, with commas between.
      def agreeing_calls
        Readings
          .standing(db[:readings])
          .where(visit_id: Sequel[:visits][:id], verdict: "agrees", function: Observation.of_call)
          .select(Sequel.lit("string_agg(DISTINCT condition->>'call', ',')"))
      end

      # How many readings that stand have this verdict.
      def tally(verdict)
        Readings
          .standing(db[:readings])
          .where(visit_id: Sequel[:visits][:id], verdict: verdict)
          .select { count.function.* }
      end
    end
  end
end
