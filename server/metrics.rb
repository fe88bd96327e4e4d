# frozen_string_literal: true

require "prometheus/client"
require "prometheus/client/data_stores/direct_file_store"
require "prometheus/client/formats/text"

module Gorvant
  module Server
    # What the one who looks after the server counts. GORVANT_METRICS_DIR: a folder that all processes of this host
    # share, emptied by whoever starts them; without it each process counts for itself. Names of routes and codes only,
    # nothing of a user.
    module Metrics
      FOLDER = ENV["GORVANT_METRICS_DIR"].to_s
      SECONDS = [0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10].freeze
      PID = /___(\d+)\.bin\z/

      unless FOLDER.empty?
        Prometheus::Client.config.data_store = Prometheus::Client::DataStores::DirectFileStore.new(dir: FOLDER)
      end
      SUMMED = FOLDER.empty? ? {} : { aggregation: :sum }
      NEWEST = FOLDER.empty? ? {} : { aggregation: :most_recent }

      REGISTRY = Prometheus::Client::Registry.new
      ANSWERS = REGISTRY.counter(:gorvant_answers_total, docstring: "Answers of the API", labels: %i[route status])
      ANSWER_SECONDS =
        REGISTRY.histogram(:gorvant_answer_seconds, docstring: "How long they took", labels: [:route], buckets: SECONDS)
      PROBLEMS = REGISTRY.counter(:gorvant_problems_total, docstring: "Answers that were refusals", labels: [:code])
      SOLVED =
        REGISTRY.histogram(
          :gorvant_solver_seconds,
          docstring: "What the core worked out anew",
          labels: [:what],
          buckets: SECONDS
        )
      TASK_SECONDS =
        REGISTRY.histogram(
          :gorvant_task_seconds,
          docstring: "Tasks worked to their end",
          labels: %i[kind state],
          buckets: [1, 5, 15, 60, 300, 1800]
        )
      TASKS = REGISTRY.gauge(:gorvant_tasks, docstring: "Tasks by state", labels: [:state], store_settings: NEWEST)
      STREAMS = REGISTRY.gauge(:gorvant_streams, docstring: "Browsers that listen", store_settings: SUMMED)
      POOL =
        REGISTRY.gauge(
          :gorvant_pool_connections,
          docstring: "Connections to the database that processes hold",
          labels: [:role],
          store_settings: SUMMED
        )
      STATES = %w[waiting running done failed cancelled].freeze

      class << self
        include Steady

        # An answer of the API. route: as it is written down, not as it was asked.
        def answered(route, status, seconds, code)
          ANSWERS.increment(labels: { route: route, status: status.to_s })
          ANSWER_SECONDS.observe(seconds, labels: { route: route })
          PROBLEMS.increment(labels: { code: code }) if code
        end

        # Times the block as something that the core works out.
        def solving(what)
          began = now
          yield
        ensure
          SOLVED.observe(now - began, labels: { what: what })
        end

        # counts: { state => how many }
        def tasks(counts) = STATES.each { |state| TASKS.set(counts.fetch(state, 0), labels: { state: state }) }

        # All of it in the text format of Prometheus.
        def text
          forget_the_dead
          Prometheus::Client::Formats::Text.marshal(REGISTRY)
        end

        private

        # What a process held that is no more, it holds no longer; what it counted stays counted.
        def forget_the_dead
          return if FOLDER.empty?

          Dir[File.join(FOLDER, "metric_{gorvant_streams,gorvant_pool_connections}___*.bin")].each do |file|
            File.delete(file) unless File.exist?("/proc/#{file[PID, 1]}")
          end
        end
      end
    end
  end
end
