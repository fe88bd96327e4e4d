# frozen_string_literal: true

require "digest"

module Gorvant
  module Server
    # Who has been told to come again, and does not wait, is told so from here, before anything is read or looked up: a
    # flood of dear questions costs others next to nothing. Once the moment is over one question goes through, and what
    # comes of it decides about the next ones. Known by what lets them in and what they ask, in this process alone.
    class Insistent
      include Steady

      PATIENCE = 3 # times that are asked in earnest within a moment
      MOST_KNOWN = 2_000
      ID = Ids::UUID.source.delete_prefix("\\A").delete_suffix("\\z").then { |one| Regexp.new(one) }
      Told = Struct.new(:times, :until)

      def initialize(app)
        @app = app
        @told = {}
        @lock = Mutex.new
      end

      def call(env)
        asker = asker(env) or return @app.call(env)
        return told_again(env) if insists?(asker)

        answer = @app.call(env)
        env[Journal::CODE] == OneByOne.code ? note(asker, answer[1]) : forget(asker)
        answer
      end

      private

      # Only what changes or works something out is ever told to come again.
      def asker(env)
        return nil unless env["REQUEST_METHOD"] == "POST"

        who = env["HTTP_AUTHORIZATION"] || env["HTTP_COOKIE"] or return nil
        Digest::SHA256.digest("#{who} #{env["PATH_INFO"].b.gsub(ID, "")}")
      end

      # Within the moment, after PATIENCE times. When it is over, the first to come goes on, and the others wait for it.
      def insists?(asker)
        return false unless @told.key?(asker) # no lock for everybody else

        @lock.synchronize do
          told = @told[asker]
          next false if told.nil? || told.times < PATIENCE
          next true if now < told.until

          told.until = now + 1
          false
        end
      end

      def note(asker, headers)
        @lock.synchronize do
          @told.shift if @told.size >= MOST_KNOWN && !@told.key?(asker)
          told = @told[asker] ||= Told.new(0, 0)
          told.times = now < told.until || told.times >= PATIENCE ? told.times + 1 : 1
          told.until = now + headers["retry-after"].to_i
        end
      end

      def forget(asker) = @told.key?(asker) && @lock.synchronize { @told.delete(asker) }

      # Outside of what puts the usual headers on.
      def told_again(env)
        status, headers, body = Problem.response(OneByOne.new, env)
        [status, { **headers, "cache-control" => "no-store", "x-content-type-options" => "nosniff" }, body]
      end
    end
  end
end
