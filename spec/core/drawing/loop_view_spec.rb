# frozen_string_literal: true

require_relative "../../support/random_rigs"

RSpec.describe Gorvant::LoopView do
  # The area that a finger may hit, and no other station's.
  def hit(station)
    width, height = [station.width, 44].max, [station.height, 44].max
    [station.x - (width / 2.0), station.y - (height / 2.0), station.x + (width / 2.0), station.y + (height / 2.0)]
  end

  def overlap?(one, two) = one[0] < two[2] && two[0] < one[2] && one[1] < two[3] && two[1] < one[3]

  # What is drawn does not depend on the call, but for what is open in it.
  rigs = %w[boathouse_north hostel_bunks bakery_shop clinic_waiting].to_h { |name| [name, -> { rig(name) }] }
  rigs.merge!((1..30).to_h { |seed| ["random rig #{seed}", -> { RandomRigs.rig(seed) }] })
  rigs.each do |name, fitted|
    it "draws #{name} with every station's target apart and inside the sheet, in its heating and off" do
      %w[heat off].each do |call|
        scene = described_class.scene(trace(call, on: instance_exec(&fitted)))
        areas = scene.stations.map { |station| [station.id, hit(station)] }
        areas.combination(2) { |(one, first), (two, second)| expect(overlap?(first, second)).to be(false), "#{one} and #{two} overlap" }
        expect(areas.map(&:last)).to all(satisfy { |x, y, right, foot| x >= 0 && y >= 0 && right <= scene.width && foot <= scene.height })
      end
    end
  end

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
    expect(broken.map { |link| [link.gap[:label], link.parts.map { |part| part[:state] }] }).to eq([["yellow", %w[live dead]]])
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
    expect(ids & %w[FU THERMOSTAT.Y wall.Y cable_b.yellow LPS DTS HPS CC outdoor.C cable_b.blue]).to eq(%w[FU THERMOSTAT.Y wall.Y cable_b.yellow LPS DTS HPS CC outdoor.C cable_b.blue])
  end
end
