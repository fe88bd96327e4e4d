# frozen_string_literal: true

require "json"
require "net/http"

# How a device that is not there speaks to the server: this machine's only, with its token, for a bounded time.
class StandInDevice
  MOST_SECONDS = 3600

  # url: URI. Ends the program in words where it cannot be one of this machine, or nobody is there.
  def self.open(url, token, seconds)
    abort("--url: this machine only, such as http://127.0.0.1:9292") unless %w[127.0.0.1 localhost].include?(url.host)

    Net::HTTP.start(url.host, url.port) { |http| yield new(http, token, seconds.clamp(0, MOST_SECONDS)) }
  rescue SystemCallError => e
    abort("no server there: #{e.message}")
  end

  def initialize(http, token, seconds)
    @http = http
    @head = { "content-type" => "application/json", "authorization" => "Bearer #{token}" }
    @began = now
    @ends = @began + seconds
  end

  def going? = now < @ends
  def passed = now - @began

  # A refusal ends the program with what the server said.
  def post(path, body)
    answer = @http.post(path, JSON.generate(body), @head)
    abort("#{answer.code}: #{JSON.parse(answer.body)["detail"]}") unless answer.code.start_with?("2")
  end

  private

  def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
end
