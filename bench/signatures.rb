# frozen_string_literal: true

# The voltages of every fault in every call, settled. Budget: 0.4 ms a fault and call.
require_relative "rigs"

BenchRigs::ALL.each do |name, rig|
  count = 0
  seconds =
    BenchRigs.seconds(3) do
      count = 0
      Gorvant::Faults::Signatures.new(rig).each { count += 1 }
    end
  puts format(
         "signatures, %s: %d fault × call, %.2f s, %.2f ms each (budget 0.40)",
         name,
         count,
         seconds,
         seconds / count * 1000
       )
end
