# frozen_string_literal: true

require "zlib"

# GORVANT_PROCESSES=2: browser specs are served by two processes on one database, each connection of the browser by the
# other one than the last: what a process keeps for itself shows. GORVANT_TENTH=SEED: every tenth example, which ones by
# the seed. Examples that reach into the process that serves (one_process) are left out.
module TwoProcesses
  class << self
    def wanted? = ENV["GORVANT_PROCESSES"] == "2"
    def tenth = ENV.fetch("GORVANT_TENTH", nil)

    # Serves at a port as Capybara's own server does, with a second process beside it. Once: the next browser asks who
    # is there, and only one of the two says that it is Capybara's.
    def serve(app, port, host)
      return Thread.stop if @port == port

      @port = port
      ports = [free_port(host), free_port(host)]
      server = Puma::Server.new(app, nil, min_threads: 0, max_threads: 4)
      server.add_tcp_listener(host, ports[0])
      server.run
      second(host, ports[1])
      listener = TCPServer.new(host, port)
      ports.cycle { |to| carry(listener.accept, TCPSocket.new(host, to)) }
    end

    private

    def free_port(host) = TCPServer.open(host, 0) { |socket| socket.addr[1] }

    def second(host, port)
      surroundings = {
        "GORVANT_SECRET" => ServerBench::SECRET,
        "GORVANT_LOCAL_KEY" => ServerBench::KEY,
        "GORVANT_LOG" => File::NULL
      }
      puma = %W[bundle exec puma -q -C - -t 0:4 -b tcp://#{host}:#{port} config.ru]
      pid = Process.spawn(surroundings, *puma, chdir: Gorvant::Server::ROOT, out: File::NULL)
      at_exit do
        Process.kill(:TERM, pid)
        Process.wait(pid)
      end
      answers(host, port)
    end

    def answers(host, port)
      Timeout.timeout(60) do
        TCPSocket.new(host, port).close
      rescue Errno::ECONNREFUSED
        Thread.pass
        retry
      end
    end

    def carry(from, to)
      [[from, to], [to, from]].each do |one, other|
        Thread.new do
          IO.copy_stream(one, other)
        rescue IOError, SystemCallError
          nil # whoever went
        ensure
          [from, to].each { |end_of| end_of.close unless end_of.closed? }
        end
      end
    end
  end
end

if TwoProcesses.wanted?
  require "puma"
  Capybara.register_server(:two) { |app, port, host| TwoProcesses.serve(app, port, host) }
  Capybara.server = :two
end

RSpec.configure do |config|
  config.filter_run_excluding(:one_process) if TwoProcesses.wanted?
  if TwoProcesses.tenth
    config.define_derived_metadata(:browser) do |meta|
      meta[:tenth] = (Zlib.crc32("#{TwoProcesses.tenth} #{meta[:location]}") % 10).zero?
    end
    config.filter_run(tenth: true)
  end
end
