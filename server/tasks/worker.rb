# frozen_string_literal: true

module Gorvant
  module Server
    # Claims tasks one at a time (SKIP LOCKED), keeps what is done so far every second, stops when a task is cancelled,
    # and takes over tasks whose worker has not been heard of.
    class Worker
      include Steady

      SAVE_EVERY_SECONDS = 1.0
      LOST_AFTER_SECONDS = 15
      IDLE_SECONDS = 0.5
      AWAY_SECONDS = 2
      PRUNE_EVERY_SECONDS = 30
      ENDED_KEPT_SECONDS = 2 * 86_400 # a page that was left open finds how its task ended

      # { kind => class } of what there is to work: every class of tasks/ that says a KIND. input and database in; then
      # `total`, `step`, `answer` and `resumes?`, as Alike has them, and `early` where some of it is of use sooner. One
      # that says ANSWER_ALONE does nothing beside giving its answer, which follows from its key.
      def self.kinds =
        Server
          .constants
          .map { |name| Server.const_get(name) }
          .select { |one| kind?(one) }
          .to_h { |one| [one::KIND, one] }

      def self.kind?(one) = one.is_a?(Class) && one.const_defined?(:KIND, false)
      private_class_method :kind?

      def initialize(db) = @db = db

      # Until the process ends; while the database is away it waits for it.
      def run
        loop { run_one || idle }
      rescue *Database::ERRORS => e
        raise unless Database.away?(e)

        Journal.logger.warn({ worker: "waits for the database" })
        sleep(AWAY_SECONDS)
        retry
      end

      # Works one task to its end; nil when none waits.
      def run_one
        task = claim or return nil
        began = now
        Crew.as(task[:crew_id]) { work(task) }
        counted(task, "worked", began)
      rescue StandardError => e
        raise if Database::ERRORS.any? { |kind| e.is_a?(kind) } && Database.away?(e)

        return nil unless task

        @db[:tasks].where(id: task[:id]).update(
          state: "failed",
          error: e.message[0, 500],
          updated_at: Sequel::CURRENT_TIMESTAMP
        )
        counted(task, "failed", began)
      end

      # Takes away what has had its time: kept answers over their budget, yesterday's events and tries at the door, what
      # lay in the bin, parts of archives that nobody took in, tasks that ended (what they were asked with may be a
      # whole paper).
      def tidy
        Computed.new(@db).prune
        RateCounts.new(@db).prune
        Attempts.prune(@db)
        ended = @db[:tasks].where(state: %w[done failed cancelled])
        ended.where(Sequel[:updated_at] < Time.now - ENDED_KEPT_SECONDS).delete
        Metrics.tasks(@db[:tasks].group_and_count(:state).as_hash(:state, :count))
        Events.new(@db).prune
        crews = @db[:crews].select_map(:id)
        crews.each { |crew| Crew.as(crew) { [Bin, ArchiveParts, Logs, Exports].each { |kept| kept.prune(@db) } } }
        store(crews)
      end

      private

      # Bytes go out to the storage where there is one; while it is away they stay where they are.
      def store(crews)
        crews.each { |crew| Crew.as(crew) { Depot.current.move(@db) } }
        Depot.current.prune(@db)
      rescue Depot::Away
        nil
      end

      # Its id.
      def counted(task, state, began)
        Metrics::TASK_SECONDS.observe(now - began, labels: { kind: task[:kind], state: state })
        task[:id]
      end

      def idle
        if @pruned_at.nil? || now - @pruned_at > PRUNE_EVERY_SECONDS
          tidy
          @pruned_at = now
        end
        @db.listen(Tasks::CHANNEL, timeout: IDLE_SECONDS) # what is asked for meanwhile is begun at once
      end

      def claim
        @db.transaction do
          lost = Sequel.lit("state = 'running' AND beat_at < now() - ? * interval '1 second'", LOST_AFTER_SECONDS)
          # What somebody waits for comes before what was begun ahead, and that before the demo's own records.
          later = ["made_up", Tasks::AHEAD].map { |why| Sequel.function(:jsonb_exists, :input, why) }
          waiting = @db[:tasks].where(state: "waiting").or(lost).order(*later, :created_at)
          task = waiting.for_update.skip_locked.first or return nil
          @db[:tasks].where(id: task[:id]).update(
            state: "running",
            beat_at: Sequel.function(:now),
            updated_at: Sequel.function(:now)
          )
          task
        end
      end

      # One that does nothing else has its answer already where it was asked for just as its like came to its end.
      def work(task)
        made = Worker.kinds.fetch(task[:kind])
        return ended(task, 1) if made.const_defined?(:ANSWER_ALONE) && Computed.new(@db).get(task[:key])

        kind = made.new(task[:input].to_hash, @db)
        # What a task has in hand only while it runs begins again with whoever takes it over.
        pieces = kind.resumes? ? task[:partial].to_a : []
        saved_at = now
        wanted =
          (pieces.size...kind.total).all? do |index|
            pieces << kind.step(index)
            keep_early(task, kind, pieces)
            next true if now - saved_at < SAVE_EVERY_SECONDS

            saved_at = now
            save(task, pieces, kind.total)
          end
        finish(task, kind, pieces) if wanted
      end

      # What can be answered from before all is done.
      def keep_early(task, kind, pieces)
        key, early = kind.early(pieces) if kind.respond_to?(:early)
        Computed.new(@db).put(task[:kind], key, JSON.generate(early)) if key
      end

      # Whether the task is still wanted.
      def save(task, pieces, total)
        @db[:tasks].where(id: task[:id], state: "running").update(
          done: pieces.size,
          total: total,
          partial: Sequel.pg_jsonb(pieces),
          beat_at: Sequel.function(:now)
        ) == 1
      end

      def finish(task, kind, pieces)
        @db.transaction do
          Computed.new(@db).put(task[:kind], task[:key], JSON.generate(kind.answer(pieces)))
          ended(task, kind.total)
        end
      end

      def ended(task, total)
        @db[:tasks].where(id: task[:id], state: "running").update(
          state: "done",
          done: total,
          total: total,
          partial: Sequel.pg_jsonb([]),
          updated_at: Sequel.function(:now)
        )
      end
    end
  end
end
