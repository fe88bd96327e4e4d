# frozen_string_literal: true

RSpec.describe Gorvant::Trace do
  describe "the load table" do
    # DOMAIN.md 4, as a technician knows it; the solver has to arrive there by itself.
    o_type = {
      "off" => [],
      "fan" => %w[BLOWER],
      "cool" => %w[COMP OFM RVS BLOWER],
      "heat" => %w[COMP OFM BLOWER],
      "heat_aux" => %w[COMP OFM BLOWER HTR],
      "emergency" => %w[BLOWER HTR],
      "defrost" => %w[COMP RVS BLOWER HTR]
    }
    b_type =
      o_type.merge(
        "cool" => %w[COMP OFM BLOWER],
        "heat" => %w[COMP OFM RVS BLOWER],
        "heat_aux" => %w[COMP OFM RVS BLOWER HTR],
        "defrost" => %w[COMP BLOWER HTR]
      )
    { "boathouse_north" => o_type, "hostel_bunks" => b_type }.each do |name, table|
      table.each do |call, loads|
        it "has #{loads.empty? ? "nothing" : loads.join(", ")} running in #{call} on #{name}" do
          found = trace(call, on: rig(name)).loads.select(&:on).map(&:code) & %w[COMP OFM RVS BLOWER HTR]
          expect(found).to eq(loads)
        end
      end
    end

    it "has no finding in any call of a healthy rig" do
      calls = Gorvant::Catalogue.calls.keys
      expect(calls.flat_map { |call| trace(call).findings.map(&:code) } - %w[contactor_unread]).to eq([])
    end

    it "never joins R to C in any call" do
      Gorvant::Catalogue.calls.each_key do |call|
        expect(volts(trace(call), "air_handler.R", "air_handler.C")).to be > 22.0
      end
    end
  end

  describe "heating with the discharge switch open" do
    let(:open) { trace("heat", switches: { "DTS" => "open" }) }

    {
      %w[outdoor.Y outdoor.C] => "about_24",
      %w[outdoor.LPS.2 outdoor.C] => "about_24",
      %w[outdoor.DTS.2 outdoor.C] => "about_0",
      %w[outdoor.DTS.1 outdoor.DTS.2] => "about_24",
      %w[outdoor.CC.1 outdoor.CC.2] => "about_0",
      %w[outdoor.board.T1 outdoor.C] => "about_0"
    }.each do |(first, second), klass|
      it "reads #{klass} from #{first} to #{second}" do
        expect(open.reading(first, second).first.klass).to eq(klass)
      end
    end

    it "keeps compressor and fan off and names the open switch" do
      compressor = open.loads.find { |load| load.code == "COMP" }
      expect(compressor).to have_attributes(on: false, missing: "DTS", as_designed: false)
      expect(compressor.chain.last).to include("first missing link is DTS")
      expect(running(open)).not_to include("OFM", "CC")
    end

    it "explains full voltage across the open switch" do
      expect(open.reading("outdoor.DTS.1", "outdoor.DTS.2").last).to have_attributes(
        key: "open_across",
        says: /DTS is open and the loop is otherwise whole/
      )
    end
  end

  describe "the common broken between air handler and outdoor unit" do
    let(:broken) { trace("heat", faults: [{ "kind" => "open", "at" => "cable_b.blue" }]) }

    it "reads about 0 from R to C outdoors, though everything outdoors stands at 24 to the air handler's C" do
      expect(volts(broken, "outdoor.R", "outdoor.C")).to be < 2.0
      %w[outdoor.C outdoor.R outdoor.Y outdoor.O outdoor.CC.1 outdoor.RVS.2].each do |node|
        expect(broken.reading(node, "air_handler.C").first.klass).to eq("about_24"), node
      end
    end

    it "finds W2 out at 0, so that R to W2 out proves R good from outdoors" do
      expect(broken.reading("outdoor.W2_out", "air_handler.C").first.klass).to eq("about_0")
      expect(broken.reading("outdoor.R", "outdoor.W2_out").first.klass).to eq("about_24")
    end

    it "names the broken conductor in the finding, with both sides as evidence" do
      finding = broken.findings.find { |one| one.code == "common_broken" }
      expect(finding).to have_attributes(severity: "fault", says: /blue of cable B/)
      expect(finding.evidence.join).to include("CC: 25.3 V on one side, 25.3 V on the other")
    end
  end

  describe "R shorted to C" do
    %w[wall air_handler outdoor].each do |place|
      it "blows the fuse and names the way when they touch at the #{place}" do
        shorted = trace("heat", faults: [{ "kind" => "short", "at" => ["#{place}.R", "#{place}.C"] }])
        finding = shorted.findings.find { |one| one.code == "fuse_blown" }
        expect(finding.nodes).to include("#{place}.R", "#{place}.C")
        expect(finding.cautions).to include("dead_short")
        expect(running(shorted)).to eq([])
      end
    end
  end

  it "tells an output that is not called from a fault" do
    expect(trace("off").loads.find { |load| load.code == "SEQ" }).to have_attributes(
      as_designed: true,
      why: /leaves W2 at the thermostat and E at the thermostat open/
    )
    expect(trace("defrost").loads.find { |load| load.code == "OFM" }).to have_attributes(as_designed: true)
  end

  it "reads a ghost on a spare conductor at high impedance, and next to nothing at low" do
    idle = trace("heat")
    expect(idle.reading("wall.cable_a.brown", "wall.C").first).to have_attributes(
      klass: "ghost",
      floating: true,
      volts_ac: be_between(5.0, 22.0)
    )
    expect(idle.reading("wall.cable_a.brown", "wall.C", "low_impedance").first.volts_ac).to be < 0.5
  end

  it "reads the same whichever probe is where" do
    cool = trace("cool")
    nodes = cool.netlist.nodes.select { |node| cool.low_voltage?(node) }
    nodes
      .sample(20, random: Random.new(3))
      .combination(2) { |first, second| expect(volts(cool, second, first)).to eq(volts(cool, first, second)) }
  end

  it "loses only the compressor when the outdoor disconnect is off, and everything when the air handler is off" do
    expect(running(trace("heat", supplies: { "outdoor" => false }))).to include("CC", "BLOWER").and(
      satisfy { |codes| !codes.include?("COMP") }
    )
    expect(running(trace("heat", supplies: { "air_handler" => false }))).to eq([])
  end

  it "wants a fault to be at a place that exists" do
    expect { trace("heat", faults: [{ "kind" => "open", "at" => "cable_b.bleu" }]) }.to raise_error(
      Gorvant::BadCondition,
      /cable_b.blue/
    )
    expect { trace("heat", faults: [{ "kind" => "melted", "at" => "CC" }]) }.to raise_error(
      Gorvant::BadCondition,
      /known are/
    )
    expect { trace("heat", switches: { "ODT" => "open" }) }.to raise_error(
      Gorvant::BadCondition,
      %r{/condition/switches/ODT}
    )
  end

  it "knows that a furnace's blower is off by design, and sends it home to neutral" do
    gas = Gorvant::Composer.compose(name: "Gas", facts: { "backup" => "gas" })
    blower = trace("off", on: gas).loads.find { |load| load.code == "BLOWER" }
    expect(blower).to have_attributes(on: false, as_designed: true)
    expect(trace("heat", on: gas).loop_of("BLOWER").home.last.to).to eq(Gorvant::Assembly::GROUND)
  end

  it "has words for every load of every rig under every single fault" do
    [rig, rig("bakery_shop"), rig("lantern_kiln")].each do |one|
      Gorvant::Faults::Library
        .of(one)
        .each do |fault|
          loads = trace("heat", on: one, faults: [fault]).loads
          expect(loads.map(&:why)).to all(match(/\S/)), fault.inspect
        end
    end
  end
end
