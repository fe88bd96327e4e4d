# frozen_string_literal: true

require "puma"
require "puma/server"
require "rack"

# A storage that speaks as much S3 as an object needs, on loopback: what it holds, what it was asked, away on demand.
class ObjectStorage
  attr_reader :objects, :asked
  attr_accessor :breaks # :put, :get: answers what is not so

  def initialize
    @objects = {}
    @asked = []
    begin_at(0)
  end

  def depot =
    Gorvant::Server::Depot.of_environment(
      "GORVANT_S3_BUCKET" => "larkmere",
      "GORVANT_S3_KEY" => "key",
      "GORVANT_S3_SECRET" => "secret",
      "GORVANT_S3_ENDPOINT" => "http://127.0.0.1:#{@port}"
    )

  def away = @server.stop(true)
  def back = begin_at(@port)

  def call(env)
    key = Rack::Utils.unescape_path(env["PATH_INFO"]).delete_prefix("/larkmere/")
    @asked << [env["REQUEST_METHOD"], key]
    return 403, {}, [] unless env["HTTP_AUTHORIZATION"].to_s.start_with?("AWS4-HMAC-SHA256 Credential=key/")

    respond(env["REQUEST_METHOD"], key, env["rack.input"])
  end

  private

  def begin_at(port)
    @server = Puma::Server.new(self, nil, log_writer: Puma::LogWriter.null, min_threads: 1, max_threads: 4)
    @port = @server.add_tcp_listener("127.0.0.1", port).addr[1]
    @server.run
  end

  def respond(method, key, body)
    case method
    when "PUT"
      bytes = body.read
      @objects[key] = @breaks == :put ? bytes[0, bytes.size / 2] : bytes
      [200, { "etag" => "\"#{Digest::MD5.hexdigest(bytes)}\"" }, []]
    when "DELETE"
      @objects.delete(key)
      [204, {}, []]
    else
      found = @objects[key]
      return 404, {}, [] if found.nil? && method == "HEAD"
      return 404, {}, ["<Error><Code>NoSuchKey</Code><Message>none</Message></Error>"] unless found

      [200, { "content-length" => found.bytesize.to_s }, method == "HEAD" ? [] : [found]]
    end
  end
end
