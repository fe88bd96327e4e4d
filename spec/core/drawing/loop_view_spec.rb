# frozen_string_literal: true

RSpec.describe Gorvant::LoopView do
  it "shows each station in the state that the solution gives it" do
    heat = trace("heat", switches: { "DTS" => "open" })
    stations = described_class.scene(heat).stations.to_h { |station| [station.id, station] }
    expect(stations["outdoor.Y"].state).to eq("live")
    expect(stations["DTS"]).to have_attributes(state: "live", far_state: "dead", closed: false, broken: true)
    expect(stations["outdoor.C"].state).to eq("home")
    expect(stations["THERMOSTAT.W2"]).to have_attributes(closed: false, broken: false)
    expect(stations["CC"].working).to be(false)
  end

  it "breaks a drawn conductor where it is broken, each half in its own state" do
    scene = described_class.scene(trace("heat", faults: [{ "kind" => "open", "at" => "cable_b.yellow" }]))
    broken = scene.links.select(&:gap)
    expect(broken.map { |link| [link.gap[:label], link.parts.map { |part| part[:state] }] }).to eq(
      [["YE", %w[live dead]]]
    )
  end

  it "hops over what it crosses" do
    scene = described_class.scene(trace("heat"))
    sequencer = scene.links.find { |link| link.nodes.include?("air_handler.SEQ.1") }
    expect(sequencer.parts.first[:d].scan("A6 6").size).to eq(2) # over O and Y
  end

  it "strings a loop from the transformer through the load and home again" do
    string = Gorvant::LoopString.all(trace("heat")).find { |one| one.load == "CC" }
    ids = string.beads.map(&:id)
    expect(ids.first).to eq("air_handler.TRAN.R")
    expect(ids.last).to eq("air_handler.TRAN.C")
    expect(ids & %w[FU THERMOSTAT.Y wall.Y cable_b.yellow LPS DTS HPS CC outdoor.C cable_b.blue]).to eq(
      %w[FU THERMOSTAT.Y wall.Y cable_b.yellow LPS DTS HPS CC outdoor.C cable_b.blue]
    )
  end
end
