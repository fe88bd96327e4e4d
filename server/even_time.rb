# frozen_string_literal: true

module Gorvant
  module Server
    # Answers at whole steps of time: how long a hidden circuit took to work out would tell something of what is hidden
    # in it (63 to 143 ms were seen of one reading with one or another fault). Refusals wait, too.
    module EvenTime
      STEP_SECONDS = 0.25
      extend Steady

      @pause = ->(seconds) { sleep(seconds) }

      class << self
        # How it waits: a spec that plays many acts does not.
        attr_accessor :pause

        def hold
          began = now
          yield
        ensure
          pause.call(left(now - began))
        end

        # Seconds to the next whole step, for what took so many.
        def left(spent) = ((spent / STEP_SECONDS).ceil.clamp(1, nil) * STEP_SECONDS) - spent
      end
    end
  end
end
