# frozen_string_literal: true

module Gorvant
  module Server
    # Who was just told to come again later (429) and asks on without waiting hears the same at once, before anybody
    # looks up who they are: a flood costs next to nothing then. Told apart by cookie or token, each process for itself.
    # Not at the door, where the next try may be another name's.
    class ToldAlready
      include Steady

      MOST = 2_000
      AT_MOST_ONCE_SECONDS = 0.25 # for who has a long answer in hand: it may be there any moment
      COOKIE = /gorvant=[^;]+/
      Told = Struct.new(:over, :answer)

      def initialize(app)
        @app = app
        @lock = Mutex.new
        @told = {}
      end

      def call(env)
        limit = Operations.find(env["REQUEST_METHOD"], env["PATH_INFO"])&.limit
        who = [env["HTTP_COOKIE"].to_s[COOKIE], env["HTTP_AUTHORIZATION"]].compact
        return @app.call(env) if limit.nil? || limit == "door" || who.empty?

        told = @lock.synchronize { @told[[limit, who]] }
        return again(told) if told && now < told.over

        @app.call(env).tap { |answer| remember([limit, who], answer) if answer.first == 429 }
      end

      private

      def remember(key, (status, headers, body))
        seconds = headers["retry-after"].to_i
        seconds = AT_MOST_ONCE_SECONDS if seconds <= 1
        kept = [status, headers.slice("content-type", "retry-after"), body]
        @lock.synchronize do
          @told.shift if @told.size >= MOST
          @told[key] = Told.new(now + seconds, kept)
        end
      end

      def again(told)
        status, headers, body = told.answer
        [status, headers.merge("retry-after" => [(told.over - now).ceil, 1].max.to_s), body]
      end
    end
  end
end
