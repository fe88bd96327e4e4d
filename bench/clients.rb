# frozen_string_literal: true

require "json"
require "net/http"
require_relative "questions"

# Who asks a server: clients in processes of their own, so that they do not wait for one another.
module Clients
  PROCESSES = 4

  class << self
    # [[question, milliseconds, status]] of count clients for seconds. names: of questions, nil for a mix; most: how
    # many in all; whose: headers, one after the other, of those who ask; think: seconds between two, 0 for none; tries:
    # of one question, where it is told to come back; usual: see Questions.
    def ask(bench, count, seconds, names = nil, most: nil, whose: [bench.own], **how)
      share = (count / PROCESSES.to_f).ceil
      readers =
        Array.new(PROCESSES) do |process|
          mine = Array.new([share, count - (process * share)].min.clamp(0, share)) { |i| (process * share) + i }
          apart do
            late = now + seconds
            mine
              .map do |i|
                Thread.new { one(bench, i, late, names, most && (most / count), whose[i % whose.size], **how) }
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

    # As a page asks: again by itself where it is told to come back.
    def patiently(tries)
      (1..).each do |attempt|
        answer = yield
        again = answer["retry-after"].to_i
        return answer if !%w[503 429].include?(answer.code) || attempt >= tries || !again.between?(1, 10)

        sleep(again)
      end
    end

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

    def one(bench, seed, late, names, most, headers, **how)
      think, tries = how.fetch(:think, 0), how.fetch(:tries, 1)
      sleep(rand * think)
      questions = Questions.new(bench, seed + Integer(now * 1000), usual: how.fetch(:usual, 0))
      took = []
      Net::HTTP.start("127.0.0.1", bench.port, read_timeout: 30) do |http|
        while now < late && (most.nil? || took.size < most)
          name = (names || questions.names).sample
          method, path, body = name == "dear" ? questions.dear : questions.make(name)
          began = now
          answer =
            patiently(tries) do
              if method == :get
                http.get(path, headers)
              else
                http.post(path, JSON.generate(body), headers.merge("content-type" => "application/json"))
              end
            end
          took << [name, ((now - began) * 1000).round(1), answer.code.to_i]
          sleep(think * rand(0.5..1.5)) if think.positive?
        end
      end
      took
    end
  end
end
