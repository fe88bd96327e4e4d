# frozen_string_literal: true

# Looks after what bin/start has started: server, worker and the private PostgreSQL. What dies is started again, and
# said so; one data folder is served once; what an earlier start left running is ended, by what that one wrote down,
# never by name. Asked by bin/start with: GORVANT_HOME (data folder), DATABASE_URL, PG_DIR and PG_USE (folder and lock
# of the private PostgreSQL, empty for a database from elsewhere), PORT (empty for the first free one).
require "fileutils"
require "json"
require "net/http"
require "securerandom"
require "socket"

# A process by its number and the time at which it began: a number alone may belong to another by now.
Known =
  Struct.new(:pid, :began) do
    def self.of(pid) = new(pid, began(pid))

    # Ticks since the machine started, nil where no such process runs; one that is only not yet buried does not run.
    def self.began(pid)
      fields = File.read("/proc/#{Integer(pid)}/stat", encoding: "BINARY").split(") ").last.split
      %w[Z X].include?(fields[0]) ? nil : fields[19].to_i
    rescue SystemCallError, ArgumentError, TypeError
      nil
    end

    def alive? = !began.nil? && self.class.began(pid) == began

    # Ends it and what it started, gently first.
    def stop(seconds = 10)
      return unless alive?

      signal("TERM")
      until !alive? || (seconds -= 0.05).negative?
        sleep(0.05)
      end
      signal("KILL") if alive?
    end

    private

    # Each child leads a group of its own.
    def signal(name)
      Process.kill(name, -pid)
    rescue Errno::ESRCH
      nil
    end
  end

# The one process that stays in front.
class Keeper
  ROOT = File.expand_path("../..", __dir__)
  PORTS = (9400..9499)
  READY_SECONDS = 60
  LOOK_EVERY_SECONDS = 0.3
  MOST_WAIT_SECONDS = 30
  # Compiled while it runs, where this Ruby can: a third less for an answer that is worked out.
  FASTER = {
    "RUBYOPT" => [ENV.fetch("RUBYOPT", nil), ("--yjit" if defined?(RubyVM::YJIT))].compact.join(" "),
    "MALLOC_ARENA_MAX" => "2"
  }.freeze
  Child = Struct.new(:known, :started_at, :falls, :again_at)

  def initialize(home)
    @home = home
    @bound = ENV.fetch("GORVANT_BIND", "127.0.0.1")
    @note = File.join(home, "serving.json")
    @children = {}
  end

  def run
    lock
    end_leftovers
    @port = port
    @instance = SecureRandom.hex(8)
    @key = SecureRandom.urlsafe_base64(24)
    migrate
    FileUtils.rm_rf(metrics)
    %w[INT TERM HUP].each { |name| trap(name) { @ending = true } }
    start("server")
    wait_until_ready
    start("worker")
    tell_address unless @ending
    look_after until @ending
  ensure
    stop_all if @lock
  end

  # The link lets the person at this machine in, as long as the server is for this machine alone; a restart makes
  # another.
  def tell_address
    puts "\nGorvant is at #{here}/   (Ctrl-C stops it)\n"
    if local?
      puts "Open it by this link, which lets in who has it: #{link}\n"
      open_browser
    end
    puts "\n"
    $stdout.flush
  end

  # Who serves this data folder, and where.
  def tell_where
    first = noted
    where =
      first["port"] ? "at http://127.0.0.1:#{first["port"]}/ (by process #{first["keeper"]})" : "by a start under way"
    say("This data folder is served already, #{where}.")
  end

  private

  def here = "http://#{@bound.include?(":") ? "[#{@bound}]" : @bound}:#{@port}"

  def link = "#{here}/open/#{@key}"

  def local? = JSON.parse(session.body)["local"]

  # Where there is a desktop, its browser shows the page; nothing waits for it.
  def open_browser
    return if ENV["GORVANT_OPEN"] == "no" || ENV.values_at("DISPLAY", "WAYLAND_DISPLAY").all? { |one| one.to_s.empty? }

    Process.detach(Process.spawn("xdg-open", link, %i[out err] => File::NULL))
  rescue SystemCallError
    nil
  end

  # The tables' owner changes them; the processes that serve are not given its address.
  def migrate
    return if system("bundle", "exec", "bin/migrate", chdir: ROOT, close_others: true)

    leave("the database could not be brought up to date; see above")
  end

  # What sessions are made with: this data folder's own, for nobody else to read.
  def secret
    file = File.join(@home, "session_secret")
    File.write(file, SecureRandom.hex(64), perm: 0o600, mode: File::WRONLY | File::CREAT | File::EXCL)
    File.read(file)
  rescue Errno::EEXIST
    File.read(file)
  end

  # Where server and worker count together, from this start on.
  def metrics = File.join(@home, "metrics")

  def say(words) = warn(words)

  def leave(words)
    say("error: #{words}")
    exit(1)
  end

  # Held as long as this process lives, and by nobody else: the children do not inherit it.
  def lock
    file = File.new(File.join(@home, "serving.lock"), File::RDWR | File::CREAT, 0o600)
    return @lock = file if file.flock(File::LOCK_EX | File::LOCK_NB)

    tell_where
    exit(0)
  end

  def noted
    JSON.parse(File.read(@note))
  rescue SystemCallError, JSON::ParserError
    {}
  end

  def end_leftovers
    noted
      .fetch("children", {})
      .each do |name, (pid, began)|
        left = Known.new(pid, began)
        next unless left.alive?

        say("ending the #{name} that an earlier start left running")
        left.stop
      end
  end

  def write_down
    children = @children.transform_values { |child| child.known.to_a }
    File.write("#{@note}.new", JSON.generate({ keeper: Process.pid, port: @port, children: children }))
    File.rename("#{@note}.new", @note)
  end

  def free?(port)
    TCPServer.new("127.0.0.1", port).close
    true
  rescue SystemCallError
    false
  end

  def port
    asked = ENV["PORT"].to_s
    if asked.empty?
      return PORTS.find { |one| free?(one) } || leave("no free port from #{PORTS.first} to #{PORTS.last}; set PORT")
    end
    return Integer(asked) if free?(Integer(asked))

    other = ((Integer(asked) + 1)..(Integer(asked) + 100)).find { |one| free?(one) }
    leave("port #{asked} is taken by another program. Port #{other} is free: PORT=#{other} bin/start")
  end

  def start(name)
    before = @children[name]
    ENV.update(
      "PORT" => @port.to_s,
      "APP_ENV" => "production",
      "RACK_ENV" => "production",
      "GORVANT_INSTANCE" => @instance,
      "GORVANT_LOG" => File.join(@home, "log", "#{name}.log"),
      "GORVANT_METRICS_DIR" => metrics,
      "GORVANT_SECRET" => ENV.fetch("GORVANT_SECRET") { secret },
      "GORVANT_LOCAL_KEY" => @key,
      **FASTER
    )
    how = { chdir: ROOT, pgroup: true, close_others: true }
    command = name == "server" ? %w[puma -q -C config/puma.rb] : %w[bin/worker]
    pid = Process.spawn(without_owner, "bundle", "exec", *command, **how)
    @children[name] = Child.new(Known.of(pid), now, before&.falls.to_i, nil)
    write_down
  end

  # Where each process has a login of its own, none has the owner's; and none that of a backup, which reads everything.
  def without_owner
    own = !ENV["GORVANT_WEB_URL"].to_s.empty?
    { "GORVANT_BACKUP_URL" => nil, **(own ? { "DATABASE_URL" => nil } : {}) }
  end

  # Until the server answers that is this one's: another's answer on the port does not count.
  def wait_until_ready
    late = now + READY_SECONDS
    until @ending || ours?
      leave("the server ended; see above") if Process.wait(@children["server"].known.pid, Process::WNOHANG)
      leave("the server did not answer on port #{@port}") if now > late
      sleep(0.1)
    end
  end

  def session
    address = %w[0.0.0.0 ::].include?(@bound) ? "127.0.0.1" : @bound
    Net::HTTP.start(address, @port, open_timeout: 1, read_timeout: 5) do |http|
      http.get("/api/session", { "host" => "127.0.0.1:#{@port}" })
    end
  end

  def ours?
    answer = session
    answer.code == "200" && answer["x-gorvant-instance"] == @instance
  rescue SystemCallError, IOError, Timeout::Error, Net::ProtocolError
    false
  end

  def look_after
    sleep(LOOK_EVERY_SECONDS)
    keep_database
    bury
    @children.each { |name, child| start(name) if child.again_at && now >= child.again_at && !@ending }
  end

  # A child that fell stands up again, ever later while it keeps falling.
  def bury
    while (pid = Process.wait(-1, Process::WNOHANG))
      name, child = @children.find { |_, one| one.known.pid == pid }
      next unless name && !@ending

      child.falls = now - child.started_at > MOST_WAIT_SECONDS ? 1 : child.falls + 1
      wait = [2**(child.falls - 1), MOST_WAIT_SECONDS].min
      say("the #{name} ended; starting it again in #{wait} s")
      child.again_at = now + wait
    end
  rescue Errno::ECHILD
    nil
  end

  def keep_database
    return if ENV["PG_DIR"].to_s.empty? || database_alive?

    say("PostgreSQL ended; starting it again")
    shell("pg_start") || say("PostgreSQL would not start; trying again")
  end

  # A postmaster works in the folder of its data.
  def database_alive?
    pid = File.foreach(File.join(ENV.fetch("PG_DIR"), "data", "postmaster.pid")).first.to_i
    Known.began(pid) && File.readlink("/proc/#{pid}/cwd") == File.realpath(File.join(ENV.fetch("PG_DIR"), "data"))
  rescue Errno::EACCES
    true # another user's, whose folder cannot be read: its number and time have to do
  rescue SystemCallError
    false
  end

  # One of the functions of setup.sh, for the private cluster.
  def shell(function)
    system("bash", "-c", '. "$0/bin/lib/setup.sh"; "$1" "$PG_DIR"', ROOT, function, close_others: true)
  end

  def stop_all
    @children.values_at("worker", "server").compact.each { |child| child.known.stop }
    return if ENV["PG_DIR"].to_s.empty?

    # Nobody else works with it: then it ends too.
    use = File.for_fd(Integer(ENV.fetch("PG_USE")), "a", autoclose: false)
    shell("pg_halt") if use.flock(File::LOCK_EX | File::LOCK_NB)
    FileUtils.rm_f(@note)
  end

  def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
end

Keeper.new(ENV.fetch("GORVANT_HOME")).public_send(ARGV == ["where"] ? :tell_where : :run) if $PROGRAM_NAME == __FILE__
