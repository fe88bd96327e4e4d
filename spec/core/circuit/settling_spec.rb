# frozen_string_literal: true

RSpec.describe Gorvant::Settling do
  let(:coil) { { winding_ohms: 12.0, sealed_va: 7.0, pull_in_volts_ac: 18.0, drop_out_volts_ac: 9.0 } }

  def circuit(source_ohms: 1.0, &block)
    Gorvant::Netlist.build(references: "C") do |net|
      net.source("supply", from: "C", to: "R", volts_ac: 25.0, ohms: source_ohms)
      block.call(net)
    end
  end

  it "lets a relay feed another and settles both" do
    netlist =
      circuit do |net|
        net.coil("first", from: "R", to: "C", **coil)
        net.contact("first.no", from: "R", to: "Y", relay: "first", rest: :open, ohms: 0.05)
        net.coil("second", from: "Y", to: "C", **coil)
      end
    expect(described_class.settle(netlist).working).to eq("first" => true, "second" => true)
  end

  it "reports a relay that feeds itself off as chatter, and names it" do
    netlist =
      circuit do |net|
        net.contact("buzzer.nc", from: "R", to: "Y", relay: "buzzer", rest: :closed, ohms: 0.05)
        net.coil("buzzer", from: "Y", to: "C", **coil)
      end
    solution = described_class.settle(netlist)
    expect(solution.chattering).to eq(["buzzer"])
    expect(Gorvant::Meter.new(solution).read("Y", "C").klass).to eq("unsteady")
    expect(Gorvant::Rule.check_all(solution).map(&:code)).to include("relay_chatter")
  end

  it "holds a coil between drop-out and pull-in only if it was in before" do
    netlist = circuit(source_ohms: 60.0) { |net| net.coil("coil", from: "R", to: "C", **coil) } # 14.4 V at the coil
    expect(described_class.settle(netlist).working["coil"]).to be(false)
    expect(described_class.settle(netlist, start: { "coil" => true }).working["coil"]).to be(true)
  end

  it "opens a fuse on a short before any relay can chatter, and leaves a trace of what it carried" do
    netlist =
      circuit do |net|
        net.fuse("FU", from: "R", to: "fused", rated_amps: 3.0, ohms: 0.03)
        net.wire("short", from: "fused", to: "C", ohms: 0.01)
      end
    solution = described_class.settle(netlist)
    expect(solution.blown).to eq(["FU"])
    expect(solution.before_blowing.amps(netlist["FU"])).to be_within(0.1).of(24.0)
    expect(solution.volts["fused"]).to be_within(1e-6).of(0.0)
  end

  it "tells a fuse that holds from one that opens in minutes" do
    fuse = Gorvant::Branch.new(id: "FU", kind: :fuse, from: "a", to: "b", props: { rated_amps: 3.0, ohms: 0.03 })
    verdicts = [3.3, 4.0, 4.1, 4.9].map { |amps| fuse.behavior.verdict(fuse, amps) }
    expect(verdicts).to eq(%i[holds holds opens_in_minutes opens_at_once])
  end

  it "refuses what cannot be a circuit, by name" do
    expect { circuit { |net| 2.times { net.wire("w", from: "R", to: "Y", ohms: 1.0) } } }.to raise_error(
      Gorvant::DuplicateBranch,
      /'w'/
    )
    expect { circuit { |net| net.wire("w", from: "R", to: "R", ohms: 1.0) } }.to raise_error(Gorvant::BranchToItself)
    expect { circuit { |net| net.wire("w", from: "R", to: "Y", ohms: 0.0) } }.to raise_error(
      Gorvant::BadValue,
      /positive/
    )
    expect {
      Gorvant::Netlist.build(references: "C") { |net| net.wire("w", from: "R", to: "C", ohms: 1.0) }
    }.to raise_error(Gorvant::NoSource)
    expect {
      circuit { |net| net.wire("w", from: "R", to: "outdoor.Y", ohms: 1.0) }.fetch_node("outdoor.YY")
    }.to raise_error(Gorvant::UnknownNode, /outdoor.Y'/)
  end
end
