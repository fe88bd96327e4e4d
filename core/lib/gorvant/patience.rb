# frozen_string_literal: true

module Gorvant
  # Raised where somebody's patience ended before the answer was there.
  class GaveUp < Error
    says "this takes longer than is allowed here, and was given up"
  end

  # The same where what was done so far is kept: whoever asks again, after so many seconds, has the rest to wait for.
  class StillAtIt < GaveUp
    says "this takes longer than one answer may, and goes on where it stands when it is asked again in %<seconds>s s"
  end

  # How long an answer may take. The core has no clock: whoever asks may hand in what says that it is enough, and every
  # long loop (a settling, a run, a search) looks there once a turn. Nobody handed anything in: for ever.
  module Patience
    KEY = :gorvant_patience

    class << self
      # enough: called without arguments, true once it is enough. Then the block ends with GaveUp.
      def with(enough)
        before = Thread.current[KEY]
        Thread.current[KEY] = enough
        yield
      ensure
        Thread.current[KEY] = before
      end

      # Raises GaveUp when it is enough.
      def check! = Thread.current[KEY]&.call && raise(GaveUp.new)
    end
  end
end
