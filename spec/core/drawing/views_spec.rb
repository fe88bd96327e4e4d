# frozen_string_literal: true

require_relative "../../support/random_rigs"
require_relative "../../support/draughtsman"
require "rexml/document"

RSpec.describe Gorvant::Views do
  archetypes = %w[boathouse_north hostel_bunks bakery_shop clinic_waiting].to_h { |name| [name, -> { rig(name) }] }
  misfits = {
    "yellow and green swapped" => -> { landed("cable_a", "yellow" => "G", "green" => "Y") },
    "red landed on Y outdoors" => -> { landed("cable_b", "red" => "Y") },
    "a spare capped at both ends" => -> { landed("cable_a", "green" => nil) }
  }
  rigs = archetypes.merge((1..30).to_h { |seed| ["random rig #{seed}", -> { RandomRigs.rig(seed) }] }, misfits)

  # The usual rig with conductors of a cable on other terminals at its far end.
  def landed(cable_id, ends)
    usual = Gorvant::Composer.compose(name: "As found", facts: {})
    cables =
      usual.cables.map do |cable|
        next cable unless cable.id == cable_id

        cable.with(
          conductors:
            cable.conductors.map do |one|
              if ends.key?(one.id)
                one.with(to: ends[one.id], from: ends[one.id] ? one.from : nil, spare: ends[one.id].nil? || nil)
              else
                one
              end
            end
        )
      end
    Gorvant::Rig.build(**usual.to_h, cables: cables)
  end

  calls = %w[heat defrost cool off emergency heat_aux]
  rigs.each_with_index do |(name, fitted), i|
    it "draws #{name} as a demanding draughtsman would sign it" do
      one = instance_exec(&fitted)
      shown = trace(calls[i % calls.size], on: one)
      scenes = [
        described_class.scene("loops", shown),
        described_class.scene("loops", shown, opened: ["all"]),
        described_class.scene("ladder", shown, panel: true),
        described_class.scene("connections", shown),
        described_class.scene("focus", shown, load: "CC")
      ]
      expect(
        scenes.flat_map { |scene| Draughtsman.new(scene).complaints.map { |says| "#{scene.view}: #{says}" } }
      ).to eq([])
    end
  end

  everything = {
    "compressor_stages" => 2,
    "backup" => "gas",
    "outdoor_thermostat" => true,
    "safeties" => %w[LPS DTS HPS HPS2],
    "board_family" => "larch"
  }
  let(:everything) { everything }

  it "names every break where its name lies on nothing" do
    one = rig("bakery_shop")
    breaks =
      one.cables.flat_map { |cable| cable.conductors.map { |conductor| "#{cable.id}.#{conductor.id}" } } +
        ["cable_b.blue/attic"]
    breaks.each do |at|
      shown = trace("heat", on: one, faults: [{ "kind" => "open", "at" => at }])
      %w[loops connections].each do |view|
        scene = described_class.scene(view, shown, opened: ["all"])
        expect(scene.labels.select { |label| label.role == "break" }.size).to eq(1), "#{at} in #{view}"
        expect(Draughtsman.new(scene).complaints.grep(/\(break\)/)).to eq([]), "#{at} in #{view}"
      end
    end
  end

  it "fits a two-stage dual-fuel rig with four safeties on the screen in every call, folding what the call leaves out" do
    big =
      Gorvant::Composer.compose(
        name: "Big",
        facts: everything.merge("valve_feed" => "changeover", "changeover_terminal" => "separate")
      )
    scenes = Gorvant::Outputs.calls(big).map { |call| described_class.scene("loops", trace(call, on: big)) }
    expect(scenes.map(&:height)).to all(be <= 656)
    expect(scenes.map(&:width)).to all(be <= 924)
    heat = scenes[Gorvant::Outputs.calls(big).index("heat")]
    expect(heat.folded.map { |one| one[:id] }).to include("stage_2")
    expect(heat.stations.map(&:id)).not_to include("outdoor.Y2")
    opened = described_class.scene("loops", trace("heat", on: big), opened: ["stage_2"])
    expect(opened.stations.map(&:id)).to include("outdoor.Y2", "Y2S")
  end

  it "never folds what is live, broken, supposed otherwise or joined to the rest" do
    one = Gorvant::Composer.compose(name: "Big", facts: everything)
    folded = ->(call, **more) do
      described_class.scene("loops", trace(call, on: one, **more)).folded.map { |item| item[:id] }
    end
    expect(folded.call("heat_2")).not_to include("stage_2")
    expect(folded.call("heat", faults: [{ "kind" => "open", "at" => "cable_b.light_blue" }])).not_to include("stage_2")
    expect(folded.call("heat", switches: { "ODT" => "open" })).not_to include("backup")
  end

  # State of a component or node in each view, from one solution.
  [
    ["heat", {}],
    ["defrost", {}],
    ["heat", { faults: [{ "kind" => "open", "at" => "cable_b.blue" }] }],
    ["cool", { switches: { "LPS" => "open" } }]
  ].each_with_index do |(call, given), i|
    it "says the same of each part in all views: case #{i + 1}" do
      [rig("boathouse_north"), rig("bakery_shop"), RandomRigs.rig(3)].each do |one|
        shown =
          trace(
            call,
            on: one,
            **given.reject do |key, _value|
              key == :faults && one.cables.none? { |cable| cable.conductors.any? { |wire| wire.id == "blue" } }
            end
          )
        said = %w[loops ladder connections].map { |view| states(described_class.scene(view, shown, opened: ["all"])) }
        said.combination(2) do |first, second|
          (first.keys & second.keys).each { |key| expect([key, first[key]]).to eq([key, second[key]]) }
        end
        expect(said[0].keys & said[1].keys & said[2].keys).to include("CC", "outdoor.Y", "BOARD")
      end
    end
  end

  it "says the same in all views, and opens as a picture, whatever the fault and the call" do
    chance = Random.new(7)
    [rig("boathouse_north"), rig("bakery_shop"), RandomRigs.rig(11), RandomRigs.rig(12)].each do |one|
      (Gorvant::Faults::Library.of(one) + Gorvant::Faults::Library.landings_of(one))
        .sample(10, random: chance)
        .each do |fault|
          call = Gorvant::Outputs.calls(one).sample(random: chance)
          scenes =
            %w[loops ladder connections].map do |view|
              described_class.scene(view, trace(call, on: one, faults: [fault]), opened: ["all"])
            end
          scenes
            .map { |scene| states(scene) }
            .combination(2) do |first, second|
              expect(second.slice(*first.keys)).to eq(first.slice(*second.keys)), "#{fault} in #{call}"
            end
          expect(scenes.map { |scene| REXML::Document.new(Gorvant::Formats::Svg.dump(scene)).root.name }).to all(
            eq("svg")
          )
        end
    end
  end

  # { branch or node => [state, closed?, works?] }
  def states(scene)
    scene
      .stations
      .reject(&:struck)
      .to_h do |station|
        id = station.kind == "terminal" ? station.nodes.first : station.id.split("/").last
        [id, [station.state, station.far_state, station.closed, station.working]]
      end
  end

  it "tells every state without color: by its line, its chevrons, its pip, its gap" do
    scene =
      described_class.scene(
        "loops",
        trace("heat", switches: { "DTS" => "open" }, faults: [{ "kind" => "open", "at" => "cable_b.orange" }])
      )
    widths = Gorvant::Link::WIDTHS
    expect(widths.values.uniq.size).to eq(widths.size)
    live =
      scene.links.select do |link|
        link.parts.map { |part| part[:state] } == ["live"] && Gorvant::Geometry.length(link.points) > 40 &&
          link.way == "out"
      end
    flows, stands = live.partition { |link| link.nodes.intersect?(%w[wall.G air_handler.G]) }
    expect([flows.any?, stands.any?]).to eq([true, true])
    expect(flows.flat_map(&:chevrons)).not_to be_empty # the blower's way carries current
    # Live, and nothing flows past the open switch.
    expect(stands.select { |link| link.nodes.include?("outdoor.Y") }).to all(have_attributes(chevrons: be_empty))
    expect(scene.links.select { |link| link.parts.first[:state] == "dead" }).to all(have_attributes(chevrons: be_empty))
    expect(scene.links.filter_map(&:gap).map { |gap| gap[:label] }).to eq(["OG"])
    pips = scene.stations.select { |station| station.strokes.any? { |stroke| stroke[:role] == "pip" } }
    expect(pips.map(&:state).uniq).to eq(["live"])
    expect(scene.labels.select { |label| label.station == "DTS" }.map(&:text)).to eq(%w[DTS open])
  end

  it "draws the ladder's contacts at rest or as they stand, and strikes out what is not fitted" do
    slash = "M-9 11L9 -11"
    bridge = "M-5 0H5"
    marks = ->(at_rest, call) do
      described_class
        .scene("ladder", trace(call), at_rest: at_rest)
        .stations
        .to_h { |one| [one.id, one.strokes.map { |stroke| stroke[:d] }] }
    end
    expect(marks.call(true, "defrost")["low/RVS/DFR.valve"]).not_to include(bridge)
    expect(marks.call(false, "defrost")["low/RVS/DFR.valve"]).to include(bridge)
    expect(marks.call(true, "heat")["line/COMP/DFR.fan"]).to include(slash)
    panel = described_class.scene("ladder", trace("heat"), panel: true)
    expect(panel.stations.select(&:struck).map(&:component).uniq).to match_array(%w[CCH SR SC ST])
    expect(described_class.scene("ladder", trace("heat")).stations.select(&:struck)).to eq([])
  end

  it "puts over each station of a loop what is to be read, and what was" do
    scene =
      described_class.scene(
        "focus",
        trace("heat", switches: { "DTS" => "open" }),
        load: "CC",
        taken: {
          "outdoor.Y" => "24.3 ="
        }
      )
    expect(scene.labels.select { |label| label.role == "reading" }.map(&:text)).to include("25.1 V across", "25.2 V")
    expect(scene.labels.select { |label| label.role == "taken" }.map(&:text)).to eq(["24.3 ="])
  end

  it "draws the loop of any load in any call, those between two legs too, and says what they are read to" do
    %w[boathouse_north bakery_shop mossgate_roof].product(%w[off heat cool]) do |name, call|
      shown = trace(call, on: rig(name))
      shown.load_codes.each do |code|
        scene = described_class.scene("focus", shown, load: code)
        readings = scene.labels.select { |label| label.role == "reading" }.map(&:text)
        expect(readings).to all(match(/\A((\d{1,2}\.\d|\d{3}) V( across)?|not determined)\z/)),
        "#{name} #{call} #{code}"
        expect(scene.title.include?(", V to ")).to be(!shown.low_voltage?(shown.netlist[code].from))
      end
    end
    shown = trace("heat", faults: [{ "kind" => "open", "at" => "CAP.herm" }])
    scene = described_class.scene("focus", shown, load: "COMP")
    first, *, last = scene.labels.select { |label| label.role == "reading" }.map(&:text)
    expect([scene.title[/V to .*/], first, last]).to match(["V to panel L2", /\A2[34]\d V\z/, "0.0 V"])
  end

  it "draws no loop of what is no load, and names the nearest that is one" do
    shown = trace("heat", on: rig("hostel_bunks"))
    others = shown.netlist.branches.map(&:id) - shown.load_codes
    refused =
      others.filter_map do |id|
        described_class.scene("focus", shown, load: id) && nil
      rescue Gorvant::UnknownBranch => e
        [id, e.message]
      end
    expect(refused.to_h).to include(
      "TRAN.primary" => /unknown branch/,
      "COMP.start" => /nearest known is 'COMP'/,
      "LPS" => /unknown branch/
    )
    expect((others - refused.map(&:first)).reject { |id| shown.netlist[id].load? }).to eq([])
  end

  it "exports any view as an SVG that is well formed and speaks for itself" do
    one = rig("bakery_shop").with(name: "<Quince> & \"shop\"")
    %w[loops ladder connections focus].each do |view|
      shown = trace("heat", on: one, switches: { "DTS" => "open" })
      svg =
        Gorvant::Formats::Svg.dump(
          described_class.scene(view, shown, load: "CC"),
          state: described_class.state_words(shown)
        )
      expect { REXML::Document.new(svg) }.not_to raise_error
      expect(svg).to include("&lt;Quince&gt; &amp;", "supposed: DTS open")
    end
  end

  it "explains every code and symbol of every rig" do
    (1..20).each do |seed|
      shown = trace("heat", on: RandomRigs.rig(seed))
      entries = Gorvant::Legend.entries(shown)
      expect(entries.select(&:fitted).map(&:code)).to match_array(
        shown.netlist.branches.filter_map(&:component).uniq & Gorvant::Catalogue.components.keys
      )
      expect(entries.map(&:does)).to all(be_a(String))
      expect(entries.reject(&:fitted).map(&:code) & shown.netlist.branches.filter_map(&:component)).to eq([])
    end
    dts = Gorvant::Legend.entries(trace("heat", switches: { "DTS" => "open" })).find { |entry| entry.code == "DTS" }
    expect(dts).to have_attributes(rest: "closed", now: "open", moves: "temperature", cautions: ["safeties"])
    expect(Gorvant::Legend.marks.map(&:key)).to include("line_field", "splice_mark", "contact_closed")
  end
end
