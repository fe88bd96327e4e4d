# frozen_string_literal: true

require "bundler/setup"
require "date"
require "json"
require "net/http"
require "open3"
require "securerandom"
require "socket"
require "tmpdir"
require_relative "../bin/lib/keeper"

ROOT = File.expand_path("..", __dir__) unless defined?(ROOT)

# PostgreSQL and server of the bench's own.
class Bench
  attr_reader :port, :visits, :rigs, :cookie, :secret

  # Headers of the owner, whose session it is.
  def own = { "cookie" => @cookie, "x-csrf-token" => @token }

  def self.run(visits: 8, readings: 0)
    Dir.mktmpdir("gorvant-bench") do |folder|
      File.chmod(0o755, folder)
      bench = new(folder, visits, readings)
      bench.start
      yield bench
    ensure
      bench&.stop
    end
  end

  def initialize(folder, visits, readings)
    @cluster = File.join(folder, "postgres")
    @visits_wanted = visits
    @readings_wanted = readings
  end

  def start
    url, =
      Open3.capture2(
        "bash",
        "-c",
        ". \"$0/bin/lib/setup.sh\"; pg_start \"$1\" >/dev/null; printf %s \"$DATABASE_URL\"",
        ROOT,
        @cluster
      )
    ENV["DATABASE_URL"] = url
    @port = TCPServer.new("127.0.0.1", 0).then { |server| server.addr[1].tap { server.close } }
    serve
    fill
  end

  def stop
    Process.kill("TERM", @server) && Process.wait(@server) if @server
    system("bash", "-c", ". \"$0/bin/lib/setup.sh\"; pg_halt \"$1\"", ROOT, @cluster)
  end

  # More visits of the units that are there.
  def add_visits(count)
    in_database do |db, viewer|
      units = db[:units].select_map(:id)
      revisions = db[:rig_revisions].select_map(:id)
      rows =
        Array.new(count) do |i|
          {
            id: SecureRandom.uuid,
            crew_id: viewer.crew_id,
            created_by: viewer.user_id,
            unit_id: units[i % units.size],
            rig_revision_id: revisions[i % revisions.size],
            request_digest: "bench",
            visit_on: Date.new(2025, 1, 1) + (i % 600),
            complaint: "Hums #{i}",
            symptoms: Sequel.pg_jsonb([])
          }
        end
      rows.each_slice(1_000) { |some| db[:visits].multi_insert(some) }
      db.run("ANALYZE visits, search_documents, search_words") # as the database does by itself before long
    end
  end

  # So many technicians, each with a session of their own: their headers.
  def add_people(count)
    in_database do |db, viewer|
      door = Gorvant::Server::Database.connect(as: :door)
      people = Array.new(count) { |i| { crew_id: viewer.crew_id, name: "Technician #{i}", role: "technician" } }
      db[:users].multi_insert(people, return: :primary_key).map { |id| session(door, id) }
    end
  end

  # Seconds of the processor that server and PostgreSQL have had so far.
  def processor_seconds
    database = File.foreach(File.join(@cluster, "data", "postmaster.pid")).first.to_i
    [@server, *children(@server), database, *children(database)].sum do |pid|
      File.read("/proc/#{pid}/stat").split(") ").last.split[11, 4].sum(&:to_i) / 100.0
    rescue SystemCallError
      0
    end
  end

  # Kilobytes that the server's processes have in memory; what they share counts once.
  def memory_kb
    [@server, *children(@server)].sum { |pid| File.read("/proc/#{pid}/smaps_rollup")[/^Pss:\s+(\d+)/, 1].to_i }
  end

  # In a process of its own, so that clients forked later share no connection.
  def in_database
    require_relative "../server/boot"
    db = Gorvant::Server::Database.connect
    yield db, Gorvant::Server::Viewer.local_owner(db)
  ensure
    db&.disconnect
    Sequel::DATABASES.clear if defined?(Sequel)
  end

  private

  def children(pid) = File.read("/proc/#{pid}/task/#{pid}/children").split

  # Headers of somebody whom the door has let in.
  def session(door, user_id)
    server, token = Gorvant::Server, SecureRandom.urlsafe_base64(32, padding: false)
    let_in = ->(env) do
      server::SignIn.new(env.fetch(server::Door::RODAUTH), nil).let_in(user_id, "local")
      env.fetch("rack.session")[:csrf] = token
      [200, {}, []]
    end
    app = RodaSessionMiddleware.new(server::Door.onto(door, @secret).new(let_in), server::Door.cookie(@secret, false))
    cookie = Array(app.call(Rack::MockRequest.env_for("/"))[1]["set-cookie"]).first
    { "cookie" => cookie[/\A[^;]+/], "x-csrf-token" => token }
  end

  def serve
    system("bundle", "exec", "bin/migrate", chdir: ROOT, exception: true)
    key = SecureRandom.hex
    environment = { "PORT" => @port.to_s, "APP_ENV" => "production", "RACK_ENV" => "production", **Keeper::FASTER }
    environment["GORVANT_LOCAL_KEY"] = key
    environment["GORVANT_SECRET"] = @secret = SecureRandom.hex(64)
    @server =
      Process.spawn(environment, "bundle", "exec", "puma", "-q", "-C", "config/puma.rb", chdir: ROOT, out: File::NULL)
    100.times { ready? ? break : sleep(0.3) }
    come_in(key)
  end

  def come_in(key)
    Net::HTTP.start("127.0.0.1", @port) do |http|
      hear(http.get("/api/session"))
      hear(http.post("/api/session/local", JSON.generate(key: key), { "content-type" => "application/json", **own }))
    end
  end

  # Keeps what the session's next write has to carry.
  def hear(answer)
    @cookie = answer["set-cookie"].to_s[/gorvant=[^;]+/] || @cookie
    @token = answer["x-csrf-token"] || @token
  end

  def ready?
    Net::HTTP.get_response("127.0.0.1", "/api/session", @port).code == "200"
  rescue SystemCallError
    false
  end

  def fill
    add_visits([@visits_wanted - 8, 0].max)
    in_database do |db, _viewer|
      @visits = db[:visits].select_map(:id)
      @rigs = db[:rigs].select_map(:id)
      like = db[:readings].where(supersedes_id: nil, retracted_at: nil).first
      revisions = db[:visits].select_hash(:id, :rig_revision_id)
      @readings_wanted
        .times
        .each_slice(500) do |some|
          db[:readings].multi_insert(
            some.map do |i|
              visit = @visits[i % @visits.size]
              like.merge(
                id: SecureRandom.uuid,
                visit_id: visit,
                rig_revision_id: revisions[visit],
                request_digest: "bench",
                demo: false
              )
            end
          )
        end
    end
  end
end
