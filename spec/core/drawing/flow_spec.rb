# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/random_rigs"

# Arrows never lie: each stands on a way that carries current, and points away from where it comes.
RSpec.describe Gorvant::Flow do
  def scene(trace, view = "loops", **options) =
    Gorvant::Views.scene(view, trace, view == "loops" ? { opened: ["all"] } : options)
  def links(scene, node) = scene.links.select { |link| link.nodes.include?(node) }
  def arrows(scene, *nodes) = nodes.sum { |node| links(scene, node).sum { |link| link.chevrons.size } }

  # Whether any branch at one of a link's nodes carries current.
  def carries?(trace, link)
    branches =
      link.branches.any? ? link.branches.map { |id| trace.netlist[id] } : trace.netlist.branches_at(link.nodes.first)
    branches.any? do |branch|
      trace.solution.conducts?(branch) && trace.solution.amps(branch) >= described_class::LEAST_AMPS
    end
  end

  it "leaves a stub behind an open contact bare, and draws the way that feeds" do
    off, heat = %w[off heat].map { |call| trace(call) }
    expect(links(scene(heat), "outdoor.Y").sum { |link| link.chevrons.size }).to be_positive
    expect(arrows(scene(off), "outdoor.Y", "wall.Y", "wall.G", "outdoor.O", "outdoor.W2_out")).to eq(0)
    # Live, and nothing flows: the field O of a unit whose thermostat holds O with the solenoid's wire off.
    lifted = trace("cool", faults: [{ "kind" => "open", "at" => "RVS" }])
    expect(lifted.state("outdoor.O")).to eq("live")
    expect(arrows(scene(lifted), "outdoor.O", "air_handler.O")).to eq(0)
  end

  it "shows in a defrost that the board feeds W2 out and the valve" do
    defrost = scene(trace("defrost"))
    w2 = links(defrost, "outdoor.W2_out").flat_map(&:chevrons)
    expect([w2.size, arrows(defrost, "outdoor.O", "outdoor.board.RVS")]).to all(be_positive)
  end

  it "points a conductor that the board feeds from outdoors to indoors" do
    link = scene(trace("defrost")).links.find { |one| one.nodes.sort == %w[air_handler.W outdoor.W2_out] }
    upwards = link.chevrons.map { |chevron| chevron[:angle] % 360 }
    expect(upwards).to all(eq(270))
  end

  (1..25).each do |seed|
    it "never puts an arrow on a way that carries nothing, in random case #{seed}" do
      rig, condition = RandomRigs.case(seed)
      one = Gorvant::Trace.new(rig, condition)
      lies =
        %w[loops ladder connections].flat_map do |view|
          scene(one, view)
            .links
            .select { |link| link.chevrons.any? && !carries?(one, link) }
            .map { |link| [view, link.id] }
        end
      expect(lies).to eq([])
    end
  end
end
