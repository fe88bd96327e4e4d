# frozen_string_literal: true

module Gorvant
  module Server
    # Dear answers (runs over time, whole desks) take turns in each process: RUNNING at once, WAITING behind them for at
    # most WAIT_SECONDS; who comes later is told to come again. So a flood of them leaves threads for everybody else.
    class Turns
      include Steady

      RUNNING = 1
      WAITING = 4 # of different accounts: each has one answer at a time (OneEach)
      WAIT_SECONDS = 1.5

      def initialize(running: RUNNING, waiting: WAITING, wait_seconds: WAIT_SECONDS)
        @running = running
        @waiting = waiting
        @wait_seconds = wait_seconds
        @lock = Mutex.new
        @free = ConditionVariable.new
        @now = 0
        @queue = 0
      end

      # Whether this thread has a turn.
      def self.mine? = !Thread.current[:gorvant_turn].nil?

      # How many run or wait for their turn.
      def taken = @now + @queue

      # Raises Busy where there is no turn to be had. One turn serves whatever the block asks for in turn.
      def serve
        return yield if Thread.current[:gorvant_turn] == self

        enter
        Thread.current[:gorvant_turn] = self
        begin
          yield
        ensure
          Thread.current[:gorvant_turn] = nil
          leave
        end
      end

      private

      def enter
        @lock.synchronize do
          raise Busy.new if @now >= @running && @queue >= @waiting

          @queue += 1
          late = now + @wait_seconds
          @free.wait(@lock, [late - now, 0.001].max) while @now >= @running && now < late
          @queue -= 1
          raise Busy.new if @now >= @running

          @now += 1
        end
      end

      def leave
        @lock.synchronize do
          @now -= 1
          @free.signal
        end
      end
    end
  end
end
