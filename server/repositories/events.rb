# frozen_string_literal: true

module Gorvant
  module Server
    # What happened, told to all who look: a row in the crew's order and a word to every process that has listeners.
    # Kept for a day; who comes later than that loads anew.
    class Events
      QUIET = "-" # the client of who tells nobody: no page can call itself that
      CHANNEL = "gorvant"
      LOCK = 0x67766576 # of this program's advisory locks, the one for the order of events
      KEPT_SECONDS = 86_400
      MOST = 500 # in one answer; who missed more loads anew
      # What an event says of: a page asks anew for what it shows of it.
      KINDS = %w[reading desk visit photo here hands device_reading log_rows].freeze

      def initialize(db) = @db = db

      # To be the last thing in the transaction of what it tells: the crew's events come one after another, so that no
      # id is seen before a smaller one. source_id: an id that the sender made; the same one again is not told again.
      def add(viewer, kind, visit_id, payload = {}, source_id: nil)
        raise ArgumentError.new("no kind of event: #{kind}") unless KINDS.include?(kind)
        return if viewer.client == QUIET

        @db.transaction do
          @db.get(Sequel.function(:pg_advisory_xact_lock, LOCK, Sequel.function(:hashtext, viewer.crew_id)))
          told = { "by" => viewer.name, "client" => viewer.client, **payload }.compact
          fields = { crew_id: viewer.crew_id, visit_id: visit_id, kind: kind, source_id: source_id }
          id = @db[:events].insert_conflict.returning(:id).insert(**fields, payload: Sequel.pg_jsonb(told)).first
          @db.notify(CHANNEL, payload: "#{viewer.crew_id} #{id[:id]}") if id
          id
        end
      end

      # A word that somebody's sessions have changed; it carries an id and no more.
      def look_at_sessions(user_id) = @db.notify(CHANNEL, payload: "sessions #{user_id}")

      # Rows after an id, oldest first; nil where none is given, some of them are gone, or there are too many.
      def since(id)
        return nil if id.nil?
        return nil if id.positive? && @db[:events].where(id: id).empty?

        rows = @db[:events].where(Sequel[:id] > id).order(:id).limit(MOST + 1).all
        rows.size > MOST ? nil : rows
      end

      def find(ids) = @db[:events].where(id: ids).order(:id).all

      # The newest there is, 0 for none.
      def newest = @db[:events].max(:id) || 0

      # Where somebody last had two probes in a visit: { "probes", "call", :at }, nil for nowhere within so many
      # seconds.
      def last_probes(visit_id, within_seconds)
        row =
          @db[:events]
            .where(visit_id: visit_id, kind: "here")
            .where(Sequel[:at] > Time.now - within_seconds)
            .reverse(:id)
            .limit(20)
            .all
            .find { |one| one[:payload]["probes"].to_a.uniq.size == 2 }
        row && row[:payload].to_hash.merge(at: since_placed(visit_id, row))
      end

      # Where a learner has the probes at a drill, nil for nowhere.
      def probes_at_try(try_id, within_seconds)
        row =
          @db[:events]
            .where(kind: "here", visit_id: nil)
            .where(Sequel.lit("payload ->> 'try_id' = ?", try_id))
            .where(Sequel[:at] > Time.now - within_seconds)
            .reverse(:id)
            .first
        row && row[:payload].to_hash
      end

      # The worker's, for all crews.
      def prune = @db[:events].where(Sequel[:at] < Time.now - KEPT_SECONDS).delete

      private

      # When the probes came to where they are: the first word of the run that says the same.
      def since_placed(visit_id, row)
        rows = @db[:events].where(visit_id: visit_id, kind: "here").where { id <= row[:id] }.reverse(:id).limit(20).all
        rows.take_while { |one| one[:payload]["probes"] == row[:payload]["probes"] }.last[:at]
      end
    end
  end
end
