# frozen_string_literal: true

module Gorvant
  module Server
    # Drills of a crew, each with what is really so in `sealed`: no presenter reads that column.
    class Drills < Repository
      MOST = 3_000

      # [row, created?]. drill: Practice::Drill; rig_row: whose rig it is, nil for one that came in a file.
      def keep(id, body, drill, rig_row, made_by: "made")
        if scoped.count >= MOST
          raise Refused.new(field: "/", problem: "a crew keeps #{MOST} drills; use those that are there")
        end

        insert_once(id, body, self.class.fields(drill, rig_row, made_by))
      end

      def self.fields(drill, rig_row, made_by)
        content = Formats::RigJson.dump(drill.rig)
        {
          rig_id: rig_row && rig_row[:id],
          rig_name: drill.rig.name,
          digest: Digest::SHA256.hexdigest(JSON.generate(content)),
          content: Sequel.pg_jsonb(content),
          form: drill.form,
          subject: drill.subject,
          level: drill.level,
          symptoms: Sequel.pg_jsonb(drill.symptoms),
          outdoor_degrees_f: drill.outdoor_degrees_f,
          questions: drill.asks.to_a.size,
          sealed: Sequel.pg_jsonb(drill.to_json_hash),
          made_by: made_by
        }
      end

      # The drill of a row, opened: for the bench, the questions and the judging, never for a presenter.
      def self.open(row) = Practice::Drill.from(row[:sealed].to_hash, Formats::RigJson.read(row[:content].to_hash))

      # A free bench of this kind that the learner has not met, or nil.
      def unmet(rig_id, subject, level)
        met = db[:drill_tries].where(created_by: viewer.user_id).select(:drill_id)
        scoped
          .where(rig_id: rig_id, form: "find", subject: subject, level: level)
          .exclude(id: met)
          .order(:created_at)
          .first
      end

      def of(ids) = scoped.where(id: ids).all.to_h { |row| [row[:id], row] }

      private

      def table = :drills
      def thing = "drill"
    end
  end
end
