# frozen_string_literal: true

bind "tcp://#{ENV.fetch("GORVANT_BIND", "127.0.0.1")}:#{ENV.fetch("PORT", "9400")}"
workers Integer(ENV.fetch("WEB_CONCURRENCY", 2))
threads 1, Integer(ENV.fetch("WEB_THREADS", 8))
preload_app!
silence_single_worker_warning if respond_to?(:silence_single_worker_warning)

# Each worker opens connections of its own.
before_fork { Sequel::DATABASES.each(&:disconnect) }
