# frozen_string_literal: true

# Each view of the two rigs, from a solved trace. Budget: 100 ms.
require_relative "rigs"

BenchRigs::ALL.each do |name, rig|
  trace = Gorvant::Trace.new(rig, Gorvant::Condition.parse("call" => "heat"))
  Gorvant::Views::ALL.each_key do |view|
    seconds = BenchRigs.seconds(7) { Gorvant::Views.scene(view, trace, load: "CC") }
    puts format("drawing %s, %s: %.0f ms (budget 100)", view, name, seconds * 1000)
  end
end
