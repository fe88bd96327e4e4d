# frozen_string_literal: true

require "json"
require "net/http"
require_relative "questions"

# Who asks a server: clients in processes of their own, so that they do not wait for one another.
module Clients
  PROCESSES = 4

  class << self
    # [[question, milliseconds, status]] of count clients for seconds. names: of questions, nil for a mix; most: how
    # many in all; think: seconds between two, 0 for none; whose: headers, one after the other, of those who ask.
    def ask(bench, count, seconds, names = nil, most: nil, think: 0, whose: [bench.own])
      share = (count / PROCESSES.to_f).ceil
      readers =
        Array.new(PROCESSES) do |process|
          mine = Array.new([share, count - (process * share)].min.clamp(0, share)) { |i| (process * share) + i }
          apart do
            late = now + seconds
            mine
              .map do |i|
                Thread.new { one(bench, i, late, names, most && (most / count), think, whose[i % whose.size]) }
              end
              .flat_map(&:value)
          end
        end
      readers.flat_map { |reader| JSON.parse(reader.read) }
    end

    # The share of times that lie below: 0.95 for p95.
    def part(times, share) = times.sort[[(times.size * share).ceil - 1, 0].max]
    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

    private

    def apart
      reader, writer = IO.pipe
      fork do
        reader.close
        writer.write(JSON.generate(yield))
        writer.close
        exit!(0)
      end
      writer.close
      reader
    end

    def one(bench, seed, late, names, most, think, headers)
      sleep(rand * think)
      questions = Questions.new(bench, seed + Integer(now * 1000))
      took = []
      Net::HTTP.start("127.0.0.1", bench.port, read_timeout: 30) do |http|
        while now < late && (most.nil? || took.size < most)
          name = (names || questions.names).sample
          method, path, body = name == "dear" ? questions.dear : questions.make(name)
          began = now
          answer =
            if method == :get
              http.get(path, headers)
            else
              http.post(path, JSON.generate(body), headers.merge("content-type" => "application/json"))
            end
          took << [name, ((now - began) * 1000).round(1), answer.code.to_i]
          sleep(think * rand(0.5..1.5)) if think.positive?
        end
      end
      took
    end
  end
end
