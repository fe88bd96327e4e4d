# frozen_string_literal: true

require_relative "../../support/core"

# Whoever puts two probes anywhere is told something, whatever is broken on the line's side.
RSpec.describe Gorvant::Trace do
  broken = %w[outdoor.leg_1 outdoor.leg_2 air_handler.leg_1 air_handler.leg_2].map { |at| ["stuck_open", at] }
  [*broken, %w[open CAP.herm], %w[stuck_open OL], nil].product(%w[heat off])
    .each do |(kind, at), call|
      it "says what two points anywhere read in #{call} with #{at || "nothing"} #{kind}" do
        faults = kind ? [{ "kind" => kind, "at" => at }] : []
        shown = trace(call, on: rig("hostel_bunks"), faults: faults)
        nodes = shown.netlist.sections.flat_map(&:nodes)
        random = Random.new(at.to_s.sum)
        line = nodes.reject { |node| shown.low_voltage?(node) }
        pairs = Array.new(500) { nodes.sample(2, random: random) } + line.product(%w[air_handler.C outdoor.B])
        pairs.each do |first, second|
          next unless shown.netlist.node?(second)

          expected, why = shown.reading(first, second)
          expect(why.says).to match(/\A(?!.*(%<|NaN|nil)).+\.\z/m), "#{first} #{second}: #{why.says}"
          judged = Gorvant::Agreement.judge(expected, 120.0)
          expect(judged.verdict).to eq("undetermined"), "#{first} #{second}" if expected.low_volts_ac.nil?
        end
      end
    end

  it "tells nothing where nobody has read the contactor and one way of it tells nothing" do
    read = ->(poles) do
      unit = rig("hostel_bunks").set({ contactor_poles: poles }, "measured")
      trace("off", on: unit, faults: [{ "kind" => "stuck_open", "at" => "outdoor.leg_2" }]).reading(
        "outdoor.CAP.C",
        "air_handler.C"
      )
    end
    one, two, unread = [1, 2, "unread"].map { |poles| read.call(poles).first.low_volts_ac }
    expect([one, two].include?(nil)).to be(unread.nil?)
  end
end
