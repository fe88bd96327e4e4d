# frozen_string_literal: true

module Gorvant
  module Server
    # One dear answer at a time for each account, in all processes together: the next one of the same account waits for
    # it a moment, what comes behind that is told to come again. So nobody's flood takes the turns of others.
    module OneEach
      KEY = :gorvant_one_each
      WAIT_SECONDS = 1.5
      LOOK_EVERY_SECONDS = 0.05
      Asker = Struct.new(:id, :answers, :holder)
      @waiting = {}
      @lock = Mutex.new

      class << self
        include Steady

        # Whose the dear answers of the block are. id: of an account or a device; answers: DearAnswers.
        def as(id, answers)
          before = Thread.current[KEY]
          Thread.current[KEY] = id && Asker.new(id, answers)
          yield
        ensure
          Thread.current[KEY] = before
        end

        # Raises OneByOne. One turn serves whatever the block asks for in turn; what nobody asked for (the worker's)
        # needs none.
        def serve
          asker = Thread.current[KEY]
          return yield if asker.nil? || asker.holder

          asker.holder = asker.answers.take(asker.id) || wait(asker)
          begin
            yield
          ensure
            holder, asker.holder = asker.holder, nil
            asker.answers.let_go(holder)
          end
        end

        # How many wait in this process for an answer of their own account.
        def waiting = @waiting.size

        private

        def wait(asker)
          waits = @lock.synchronize { @waiting.key?(asker.id) || !(@waiting[asker.id] = true) }
          raise OneByOne.new if waits

          begin
            late = now + WAIT_SECONDS
            while now < late
              sleep(LOOK_EVERY_SECONDS)
              Patience.check! # who has hung up keeps nobody else from waiting
              holder = asker.answers.take(asker.id)
              return holder if holder
            end
            raise OneByOne.new
          ensure
            @lock.synchronize { @waiting.delete(asker.id) }
          end
        end
      end
    end
  end
end
