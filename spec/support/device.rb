# frozen_string_literal: true

require "json"
require "open3"
require "rbconfig"

# The engine that devices take along, run by a Ruby without gems: what it lacks here it would lack there.
class DeviceBench
  ROOT = File.expand_path("../..", __dir__)
  SERVES = <<~RUBY.freeze
    require "#{ROOT}/core/lib/gorvant"
    require "#{ROOT}/server/answers/device/device.rb"
    device = Gorvant::Server::Device.new
    $stdout.sync = true
    while (line = $stdin.gets)
      how, text = JSON.parse(line)
      $stdout.puts(JSON.generate([device.public_send(how, text)].map { |said| how == "answer" ? said : nil }))
    end
  RUBY

  # One for a run of specs.
  def self.up = @up ||= new.tap { |device| at_exit { device.close } }

  # How a visit begins to be asked: what its pages ask as they open, and the circuit in each call.
  def self.questions(calls, test)
    [
      ["GET", "", nil],
      ["GET", "readings", nil],
      ["GET", "faults", nil],
      ["GET", "close-out", nil],
      ["POST", "report", {}],
      ["POST", "wiring", {}],
      ["POST", "settings", {}],
      ["POST", "defrost/outlook", { "call" => "heat", "outdoor_degrees_f" => 30, "as_found" => true }],
      ["POST", "defrost/forced_test", { "test" => test }],
      ["POST", "saying", { "text" => "24 volts at Y", "call" => "heat" }],
      ["POST", "timeline", run.merge("width" => 900)],
      ["POST", "why", run.merge("signal" => "CC", "at_seconds" => 600)],
      *calls.flat_map { |call| in_call({ "call" => call, "switches" => {} }) }
    ]
  end

  def self.run =
    { "script" => { "start" => { "call" => "heat", "outdoor_degrees_f" => 30 } }, "duration_seconds" => 3600 }

  def self.in_call(condition)
    points = { "from_node" => "outdoor.C", "to_node" => "outdoor.Y", "instrument" => "high_impedance" }
    [
      ["POST", "trace", { "condition" => condition, "drawing" => { "view" => "loops", "opened" => [] } }],
      ["POST", "expected", { "condition" => condition, "instrument" => "low_impedance" }],
      ["POST", "measurement", points.merge("condition" => condition)],
      ["POST", "measurement", points.merge("condition" => condition, "function" => "ohms", "isolated" => true)],
      ["POST", "drawing", { "condition" => condition, "view" => "ladder", "at_rest" => false, "panel" => false }],
      ["POST", "drawing", { "condition" => condition, "view" => "focus", "load" => "CC" }],
      ["POST", "legend", { "condition" => condition }],
      ["POST", "way", { "condition" => condition, "to_node" => "outdoor.Y" }]
    ]
  end

  def initialize
    clean = %w[RUBYOPT RUBYLIB BUNDLE_GEMFILE BUNDLER_SETUP].to_h { |name| [name, nil] }
    @in, @out, @process = Open3.popen2(clean, RbConfig.ruby, "--disable-gems", "-e", SERVES)
  end

  # As the server says them.
  def hold(visit, readings, along, photos = []) =
    say("hold", visit: visit, readings: readings, photos: photos, along: along)

  # The answer parsed, nil where the device has none.
  def ask(method, under, body, units: "")
    said = say("answer", method: method, under: under, body: body, units: units)
    said && JSON.parse(said)
  end

  def close
    @in.close
    @process.value
  end

  private

  def say(how, **what)
    @in.puts(JSON.generate([how, JSON.generate(what)]))
    @in.flush
    JSON.parse(@out.gets || raise("the device broke")).first
  end
end
