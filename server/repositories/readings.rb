# frozen_string_literal: true

module Gorvant
  module Server
    # What was read on a visit. Never updated: a correction supersedes, a take-back retracts, both stay visible.
    class Readings < Repository
      # Of a dataset of readings, those neither retracted nor superseded.
      def self.standing(dataset)
        dataset.where(Sequel[:readings][:retracted_at] => nil).exclude(
          dataset
            .db
            .from(Sequel[:readings].as(:later))
            .where(Sequel[:later][:supersedes_id] => Sequel[:readings][:id])
            .select(1)
            .exists
        )
      end

      # Oldest first.
      def of(visit_id) = of_visit(visit_id).order(Sequel[:readings][:received_at], Sequel[:readings][:id]).all

      # Those that stand, oldest first.
      def of_standing(visit_id) =
        self.class.standing(of_visit(visit_id)).order(Sequel[:readings][:taken_at], Sequel[:readings][:id]).all

      # Volts of a visit that stand, in one call.
      def standing_in(visit_id, call)
        self
          .class
          .standing(of_visit(visit_id))
          .where(function: "volts_ac")
          .where(Sequel.lit("readings.condition ->> 'call' = ?", call))
          .all
      end

      # [row, created?]
      def create(id, body, fields)
        db.transaction do
          check_superseded(fields)
          values = fields.slice(*JSON_FIELDS).transform_values { |value| Sequel.pg_jsonb_wrap(value) }
          insert_once(id, body, fields.merge(values)).tap do |row, first_time|
            tell("reading", row[:visit_id], id: id) if first_time
          end
        end
      rescue Sequel::UniqueConstraintViolation
        raise Refused.new(field: "/supersedes_id", problem: "this reading was already corrected; correct the newer one")
      end

      # Takes a reading back; doing so twice changes nothing.
      def retract(visit_id, id)
        row = find(id)
        raise NotFound.new(thing: thing, id: id) unless row[:visit_id] == visit_id

        db.transaction do
          mine = db[:readings].where(crew_id: viewer.crew_id, id: id, retracted_at: nil)
          changed = mine.update(retracted_at: Sequel::CURRENT_TIMESTAMP, retracted_by: viewer.user_id)
          tell("reading", visit_id, id: id) if changed == 1
        end
        find(id)
      end

      private

      JSON_FIELDS = %i[condition expected moment choice].freeze
      private_constant :JSON_FIELDS

      def of_visit(visit_id) = scoped.where(visit_id: visit_id)
      def table = :readings
      def thing = "reading"

      def scoped
        db[:readings]
          .where(Sequel[:readings][:crew_id] => viewer.crew_id)
          .join(:users, id: Sequel[:readings][:created_by])
          .select_all(:readings)
          .select_append(Sequel.function(:coalesce, Sequel[:readings][:by_name], Sequel[:users][:name]).as(:taken_by))
      end

      def check_superseded(fields)
        old = fields[:supersedes_id] or return
        return if scoped.where(Sequel[:readings][:id] => old, :visit_id => fields.fetch(:visit_id)).any?

        raise Refused.new(field: "/supersedes_id", problem: "no such reading in this visit")
      end
    end
  end
end
