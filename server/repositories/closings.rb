# frozen_string_literal: true

module Gorvant
  module Server
    # Closings of visits: snapshots that are added and never changed. What holds is the one that its visit names; one
    # that was opened again stays.
    class Closings < Repository
      # Rows of a visit, oldest first, without their content.
      def of(visit_id) = scoped.where(visit_id: visit_id).order(:number).select(*LISTED, *NAMES).all

      # Closings that hold, each with its visit, its unit's age and its visit's rig: { unit_id:, installed_year:,
      # visit_on:, symptoms:, cause:, digest:, content: of the rig }.
      def holding
        db[:closings]
          .where(Sequel[:closings][:crew_id] => viewer.crew_id, Sequel[:closings][:reopened_at] => nil)
          .join(:visits, id: :visit_id, binned_at: nil)
          .join(:units, id: Sequel[:visits][:unit_id])
          .join(:rig_revisions, id: Sequel[:visits][:rig_revision_id])
          .select(
            Sequel[:visits][:unit_id],
            Sequel[:units][:installed_year],
            Sequel[:visits][:visit_on],
            Sequel[:visits][:symptoms],
            Sequel.lit("closings.content #>> '{report,cause}' AS cause"),
            Sequel[:rig_revisions][:digest],
            Sequel[:rig_revisions][:content]
          )
          .all
      end

      # What earlier visits to a unit came to, the newest first: [{ "on", "days", "id", "title", "mended" }] as
      # Diagnosis::Past reads them. on: the day of the visit that asks.
      def found_at(unit_id, on)
        told = %w[found cause left_off].map { |key| Sequel.lit("closings.content #> '{report,#{key}}' AS #{key}") }
        db[:closings]
          .where(Sequel[:closings][:crew_id] => viewer.crew_id, Sequel[:closings][:reopened_at] => nil)
          .join(:visits, id: :visit_id, unit_id: unit_id, binned_at: nil)
          .where(Sequel[:visits][:visit_on] <= on)
          .order(Sequel.desc(Sequel[:visits][:visit_on]), Sequel.desc(Sequel[:visits][:id]))
          .limit(Catalogue.diagnosis.dig("earlier", "most"))
          .select(Sequel[:visits][:visit_on], *told)
          .filter_map { |row| found_then(row, on) }
      end

      # What they name as the cause, the most frequent first: [{ title:, count: }].
      def causes
        cause = Sequel.lit("closings.content #>> '{report,cause}'")
        db[:closings]
          .where(Sequel[:closings][:crew_id] => viewer.crew_id, Sequel[:closings][:reopened_at] => nil)
          .exclude(cause => nil)
          .join(:visits, id: :visit_id, binned_at: nil)
          .group(cause)
          .order(Sequel.lit("count(*) DESC"), cause)
          .limit(MOST_CAUSES)
          .select(cause.as(:title), Sequel.lit("count(*) AS count"))
          .all
      end

      MOST_CAUSES = 200

      # The row with its content, or NotFound.
      def numbered(visit_id, number)
        scoped.where(visit_id: visit_id, number: number).select_all(:closings).select_append(*NAMES).first ||
          raise(NotFound.new(thing: thing, id: number.to_s))
      end

      # The closing that was made by this very request before, nil for none; IdTaken for another one's id.
      def again(id, body)
        known = scoped.where(Sequel[:closings][:id] => id).select(:visit_id, :number, :request_digest).first or
          return nil
        raise IdTaken.new(field: "/id", id: id) unless Sent.same?(body, known[:request_digest])

        numbered(known[:visit_id], known[:number])
      end

      # Closes a visit that is held. after: how many closings its closer knows of; Stale with the one that came
      # meanwhile. [row, created?]
      def create(id, body, visit, after:, mark:, content:)
        last = of(visit[:id]).last
        stale!(last, content) if (last ? last[:number] : 0) != after
        number = after + 1
        db[:closings].insert(
          owned(
            id: id,
            visit_id: visit[:id],
            number: number,
            mark: mark,
            content: Sequel.pg_jsonb(content),
            digest: self.class.digest(content),
            request_digest: Sent.digest(body)
          )
        )
        tell("visit", visit[:id], closed: number)
        [numbered(visit[:id], number), true]
      end

      # Notes that a closing holds no longer.
      def reopen(visit_id, number, why)
        scoped.where(visit_id: visit_id, number: number, reopened_at: nil).update(
          reopened_at: Sequel::CURRENT_TIMESTAMP,
          reopened_by: viewer.user_id,
          reopened_why: why
        )
        tell("visit", visit_id, reopened: number)
        numbered(visit_id, number)
      end

      # SHA-256 of content with its keys in order, as it comes back from the database too.
      def self.digest(content) = Sent.digest(JSON.parse(JSON.generate(content)))

      LISTED =
        %i[id number mark digest created_at reopened_at reopened_why].map { |name| Sequel[:closings][name] }.freeze
      NAMES = [
        Sequel.lit("coalesce(by_name, (SELECT name FROM users WHERE users.id = closings.created_by)) AS by"),
        Sequel.lit(
          "coalesce(reopened_name, (SELECT name FROM users WHERE users.id = closings.reopened_by)) AS reopened_by_name"
        )
      ].freeze

      private

      # A closing of before says no more than a title and whether anything was left off.
      def found_then(row, on)
        said = row[:found].to_h
        said = { "title" => row[:cause], "mended" => row[:left_off] != true } if said.empty? && row[:cause]
        said.empty? ? nil : { "on" => row[:visit_on].iso8601, "days" => (on - row[:visit_on]).to_i }.merge(said)
      end

      def table = :closings
      def thing = "closing"

      def stale!(last, content)
        raise Stale.new(
                thing: "visit",
                current_version: last ? last[:number] : 0,
                current: last ? { number: last[:number], by: last[:by], at: last[:created_at].iso8601 } : {},
                given: content.fetch("report").slice("title", "handover")
              )
      end
    end
  end
end
