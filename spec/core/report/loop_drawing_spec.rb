# frozen_string_literal: true

require_relative "../../support/core"

# The drawing that stands in the report of a closed visit, whatever the finding is of.
RSpec.describe Gorvant::LoopDrawing do
  let(:roof) { rig("mossgate_roof") }

  def block(*faults, condition: nil) = described_class.block(roof, faults, condition)

  it "is there for what stops a load, between two legs too, and never for what stops none" do
    netlist = Gorvant::Assembly.netlist(roof)
    faults = Gorvant::Faults::Library.everything(roof, netlist)
    some = faults.group_by { |fault| fault["kind"] }.values.flat_map { |all| all.first(2) }
    more = %w[CAP.herm CAP.fan COMP CC].flat_map { |at| faults.select { |fault| fault["at"] == at } }
    drawn = (some + more).uniq.to_h { |fault| [fault, block(fault)] }
    svgs = drawn.values.compact.map { |one| one.fetch("svg") }
    expect(svgs.reject { |svg| svg.include?("</svg>") && !svg.include?("NaN") }).to eq([])
    at = ->(kind, place) { drawn.fetch({ "kind" => kind, "at" => place }) }
    expect(at.call("open", "CAP.herm").fetch("title")).to match(/compressor, \w+, V to /)
    expect(at.call("open", "CC").fetch("title")).to match(/contactor/i)
    expect(at.call("not_pumping", "COMP")).to be_nil
  end

  it "begins with the call of the reading that failed" do
    heat = Gorvant::Condition.new(call: "heat")
    open = { "kind" => "open", "at" => "CC" }
    calls = [block(open), block(open, condition: heat)].map { |one| one.fetch("title")[/, (\w+)\z/, 1] }
    expect(calls).to match([satisfy { |call| call != "Heat" }, "Heat"])
  end
end
