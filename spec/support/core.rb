# frozen_string_literal: true

# What every spec needs; the core alone.
require "bundler/setup"
require "timeout"
require_relative "../../core/lib/gorvant"

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.expect_with(:rspec) { |expectations| expectations.include_chain_clauses_in_custom_matcher_descriptions = true }
  config.mock_with(:rspec) { |mocks| mocks.verify_partial_doubles = true }

  # One that waits for what never comes fails, and does not hold up all that come after it. The longest takes a third of
  # this where others use the machine too.
  config.around { |example| Timeout.timeout(600) { example.run } }
end

# Rigs and traces for specs, made by the builders of production.
module Bench
  # A thermostat with O and B apart, three safeties: what many examples below are told on.
  APART = { changeover_terminal: "separate", safeties: %w[LPS DTS HPS] }.freeze
  DEMO = File.expand_path("../../db/demo/rigs", __dir__)

  def rig_file(name = "boathouse_north") = JSON.parse(File.read(File.join(DEMO, "#{name}.json")))
  def rig(name = "boathouse_north") = Gorvant::Formats::RigJson.read(rig_file(name))

  # A trace of a demo rig: trace("heat", switches: { "DTS" => "open" }, faults: [...]).
  def trace(call, on: rig, **condition)
    given = condition.transform_keys(&:to_s).merge("call" => call)
    Gorvant::Trace.new(on, Gorvant::Condition.parse(given))
  end

  def volts(trace, first, second, instrument = "high_impedance") =
    trace.reading(first, second, instrument).first.volts_ac
  def running(trace) = trace.loads.select(&:on).map(&:code)
end

RSpec.configure { |config| config.include(Bench) }
