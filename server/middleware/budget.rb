# frozen_string_literal: true

require "socket"

module Gorvant
  module Server
    # How long one answer may take: past MOST_SECONDS, or when nobody waits for it any more, the core is told that it is enough.
    # Long work belongs to tasks.
    class Budget
      MOST_SECONDS = Float(ENV.fetch("GORVANT_MOST_SECONDS", 3))
      LOOK_EVERY_SECONDS = 0.1

      def initialize(app) = @app = app

      def call(env)
        Patience.with(enough(env["puma.socket"])) { @app.call(env) }
      end

      private

      def enough(socket)
        over = now + MOST_SECONDS
        look_at = now + LOOK_EVERY_SECONDS
        lambda do
          time = now
          next true if time > over
          next false if time < look_at

          look_at = time + LOOK_EVERY_SECONDS
          gone?(socket)
        end
      end

      # Nothing to read and an end: the client has hung up.
      def gone?(socket)
        return false unless socket.respond_to?(:recv_nonblock)

        socket.recv_nonblock(1, Socket::MSG_PEEK, exception: false).then { |read| read.nil? || read == "" }
      rescue IOError, SystemCallError
        true
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
