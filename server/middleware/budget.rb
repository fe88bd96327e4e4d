# frozen_string_literal: true

require "socket"

module Gorvant
  module Server
    # How long one answer may take: past MOST_SECONDS of the processor, past LONGEST times that by the clock (others may
    # have the machine), or when nobody waits for it any more, the core is told that it is
    # enough. Long work belongs to tasks. While it works, others get a word in every few milliseconds.
    class Budget
      include Steady

      MOST_SECONDS = Float(ENV.fetch("GORVANT_MOST_SECONDS", 3))
      LONGEST = 4
      LOOK_EVERY_SECONDS = 0.1
      PASS_EVERY_SECONDS = 0.003
      STAND_BACK_SECONDS = 0.006
      HUNG_UP = 499 # as web servers write it down
      CALLED_OFF = "called_off"

      def initialize(app) = @app = app

      @asked = 0
      @lock = Mutex.new

      class << self
        # One more request in this process, or one less.
        def count(by) = @lock.synchronize { @asked += by }

        # Whether anybody waits for an answer beside those that are, or want to be, worked out in turn.
        def others? = @asked > Warm::TURNS.taken + OneEach.waiting
      end

      def call(env)
        self.class.count(1)
        gone = false
        answer = Patience.with(enough(env["puma.socket"]) { gone = true }) { @app.call(env) }
        gone ? called_off(env, *answer) : answer
      ensure
        self.class.count(-1)
      end

      private

      # A dear answer stands back while others ask; any other gives way for a moment.
      def give_way = Turns.mine? && self.class.others? ? sleep(STAND_BACK_SECONDS) : Thread.pass

      # Nobody reads it; whoever counts answers sees that nothing was wrong with the server.
      def called_off(env, _status, headers, body)
        env[Journal::CODE] = CALLED_OFF
        [HUNG_UP, headers, body]
      end

      # The block: the client has hung up.
      def enough(socket)
        over = now + (MOST_SECONDS * LONGEST)
        spent = worked + MOST_SECONDS
        look_at = now + LOOK_EVERY_SECONDS
        pass_at = now + PASS_EVERY_SECONDS
        lambda do
          time = now
          next true if time > over || worked > spent

          if time >= pass_at
            give_way
            pass_at = now + PASS_EVERY_SECONDS
          end
          next false if time < look_at

          look_at = time + LOOK_EVERY_SECONDS
          gone?(socket) && yield
        end
      end

      # Nothing to read and an end: the client has hung up.
      def gone?(socket)
        return false unless socket.respond_to?(:recv_nonblock)

        socket.recv_nonblock(1, Socket::MSG_PEEK, exception: false).then { |read| read.nil? || read == "" }
      rescue IOError, SystemCallError
        true
      end

      # Seconds of the processor that this thread has had.
      def worked = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)
    end
  end
end
