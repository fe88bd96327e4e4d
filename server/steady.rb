# frozen_string_literal: true

module Gorvant
  module Server
    # A clock that never goes back, whatever is done to the machine's own: for how long, never for when.
    module Steady
      private

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
