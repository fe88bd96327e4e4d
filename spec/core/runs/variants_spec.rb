# frozen_string_literal: true

require_relative "../../support/random_rigs"

# The trade's cases across rigs, faults and meters.
RSpec.describe Gorvant::Trace do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Variant", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def trace_of(rig, call, **condition) = trace(call, on: rig, **condition)
  def live?(trace, node, common = "air_handler.C") = trace.reading(node, common).first.klass == "about_24"
  def on?(trace, code) = trace.loads.any? { |load| load.code == code && load.on }
  def findings(trace) = trace.findings.map(&:code)

  # A rig with one conductor's landing changed in its file: { "cable_a.orange" => { "from" => "B" } }.
  def rewired(rig, changes)
    content = Gorvant::Formats::RigJson.dump(rig)
    changes.each do |id, landing|
      cable, conductor = id.split(".")
      content["cables"].find { |one| one["id"] == cable }["conductors"]
        .find { |one| one["id"] == conductor }
        .merge!(landing)
    end
    Gorvant::Formats::RigJson.read(content)
  end

  describe "changeover" do
    it "heats in cooling and cools in heating when a single O/B terminal is set to B on an O type" do
      wrong = rig_with(changeover: "O", changeover_terminal: "single", changeover_setup: "B")
      expect([on?(trace_of(wrong, "cool"), "RVS"), on?(trace_of(wrong, "heat"), "RVS")]).to eq([false, true])
      right = rig_with(changeover: "O", changeover_terminal: "single", changeover_setup: "O")
      expect([on?(trace_of(right, "cool"), "RVS"), on?(trace_of(right, "heat"), "RVS")]).to eq([true, false])
    end

    it "does the same with separate terminals and the wire on B" do
      wrong = rewired(rig_with(changeover: "O"), "cable_a.orange" => { "from" => "B" })
      expect([on?(trace_of(wrong, "cool"), "RVS"), on?(trace_of(wrong, "heat"), "RVS")]).to eq([false, true])
    end

    it "blows the fuse by way of wall B when C is landed there and the thermostat runs on a battery" do
      miswired = rewired(rig_with(changeover: "O", thermostat_power: "battery"), "cable_a.blue" => { "from" => "B" })
      expect(findings(trace_of(miswired, "cool"))).not_to include("fuse_blown")
      short = trace_of(miswired, "heat")
      expect(short.findings.find { |finding| finding.code == "fuse_blown" }.nodes).to include("wall.B")
    end

    it "leaves a thermostat that lives on C blank instead, without a short" do
      blank = trace_of(rewired(rig_with(changeover: "O"), "cable_a.blue" => { "from" => "B" }), "heat")
      expect(findings(blank)).not_to include("fuse_blown")
      expect([on?(blank, "THERMOSTAT"), on?(blank, "CC")]).to eq([false, false])
    end

    it "keeps the valve live in every call when R and O touch in the outdoor cable" do
      rig = rig_with(changeover: "O")
      touching = [{ "kind" => "short", "at" => %w[outdoor.cable_b.red outdoor.cable_b.orange] }]
      Gorvant::Outputs
        .calls(rig)
        .each { |call| expect(on?(trace_of(rig, call, faults: touching), "RVS")).to be(true), call }
    end

    it "cannot tell a welded board contact from a thermostat stuck on O, until the field wire is lifted" do
      rig = rig_with(changeover: "O")
      welded = { "kind" => "stuck_closed", "at" => "DFR.valve" }
      stuck = { "kind" => "stuck_closed", "at" => "THERMOSTAT.O" }
      lift = { "kind" => "lifted", "at" => "cable_b.orange@outdoor" }
      at = ->(fault, node, meter, *more) do
        trace_of(rig, "heat", faults: [fault, *more]).reading(node, "outdoor.C", meter).first
      end
      expect([welded, stuck].map { |fault| at.call(fault, "outdoor.O", "high_impedance").klass }).to eq(
        %w[about_24 about_24]
      )
      expect([welded, stuck].map { |fault| at.call(fault, "outdoor.O", "low_impedance", lift).klass }).to eq(
        %w[about_24 about_0]
      )
      expect(
        [welded, stuck].map { |fault| at.call(fault, "outdoor.cable_b.orange", "low_impedance", lift).volts_ac > 20 }
      ).to eq([false, true])
      expect(at.call(welded, "outdoor.cable_b.orange", "high_impedance", lift)).to have_attributes(
        klass: "ghost",
        volts_ac: be > 2.0
      )
    end

    it "takes the valve's feed away in a B type's defrost: C to B 24, solenoid from 24 to 0, fan off, strips on" do
      rig = rig_with(changeover: "B")
      heat, defrost = %w[heat defrost].map { |call| trace_of(rig, call) }
      expect([heat, defrost].map { |one| one.reading("outdoor.RVS.1", "outdoor.RVS.2").first.klass }).to eq(
        %w[about_24 about_0]
      )
      expect(live?(defrost, "outdoor.B", "outdoor.C")).to be(true)
      expect([on?(defrost, "OFM"), on?(defrost, "HTR"), on?(defrost, "COMP")]).to eq([false, true, true])
    end
  end

  describe "the outdoor thermostat" do
    # [facts, position of the outdoor thermostat, indoor W live in W2 call, E call, defrost; findings in the W2 call and
    # defrost]
    table = [
      [{ outdoor_thermostat: true }, "closed", [true, true, true], []],
      [{ outdoor_thermostat: true }, "open", [false, true, true], []],
      [{ outdoor_thermostat: true, emergency_path: "both" }, "open", [true, true, true], ["lockout_defeated"]],
      [{ emergency_path: "jumper" }, nil, [true, true, true], []],
      [{ emergency_path: "jumper", w2_out_run: false }, nil, [true, true, false], ["no_heat_in_defrost"]]
    ]
    %w[one_trace apart]
      .product(table)
      .each do |path, (facts, odt, lives, codes)|
        it "has W #{lives} for W2, E and defrost with #{facts}, #{odt || "none fitted"}, #{path}" do
          rig = rig_with(w2_path: path, **facts)
          traces =
            %w[heat_aux emergency defrost].map do |call|
              trace_of(rig, call, **(odt ? { switches: { "ODT" => odt } } : {}))
            end
          expect(traces.map { |one| live?(one, "air_handler.W") }).to eq(lives)
          expect(
            traces.values_at(0, 2).flat_map { |one| findings(one) }.uniq & %w[lockout_defeated no_heat_in_defrost]
          ).to eq(codes)
        end
      end
  end

  describe "line voltage" do
    it "leaves a leg live behind an open one-pole contactor, and says so" do
      off = trace_of(rig_with(contactor_poles: 1, contactor_switched_leg: "L1"), "off")
      read = ->(first, second) { off.reading(first, second).first.klass }
      expect(read.call("outdoor.CC.T1", "outdoor.CC.T2")).to eq("about_0")
      expect(read.call("outdoor.CC.L1", "outdoor.CC.T2")).to eq("about_240")
      %w[T1 T2].each { |tab| expect(read.call("outdoor.CC.#{tab}", "panel.ground")).to eq("about_120") }
      expect(findings(off)).to eq(["one_pole"])
    end

    it "pulls the contactor but runs nothing with the outdoor disconnect off" do
      off = trace_of(rig_with, "heat", supplies: { "outdoor" => false })
      expect([on?(off, "CC"), on?(off, "COMP"), on?(off, "OFM")]).to eq([true, false, false])
    end

    it "lets a compressor hum when its capacitor is open" do
      hum = trace_of(rig_with, "cool", faults: [{ "kind" => "open", "at" => "CAP.herm" }])
      expect(hum.loads.find { |load| load.code == "COMP" }).to have_attributes(on: false, why: /hums/)
      expect(on?(hum, "OFM")).to be(true)
    end

    it "feeds a furnace from one leg and lets it drive its own blower" do
      gas = trace_of(rig_with(backup: "gas"), "emergency")
      expect([on?(gas, "GAS"), on?(gas, "BLOWER"), on?(gas, "IFR")]).to eq([true, true, false])
      expect(gas.reading("air_handler.L1", "air_handler.N").first.klass).to eq("about_120")
    end
  end

  it "reads two open safeties in series as nothing each, and 24 across both" do
    both = trace_of(rig_with, "heat", switches: { "LPS" => "open", "HPS" => "open" })
    expect(both.reading("outdoor.LPS.1", "outdoor.LPS.2").first.klass).to eq("ghost").or eq("about_0")
    expect(both.reading("outdoor.HPS.1", "outdoor.HPS.2").first.volts_ac).to be < 2.0
    expect(both.reading("outdoor.LPS.1", "outdoor.HPS.2").first.klass).to eq("about_24")
  end

  it "sends heat calls to W2 out on a lockout of a board that diverts" do
    locked = trace_of(rig_with(board_family: "osier"), "heat", board: { "lockout" => true })
    expect([on?(locked, "CC"), on?(locked, "HTR")]).to eq([false, true])
    expect(on?(trace_of(rig_with(board_family: "osier"), "cool", board: { "lockout" => true }), "HTR")).to be(false)
  end

  it "reads ohms with the power off: a winding alone, the secondary in circuit, an open switch" do
    idle = trace_of(rig_with, "off")
    expect(idle.ohms("outdoor.CC.1", "outdoor.CC.2", isolated: true)).to have_attributes(ohms: 12.0, links: ["CC"])
    expect(idle.ohms("air_handler.R", "air_handler.C")).to have_attributes(
      ohms: be_within(0.3).of(1.0),
      says: /looks like a short/
    )
    expect(idle.ohms("outdoor.DFT.1", "outdoor.DFT.2").ohms).to be > 1000.0 # round by way of the board and the supply
    if idle.netlist.node?("wall.cable_a.brown")
      expect(idle.ohms("wall.cable_a.brown", "wall.C").ohms).to eq(Float::INFINITY)
    end
    burnt = trace_of(rig_with, "off", faults: [{ "kind" => "open", "at" => "CC" }])
    expect(burnt.ohms("outdoor.CC.1", "outdoor.CC.2", isolated: true).ohms).to eq(Float::INFINITY)
  end

  it "tells low voltage to ground where C is bonded, and does not pretend where nobody knows" do
    expect(trace_of(rig_with(c_bonded: "yes"), "heat").reading("outdoor.Y", "panel.ground").first.klass).to eq(
      "about_24"
    )
    expect(trace_of(rig_with(c_bonded: "no"), "heat").reading("outdoor.Y", "panel.ground").first.klass).to eq(
      "undetermined"
    )
  end

  it "blows nothing on a first short to an unbonded chassis, and the fuse on a bonded one" do
    grounded = [{ "kind" => "to_ground", "at" => "outdoor.cable_b.red" }]
    expect(findings(trace_of(rig_with(c_bonded: "no"), "heat", faults: grounded))).to eq([])
    expect(findings(trace_of(rig_with(c_bonded: "yes"), "heat", faults: grounded))).to include("fuse_blown")
  end

  it "breaks a conductor at its splice, and keeps the names of its ends" do
    rig = rewired(rig_with, "cable_b.blue" => { "splices" => [{ "id" => "attic", "color" => "black" }] })
    broken = trace_of(rig, "heat", faults: [{ "kind" => "open", "at" => "cable_b.blue/attic" }])
    expect(findings(broken)).to include("common_broken")
    expect(broken.netlist.node?("outdoor.cable_b.blue")).to be(true)
    expect(running(trace_of(rig, "heat"))).to include("COMP")
  end

  it "flags a coil that a weak transformer leaves near its pull-in" do
    codes =
      [5.0, 10.0, 15.0, 20.0, 25.0].flat_map do |ohms|
        findings(
          trace_of(
            rig_with,
            "heat",
            faults: [{ "kind" => "high_resistance", "at" => "cable_b.yellow@outdoor", "ohms" => ohms }]
          )
        )
      end
    expect(codes).to include("coil_near_pull_in")
  end

  it "calls the fault of a transformer with too much to feed an overload" do
    small = rig_with(transformer_va: 15, strip_banks: 2)
    expect(findings(trace_of(small, "defrost"))).to include("transformer_overloaded")
  end

  describe "what cannot work" do
    # A rig file with some conductors left out.
    def without(*ids)
      content = Gorvant::Formats::RigJson.dump(rig_with)
      content["cables"].each do |cable|
        cable["conductors"].reject! do |conductor|
          ids.include?("all") || ids.include?("#{cable["id"]}.#{conductor["id"]}")
        end
      end
      Gorvant::Formats::RigJson.read(
        content.merge("cables" => content["cables"].reject { |cable| cable["conductors"].empty? })
      )
    end

    it "is reported when R, C or everything is missing outdoors" do
      expect(findings(trace_of(without("cable_b.red"), "heat"))).to include("board_not_fed")
      expect(findings(trace_of(without("cable_b.blue"), "heat"))).to include("common_broken")
      nothing = trace_of(without("all"), "heat")
      expect(findings(nothing) - %w[contactor_unread]).to eq(["board_not_fed"])
      expect(nothing.loads.find { |load| load.code == "CC" }.why).to include("nothing leads R to it")
      expect(running(nothing)).to eq([])
    end

    it "is reported when two transformers stand back to back" do
      rig = rig_with
      netlist = Gorvant::Assembly.netlist(rig)
      second = netlist["TRAN"].with(id: "TRAN2", from: netlist["TRAN"].to, to: netlist["TRAN"].from)
      solution = Gorvant::Settling.settle(netlist.with(second))
      expect(Gorvant::Rule.check_all(solution).map(&:code)).to include("transformer_overloaded")
    end
  end

  it "says of a stuck valve that no voltage shows it" do
    stuck = trace_of(rig_with, "cool", faults: [{ "kind" => "valve_stuck", "at" => "RVS" }])
    expect(stuck.findings.map { |finding| [finding.code, finding.title] }).to eq(
      [["mechanical", "Reversing valve stuck"]]
    )
    expect(on?(stuck, "RVS")).to be(true)
  end

  it "puts every fault, and many pairs, into every sort of rig and settles or says what chatters" do
    (1..6).each do |seed|
      rig = RandomRigs.rig(seed)
      library = Gorvant::Faults::Library.of(rig)
      expect(library.map { |fault| JSON.generate(fault) }.uniq.size).to eq(library.size)
      random = Random.new(seed)
      cases =
        library.map { |fault| [fault] }.sample(40, random: random) + Array.new(15) { library.sample(2, random: random) }
      cases.each do |faults|
        solved = trace_of(rig, Gorvant::Outputs.calls(rig).sample(random: random), faults: faults)
        expect(solved.solution.volts.values).to all(satisfy { |volts| volts.abs < 400 }), faults.to_s
        expect(solved.fault_titles).to all(match(/\A[A-Z\w]/))
      end
    end
  end

  # Laws that hold whatever is fitted and broken.
  (1..25).each do |seed|
    it "settles random case #{seed} into a state that agrees with itself" do
      rig, condition = RandomRigs.case(seed)
      solved = described_class.new(rig, condition)
      next if solved.solution.chatter?

      solved
        .netlist
        .branches
        .select { |branch| branch.kind == :coil && !solved.solution.open.include?(branch.id) }
        .each do |coil|
          volts = solved.solution.volts_across(coil)
          expect(
            solved.solution.working?(coil.id) ? volts >= coil[:drop_out_volts_ac] : volts < coil[:pull_in_volts_ac]
          ).to be(true),
          coil.id
        end
    end
  end

  it "never lowers R to C at the transformer by taking a load away, contacts held" do
    (1..8).each do |seed|
      solved = described_class.new(RandomRigs.rig(seed), Gorvant::Condition.parse("call" => "heat"))
      section = solved.netlist.sections.find(&:follower?)
      volts = ->(open) do
        section
          .solve(solved.solution.closed, open: open, volts: solved.solution.volts)
          .then { |at| at.fetch(Gorvant::Assembly::HOT).abs }
      end
      before = volts.call([])
      section.branches.select(&:load?).each { |load| expect(volts.call([load.id])).to be >= before - 1e-9, load.id }
    end
  end
end
