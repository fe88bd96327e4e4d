# frozen_string_literal: true

bind "tcp://#{ENV.fetch("GORVANT_BIND", "127.0.0.1")}:#{ENV.fetch("PORT", "9400")}"
workers Integer(ENV.fetch("WEB_CONCURRENCY", 2))
threads 1, Integer(ENV.fetch("WEB_THREADS", 8))

# GORVANT_PHASED=yes: each worker loads the program by itself, so that they can be renewed one after the other (SIGUSR1)
# without an answer lost; costs the memory that they share otherwise.
preload_app! ENV["GORVANT_PHASED"] != "yes"
worker_shutdown_timeout 30
worker_timeout 60
silence_single_worker_warning if respond_to?(:silence_single_worker_warning)

# Each worker opens connections of its own.
before_fork { Sequel::DATABASES.each(&:disconnect) }
