# frozen_string_literal: true

# Steady solves at given contact states: stamp, factor, substitute, every node kept. Budget: 0.9 million node-solves/s
# on one core, and 6 times what ngspice does in one process with the same low-voltage circuit.
require_relative "rigs"
require "open3"
require "tempfile"

COUNT = 2_000

# Seconds of one operating point in ngspice: a run of many, less a run of few, in one process each.
def ngspice_seconds(netlist, solution)
  deck = Gorvant::Formats::Spice.dump(netlist, closed: solution.closed)
  run =
    lambda do |times|
      text =
        deck
          .sub(/^\.ac.*?^\.endc/m, ".control\nrepeat #{times}\nop\ndestroy all\nend\nquit\n.endc")
          .gsub(" DC 0 AC ", " DC ")
          .gsub(/^C\d+ .*\n/, "")
      Tempfile.create(%w[bench .cir]) do |file|
        file.write(text)
        file.flush
        BenchRigs.seconds(3) { Open3.capture2e("ngspice", "-b", file.path) }
      end
    end
  (run.call(1_100) - run.call(100)) / 1_000
end

BenchRigs::ALL.each do |name, rig|
  trace = Gorvant::Trace.new(rig, Gorvant::Condition.parse("call" => "heat"))
  section = trace.netlist.sections.find(&:follower?)
  closed = trace.solution.closed
  volts = trace.solution.volts
  seconds = BenchRigs.seconds(7) { COUNT.times { section.factor_and_solve(closed, nil, volts) } } / COUNT
  puts format(
         "steady solve, %s: %d unknowns, %.0f solves/s, %.2f million node-solves/s (budget 0.90)",
         name,
         section.node_count,
         1 / seconds,
         section.node_count / seconds / 1e6
       )
  next unless system("command -v ngspice > /dev/null")

  # ngspice solves line voltage too; the comparison is per unknown.
  theirs = ngspice_seconds(trace.netlist, trace.solution) / trace.netlist.nodes.size
  puts format(
         "  ngspice op beside it: %.2f million node-solves/s; ratio %.1f (budget 6)",
         1e-6 / theirs,
         theirs / (seconds / section.node_count)
       )
end
