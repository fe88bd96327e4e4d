# frozen_string_literal: true

module Gorvant
  module Server
    # Server-sent events: GET /api/stream, behind Access. A stream holds no request thread: the socket is taken over,
    # and one thread of the process listens to the database on a connection of its own and writes to all of them,
    # never waiting for one that does not read. A process starts it with its first stream, so after every fork.
    class Stream
      include Steady

      PATH = "/api/stream"
      HEARTBEAT_SECONDS = 15
      TICK_SECONDS = 0.5
      AWAY_SECONDS = 1
      MOST_WAITING_BYTES = 256 * 1024 # for one that does not read; then it is cut, and comes again by itself
      MOST_STREAMS = 400 # of a process
      RETRY_MILLISECONDS = 1_000
      HEADERS = {
        "content-type" => "text/event-stream",
        "cache-control" => "no-store, no-transform",
        "x-accel-buffering" => "no",
        "connection" => "close"
      }.freeze

      # One browser that listens.
      class Listener
        attr_reader :io, :crew_id, :user_id, :keys
        attr_accessor :last_id

        def initialize(io, viewer, keys, last_id)
          @io = io
          @crew_id = viewer.crew_id
          @user_id = viewer.user_id
          @keys = keys
          @last_id = last_id
          @waiting = +""
          say("retry: #{RETRY_MILLISECONDS}\n\n")
        end

        def say(text) = @waiting << text

        # An event once, in order.
        def tell(row)
          return if last_id && row[:id] <= last_id

          self.last_id = row[:id]
          say("id: #{row[:id]}\nevent: #{row[:kind]}\ndata: #{data(row)}\n\n")
        end

        def begin_at(id)
          self.last_id = id
          say("id: #{id}\nevent: reload\ndata: {}\n\n")
        end

        # Writes what the socket takes now; false where it is gone or too far behind.
        def flush
          until @waiting.empty?
            written = io.write_nonblock(@waiting, exception: false)
            return @waiting.bytesize <= MOST_WAITING_BYTES if written == :wait_writable

            @waiting = @waiting.byteslice(written..)
          end
          true
        rescue IOError, SystemCallError
          false
        end

        def close
          io.close
        rescue IOError, SystemCallError
          nil
        end

        private

        def data(row) =
          JSON.generate({ visit_id: row[:visit_id], at: row[:at].utc.iso8601(3), **row[:payload].to_hash })
      end

      def initialize(app, db, door, connect: -> { Database.connect(as: :web) })
        @app = app
        @db = db
        @door = door
        @connect = connect
        @lock = Mutex.new
        @listeners = []
        @beat_at = 0
      end

      def call(env)
        return @app.call(env) unless env["PATH_INFO"] == PATH && env["REQUEST_METHOD"] == "GET"
        raise Busy.new if @lock.synchronize { @listeners.size } >= MOST_STREAMS

        viewer = env.fetch(Access::VIEWER)
        last_id = env["HTTP_LAST_EVENT_ID"].to_s[/\A\d{1,18}\z/]&.to_i
        taken = ->(io) { add(Listener.new(io, viewer, env.fetch(Access::KEYS), last_id)) }
        [200, HEADERS.merge("rack.hijack" => taken), []]
      end

      # How many listen in this process.
      def size = @lock.synchronize { @listeners.size }

      private

      def add(listener)
        @lock.synchronize do
          start
          catch_up(listener)
          @listeners << listener
          Metrics::STREAMS.set(@listeners.size)
        end
      end

      # What the browser missed, before anything newer. Where that is not to be had, and at its first time, the word to
      # load anew what it shows: from here on it hears of everything.
      def catch_up(listener)
        Crew.as(listener.crew_id) do
          events = Events.new(@db)
          missed = events.since(listener.last_id)
          missed ? missed.each { |row| listener.tell(row) } : listener.begin_at(events.newest)
        end
        listener.flush || listener.close
      rescue *Database::ERRORS
        listener.close # it comes again by itself
      end

      def start
        return if @thread&.alive?

        @thread = Thread.new { listen }
      end

      def listen
        own = @connect.call
        ways = { after_listen: ->(_) { all_catch_up }, loop: ->(_) { tick }, timeout: TICK_SECONDS }
        own.listen(Events::CHANNEL, **ways) { |_channel, _pid, word| heard(word) }
      rescue *Database::ERRORS
        Database.forget(own) if own
        own = nil
        sleep(AWAY_SECONDS)
        retry
      end

      # Once it listens: what was told before that nobody heard, and sessions that ended.
      def all_catch_up
        @lock.synchronize { @listeners.each { |one| catch_up(one) } }
        people = People.new(@door)
        each_gone { |one| people.by_session(one.user_id, one.keys) }
      end

      # "crew id" or "sessions user".
      def heard(word)
        whose, id = word.split(" ", 2)
        return cut(id) if whose == "sessions"

        wanted = @lock.synchronize { @listeners.any? { |one| one.crew_id == whose } }
        rows = wanted ? Crew.as(whose) { Events.new(@db).find(id.to_i) } : []
        each_gone do |one|
          rows.each { |row| one.tell(row) } if one.crew_id == whose
          one.flush
        end
      end

      # Sessions that ended since: theirs are cut, the others' are not.
      def cut(user_id)
        people = People.new(@door)
        each_gone { |one| one.user_id != user_id || people.by_session(user_id, one.keys) }
      end

      def tick
        beats = now - @beat_at > HEARTBEAT_SECONDS
        @beat_at = now if beats
        each_gone do |one|
          one.say(": still here\n\n") if beats
          one.flush
        end
      end

      # Takes out those for whom the block is false.
      def each_gone(&still_there)
        @lock.synchronize do
          gone = @listeners.reject(&still_there)
          @listeners -= gone
          Metrics::STREAMS.set(@listeners.size)
          gone.each(&:close)
        end
      end
    end
  end
end
