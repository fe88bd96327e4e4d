# frozen_string_literal: true

require_relative "../server/own_buffers"

bind "tcp://#{ENV.fetch("GORVANT_BIND", "127.0.0.1")}:#{ENV.fetch("PORT", "9400")}"
workers Integer(ENV.fetch("WEB_CONCURRENCY", 2))
threads 1, Integer(ENV.fetch("WEB_THREADS", 8))

# GORVANT_PHASED=yes, behind a proxy: each worker loads the program by itself, so that they can be renewed one after the
# other (SIGUSR1); costs the memory that they share otherwise. A connection is one request then, and a thread's from the
# start: one that has come and not spoken yet is not closed when its worker goes.
phased = ENV["GORVANT_PHASED"] == "yes"
preload_app! !phased
queue_requests !phased
enable_keep_alives !phased
worker_shutdown_timeout 30
worker_timeout 60
silence_single_worker_warning if respond_to?(:silence_single_worker_warning)

# Each worker opens connections of its own.
before_fork { Sequel::DATABASES.each(&:disconnect) } unless phased
