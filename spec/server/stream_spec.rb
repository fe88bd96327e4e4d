# frozen_string_literal: true

require_relative "../support/server"
require "puma"
require "puma/server"
require "socket"
require "timeout"

# What one keeps the others hear of: over real sockets, since a stream takes its socket over.
RSpec.describe "The stream", :server do
  # A browser that listens.
  ear_class =
    Class.new do
      attr_reader :events

      def initialize(port, cookie, last: nil, reads: true)
        @socket = TCPSocket.new("127.0.0.1", port)
        @events = []
        @came = Queue.new
        headers = ["Host: 127.0.0.1", "Cookie: #{cookie}", *("Last-Event-ID: #{last}" if last)]
        @socket.write("GET /api/stream HTTP/1.1\r\n#{headers.join("\r\n")}\r\n\r\n")
        @socket.gets # until it is answered
        @thread = Thread.new { read } if reads
        return if last || !reads

        @came.pop # from here on it hears
        @events.shift
      end

      def closed? = @closed || false

      def close
        @thread&.kill
        @socket.close
      end

      private

      def read
        fields = {}
        while (line = @socket.gets&.chomp)
          if line.empty?
            if fields["data"]
              @events << fields.merge("data" => JSON.parse(fields["data"]))
              @came << true
            end
            fields = {}
          else
            name, value = line.split(": ", 2)
            fields[name] = value if %w[id event data].include?(name)
          end
        end
        @closed = true
      rescue IOError, SystemCallError
        @closed = true
      end
    end

  before do
    @app = ServerBench.build
    @puma = Puma::Server.new(@app, nil, min_threads: 1, max_threads: 2)
    @port = @puma.add_tcp_listener("127.0.0.1", 0).addr[1]
    @puma.run
    @ears = []
  end

  after do
    @ears.each(&:close)
    @puma.stop(true)
    ServerBench.alone
  end

  define_method(:ear) do |user_id = ServerBench.viewer.user_id, **how|
    ear_class.new(@port, ServerBench.cookie(user_id), **how).tap { |one| @ears << one }
  end

  def soon(seconds = 15)
    Timeout.timeout(seconds) { sleep(0.01) until yield }
    true
  rescue Timeout::Error
    false
  end

  def viewer(**fields) = ServerBench.viewer.with(client: "a page of theirs", **fields)
  def events = Gorvant::Server::Events.new(db)
  def tell(kind = "visit", **payload) = events.add(viewer, kind, visit_id, payload.transform_keys(&:to_s))

  def keep_reading
    body = { id: uuid, from_node: "outdoor.C", to_node: "outdoor.Y", function: "volts_ac", value: 24.1 }
    body.update(instrument: "high_impedance", condition: { call: "heat" }, taken_at: "2026-11-26T10:00:00Z")
    send_json(:post, "/api/visits/#{visit_id}/readings", body)
    body[:id]
  end

  it "tells a reading, a desk and a visit to everybody of the crew at once, and another crew nothing" do
    crew = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
    mine, mate = [ServerBench.viewer.user_id, ServerBench.person("Olm Brandt", "technician")].map { |id| ear(id) }
    stranger = ear(ServerBench.person("Ilse Marrow", "owner", crew: crew))
    id = keep_reading
    keep_desk("/api/visits/#{visit_id}", "defrost", {})
    fetch("/api/visits/#{visit_id}")
    send_json(:patch, "/api/visits/#{visit_id}", version: answer["version"], complaint: "Hums")
    [mine, mate].each do |one|
      expect(soon { one.events.size == 3 }).to be(true)
      expect(one.events.map { |event| event["event"] }).to eq(%w[reading desk visit])
      expect(one.events.first["data"]).to include("visit_id" => visit_id, "id" => id, "by" => "Local owner")
    end
    expect(stranger.events).to eq([])
  end

  it "tells nothing of what was not kept" do
    one = ear
    id = keep_reading
    send_json(:post, "/api/visits/#{visit_id}/readings/#{id}/retraction", {})
    2.times { send_json(:post, "/api/visits/#{visit_id}/readings/#{id}/retraction", {}) } # was taken back before
    send_json(:patch, "/api/visits/#{visit_id}", version: 99, complaint: "an old version")
    db.transaction(rollback: :always) { tell }
    tell("photo")
    expect(soon { one.events.size == 3 }).to be(true)
    expect(one.events.map { |event| event["event"] }).to eq(%w[reading reading photo])
  end

  it "gives who comes back what they missed, once and in order, or the word to load anew" do
    first = tell(n: 1)[:id]
    rest = (2..5).map { |n| tell(n: n)[:id] }
    one = ear(last: first)
    expect(soon { one.events.size == 4 }).to be(true)
    expect(one.events.map { |event| event["id"].to_i }).to eq(rest)
    tell(n: 6)
    expect(soon { one.events.size == 5 }).to be(true)
    db[:events].where(id: first).delete
    gone = ear(last: first)
    expect(soon { gone.events.any? }).to be(true)
    expect(gone.events.map { |event| event["event"] }).to eq(["reload"])
    fresh = ear
    tell(n: 7)
    expect(soon { fresh.events.any? }).to be(true)
    expect(fresh.events.map { |event| event["data"]["n"] }).to eq([7])
  end

  it "keeps the order and loses none when many write at once" do
    ears = Array.new(3) { ear }
    Array.new(6) { |writer| Thread.new { 10.times { |n| tell(writer: writer, n: n) } } }.each(&:join)
    ears.each do |one|
      expect(soon(20) { one.events.size == 60 }).to be(true), "heard #{one.events.size}"
      ids = one.events.map { |event| event["id"].to_i }
      expect(ids).to eq(ids.uniq.sort)
      by_writer = one.events.group_by { |event| event["data"]["writer"] }
      expect(by_writer.values.map { |list| list.map { |event| event["data"]["n"] } }.uniq).to eq([(0..9).to_a])
    end
  end

  it "holds no thread: with two of them, six streams leave a plain request its answer" do
    6.times { ear }
    began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    plain = TCPSocket.new("127.0.0.1", @port)
    plain.write(
      "GET /api/viewer HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: #{ServerBench.cookie}\r\nConnection: close\r\n\r\n"
    )
    expect(plain.read).to include("Local owner")
    expect(Process.clock_gettime(Process::CLOCK_MONOTONIC) - began).to be < 5 # a thread that is held is held for good
  end

  it "is cut at sign-out, for that session's person alone, and not given without one" do
    mate = ServerBench.person("Olm Brandt", "technician")
    mine = ear
    theirs = ear(mate)
    as(mate)
    send_json(:post, "/api/session/end", {})
    expect(soon { theirs.closed? }).to be(true)
    tell
    expect(soon { mine.events.size == 1 }).to be(true)
    as(nil)
    fetch("/api/stream")
    expect(last_response.status).to eq(401)
  end

  it "does not wait for one that reads nothing: it is cut, and the others hear" do
    stub_const("Gorvant::Server::Stream::MOST_WAITING_BYTES", 200_000)
    deaf = ear(reads: false)
    one = ear
    db.transaction { 160.times { |n| tell(n: n, text: "x" * 50_000) } }
    expect(soon(20) { one.events.size == 160 }).to be(true), "heard #{one.events.size}"
    deaf
      .instance_variable_get(:@socket)
      .then do |socket|
        read = +""
        loop { read << socket.readpartial(1 << 20) }
      rescue EOFError, SystemCallError
        expect(read.scan(/^event: visit/).size).to be < 160
      end
  end

  it "loses nothing of what is told while it begins to listen" do
    # Another process that listens already: the database tells a newcomer nothing of what that one has heard.
    ahead = Gorvant::Server::Database.connect
    listening = Queue.new
    ways = { after_listen: ->(_) { listening << true }, loop: true, timeout: 0.2 }
    hears = Thread.new { ahead.listen("gorvant", **ways) { nil } }
    listening.pop
    connected = Queue.new
    go_on = Queue.new
    allow(Gorvant::Server::Database).to receive(:connect).and_wrap_original do |connect, **how|
      own = connect.call(**how)
      listen = own.method(:listen)
      own.define_singleton_method(:listen) do |*given, **more, &block|
        connected << true
        go_on.pop
        listen.call(*given, **more, &block)
      end
      own
    end
    one = ear
    connected.pop # and not listening yet
    tell(n: 1)
    go_on << true
    expect(soon { one.events.size == 1 }).to be(true)
  ensure
    hears&.kill
    Gorvant::Server::Database.forget(ahead) if ahead
  end

  it "goes on when the database is back" do
    one = ear
    tell(n: 1)
    expect(soon { one.events.size == 1 }).to be(true)
    listening = db[:pg_stat_activity].where(Sequel.like(:query, "LISTEN%")).select_map(:pid)
    listening.each { |pid| db.get(Sequel.function(:pg_terminate_backend, pid)) }
    tell(n: 2)
    expect(soon(20) { one.events.size == 2 }).to be(true)
    expect(one.events.map { |event| event["data"]["n"] }).to eq([1, 2])
  end

  describe "of a device" do
    let(:made) do
      Gorvant::Server::Devices.new(ServerBench.door).make(
        uuid,
        ServerBench.viewer,
        name: "Reed meter",
        scope: "readings"
      )
    end

    def send_sample(token, **fields)
      body = {
        id: uuid,
        function: "volts_ac",
        value: 24.3,
        unit: "V",
        stable: true,
        device_time: "2026-11-29T08:00:00Z"
      }
      clear_cookies
      post(
        "/api/devices/readings",
        JSON.generate(body.merge(fields)),
        "CONTENT_TYPE" => "application/json",
        "HTTP_HOST" => "127.0.0.1",
        "HTTP_AUTHORIZATION" => "Bearer #{token}"
      )
      last_response.status
    end

    it "tells what it read, once though it was sent twice, and gives the device nothing to read" do
      one = ear
      id = uuid
      expect(Array.new(2) { send_sample(made.last, id: id) }).to eq([201, 200])
      expect(answer).to eq("taken" => id)
      # What comes after another one has been heard would have come before it.
      expect(send_sample(made.last)).to eq(201)
      expect(soon { one.events.size > 1 }).to be(true)
      expect(one.events.map { |event| event["data"].slice("value", "device", "stable") }).to eq(
        [{ "value" => 24.3, "device" => "Reed meter", "stable" => true }] * 2
      )
    end

    it "is refused another function's unit, a value that no instrument shows, another kind of thing, and a lost token" do
      expect(send_sample(made.last, unit: "Ω")).to eq(422)
      expect(answer["errors"]).to eq([{ "field" => "/unit", "problem" => "has to be V for volts_ac" }])
      expect(send_sample(made.last, function: "volts_dc")).to eq(201) # told as what it is
      expect(send_sample(made.last, function: "seen")).to eq(422)
      expect(send_sample(made.last, value: 1e12)).to eq(422)
      logger = Gorvant::Server::Devices.new(ServerBench.door)
      _row, token = logger.make(uuid, ServerBench.viewer, name: "Loft logger", scope: "log_rows")
      expect(send_sample(token)).to eq(403)
      Gorvant::Server::Devices.new(ServerBench.door).revoke(ServerBench.viewer.crew_id, made.first[:id])
      expect(send_sample(made.last)).to eq(401)
    end
  end
end
