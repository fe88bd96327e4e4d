# frozen_string_literal: true

require "fileutils"
require "socket"

# config/proxy/nginx.conf as it is shipped, run on loopback in front of some hosts, with ports, a folder and a
# certificate of its own.
class SampleProxy
  SAMPLE = File.expand_path("../../config/proxy/nginx.conf", __dir__)
  CERTIFIED = %w[openssl req -x509 -newkey rsa:2048 -nodes -days 1 -subj /CN=localhost].freeze

  attr_reader :port

  # hosts: ports on loopback.
  def initialize(folder, hosts)
    @folder = folder
    @hosts = hosts
    @port, @plain_port = Array.new(2) { TCPServer.new("127.0.0.1", 0) }.map { |one| one.addr[1].tap { one.close } }
  end

  def start
    FileUtils.mkdir_p(@folder)
    made = system(*CERTIFIED, "-keyout", inside("privkey.pem"), "-out", inside("fullchain.pem"), err: File::NULL)
    raise IOError.new("no certificate could be made") unless made

    File.write(inside("nginx.conf"), whole)
    @pid = Process.spawn("/usr/sbin/nginx", "-c", inside("nginx.conf"), %i[out err] => File::NULL)
  end

  def up?
    TCPSocket.new("127.0.0.1", @port).close
    true
  rescue SystemCallError
    false
  end

  def stop
    Process.kill("TERM", @pid) && Process.wait(@pid) if @pid
  end

  private

  def inside(name) = File.join(@folder, name)

  def site
    servers = @hosts.map { |port| "server 127.0.0.1:#{port} max_fails=2 fail_timeout=5s;" }.join("\n    ")
    {
      /server 127\.0\.0\.1:9400 [^;]*;/ => servers,
      "listen 80;" => "listen 127.0.0.1:#{@plain_port};",
      "listen 443 " => "listen 127.0.0.1:#{@port} ",
      "/etc/ssl/gorvant/fullchain.pem" => "\"#{inside("fullchain.pem")}\"",
      "/etc/ssl/gorvant/privkey.pem" => "\"#{inside("privkey.pem")}\""
    }.inject(File.read(SAMPLE)) do |text, (shipped, own)|
      text.sub(shipped, own).tap { |now| raise IOError.new("the sample has no #{shipped}") if now == text }
    end
  end

  # A site is a part of what nginx reads.
  def whole = <<~CONF
    daemon off; pid "#{inside("pid")}"; error_log "#{inside("error.log")}";
    events {}
    http {
      access_log off;
      client_body_temp_path "#{inside("body")}"; proxy_temp_path "#{inside("passed")}";
      fastcgi_temp_path "#{inside("f")}"; uwsgi_temp_path "#{inside("u")}"; scgi_temp_path "#{inside("s")}";
      #{site}
    }
  CONF
end
