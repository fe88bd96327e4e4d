# frozen_string_literal: true

# A day of heating with its defrosts, every event with its cause. Budget: 250 ms, the frost model along.
require_relative "rigs"

BenchRigs::ALL.each do |name, rig|
  moves = [{ "at_seconds" => 5, "what" => "call", "value" => "heat" }]
  script = Gorvant::Script.parse({ "start" => { "outdoor_degrees_f" => 30 }, "moves" => moves }, 24 * 3600)
  events = 0
  seconds = BenchRigs.seconds(5) { events = Gorvant::Run.of(rig, script).events.size }
  puts format("timeline of 24 h, %s: %d events, %.0f ms (budget 250)", name, events, seconds * 1000)
end
