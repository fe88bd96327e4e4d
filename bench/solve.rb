# frozen_string_literal: true

# Steady solves at given contact states: stamp, factor, substitute, every node kept. Budget: 0.9 million node-solves/s on one core.
require "bundler/setup"
require_relative "../core/lib/gorvant"

rig = Gorvant::Formats::RigJson.parse(File.read(File.join(__dir__, "../db/demo/rigs/boathouse_north.json")))
trace = Gorvant::Trace.new(rig, Gorvant::Condition.parse("call" => "heat"))
section = trace.netlist.sections.find { |part| part.reference == Gorvant::Assembly::HOME }
closed = trace.solution.closed
volts = trace.solution.volts

clock = -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) }
rates = Array.new(7) do
  count = 3_000
  start = clock.call
  count.times { section.factor_and_solve(closed, nil, volts) }
  count / (clock.call - start)
end.sort
rate = rates[rates.size / 2]
puts format("steady solve: %d unknowns, %d branches, %.0f solves/s (median of %d), %.2f million node-solves/s (budget 0.90)",
            section.node_count, section.branches.size, rate, rates.size, rate * section.node_count / 1e6)
