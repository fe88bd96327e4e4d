# frozen_string_literal: true

require_relative "../../support/core"

# The end of a visit: what has to be put back, what is still missing, and what the closing then says.
RSpec.describe Gorvant::Desks::CloseOut do
  rig = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  strip = "outdoor.Y"

  # A standing reading; verdict and hour as given.
  read = ->(function, at: "2026-11-29T09:00:00Z", verdict: nil, call: "heat", note: nil, **seen) do
    amount = seen.delete(:volts)&.then { |volts| Gorvant::Amount.new(low: volts, high: volts) }
    Gorvant::VisitRead.new(
      id: [function, at, seen].join,
      observation: Gorvant::Observation.new(function: function, instrument: "person", amount: amount, **seen),
      condition: Gorvant::Condition.new(call: call),
      at: at,
      verdict: verdict,
      note: note
    )
  end
  volts = ->(value, **more) { read.call("volts_ac", volts: value, from_node: "outdoor.C", to_node: strip, **more) }
  did = ->(place, choice, **more) { read.call("did", place: place, choice: choice, **more) }
  record = ->(close_out = {}, **fields) do
    kept = fields.delete(:kept) || {}
    Gorvant::VisitRecord.new(rig: rig, outdoor_degrees_f: 60.0, kept: kept.merge("close_out" => close_out), **fields)
  end
  calls = ->(how = { "how" => "run", "as" => "expected" }) { Gorvant::Outputs.calls(rig).to_h { |id| [id, how] } }
  ticked = ->(of) { Gorvant::Desks.put_back(of).to_h { |line| [line.id, "back"] } }
  # All that a visit without readings has to say.
  whole = ->(**fields) do
    {
      "cause" => "written",
      "finding" => "A loose Y at the strip.",
      "done" => "Tightened it.",
      "plain" => "A wire was loose.",
      "calls" => calls.call,
      "put_back" => ticked.call(record.call({}, **fields))
    }
  end
  missing = ->(of) { described_class.missing(of).map(&:field) }

  describe "what a jumper bridges" do
    {
      %w[outdoor.Y outdoor.board.T1] => %w[HPS LPS],
      %w[outdoor.Y outdoor.CC.1] => %w[HPS LPS],
      %w[outdoor.LPS.1 outdoor.LPS.2] => %w[LPS],
      %w[air_handler.L1 air_handler.HTR.1] => %w[LIM TL],
      %w[wall.R wall.C] => %w[TRAN],
      %w[outdoor.R outdoor.C] => %w[TRAN],
      %w[wall.R wall.Y] => [],
      %w[wall.R wall.G] => [],
      %w[wall.W2 wall.E] => [],
      %w[outdoor.DFT.1 outdoor.DFT.2] => [],
      %w[outdoor.Y nowhere.at_all] => []
    }.each do |(from, to), codes|
      it "#{from} to #{to}: #{codes.empty? ? "nothing that protects" : codes.join(", ")}" do
        expect(Gorvant::SafetyBridge.codes(rig, from, to)).to match_array(codes)
        expect(Gorvant::SafetyBridge.codes(rig, to, from)).to match_array(codes)
      end
    end

    it "finds every switch that protects, on any kit, by its own two sides" do
      Gorvant::Catalogue.kits.each_value do |kit|
        fitted = Gorvant::Composer.compose(name: "Bramble mill", facts: kit["facts"])
        Gorvant::Assembly
          .netlist(fitted)
          .branches
          .each do |branch|
            next unless Gorvant::Catalogue.components.dig(branch.component.to_s, "protects") && branch.switching?

            expect(Gorvant::SafetyBridge.codes(fitted, branch.from, branch.to)).to include(branch.component)
          end
      end
    end
  end

  describe "the tally of what has to be put back" do
    # [what the visit's records hold, id of the line, never closed by a reason, by the records back already]
    jumper = ->(from, to) do
      { "wiring" => { "jumpers" => [{ "place" => "outdoor", "from" => from, "to" => to, "found" => true }] } }
    end
    test = ->(**tally) do
      {
        "defrost" => {
          "test" => {
            "marks" => {
              "jumper_on" => 1,
              "bridge_on" => 4
            },
            "tally" => tally.transform_keys(&:to_s)
          }
        }
      }
    end
    [
      [
        { reads: [did.call("jumper", "jumper_on", note: "R–Y at the strip")] },
        "did.jumper.r_y_at_the_strip",
        false,
        false
      ],
      [{ reads: [did.call("jumper", "jumper_on", note: "R to C")] }, "did.jumper.r_to_c", true, false],
      [{ reads: [did.call("jumper", "jumper_on", note: "Y to K9")] }, "did.jumper.y_to_k9", true, false],
      [
        { reads: [did.call("jumper", "jumper_on", note: "high pressure switch")] },
        "did.jumper.high_pressure_switch",
        true,
        false
      ],
      [{ reads: [did.call("jumper", "jumper_on")] }, "did.jumper.", true, false],
      [
        { reads: [did.call("jumper", "jumper_on", note: "R-Y"), did.call("jumper", "jumper_off", note: "r-y")] },
        "did.jumper.r_y",
        false,
        true
      ],
      [
        { reads: [did.call("jumper", "jumper_off", note: "R-Y"), did.call("jumper", "jumper_on", note: "R-Y")] },
        "did.jumper.r_y",
        false,
        false
      ],
      [{ reads: [did.call("wire", "lifted", note: "W2 out")] }, "did.wire.w2_out", false, false],
      [
        { reads: [did.call("wire", "lifted", note: "W2 out"), did.call("wire", "landed", note: "W2 out")] },
        "did.wire.w2_out",
        false,
        true
      ],
      [{ reads: [did.call("power", "cut"), did.call("power", "restored")] }, "did.power.", false, true],
      [{ reads: [did.call("wire", "landed", note: "G")] }, "did.wire.g", nil, nil],
      [
        { reads: [read.call("ohms", from_node: "outdoor.CC.1", to_node: "outdoor.CC.2", isolated: true)] },
        "isolated.",
        false,
        false
      ],
      [{ kept: jumper.call("Y", "T1") }, "wiring.jumper_extra", true, false],
      [{ kept: jumper.call("R", "W2_out") }, "wiring.jumper_extra", false, false],
      [
        { kept: { "thermostat" => { "settings" => { "compressor_lockout" => "off_for_test" } } } },
        "setting.compressor_lockout",
        false,
        false
      ],
      [
        { kept: { "thermostat" => { "settings" => { "compressor_lockout" => "in_force" } } } },
        "setting.compressor_lockout",
        nil,
        nil
      ],
      [
        { kept: { "thermostat" => { "settings" => { "fast_heating" => "error" } } } },
        "setting.fast_heating",
        false,
        false
      ],
      [
        { kept: { "thermostat" => { "settings" => { "sensor_offset_degrees_f" => 2 } } } },
        "setting.sensor_offset_degrees_f",
        false,
        false
      ],
      [
        { kept: { "thermostat" => { "settings" => { "thermostat_minimum_off_seconds" => 0 } } } },
        "setting.thermostat_minimum_off_seconds",
        false,
        false
      ],
      [
        { kept: { "thermostat" => { "settings" => { "changeover_setup" => "O" } } } },
        "setting.changeover_setup",
        nil,
        nil
      ],
      [
        { kept: { "thermostat" => { "settings" => { "system_setup" => "conventional" } } } },
        "setting.system_setup",
        false,
        false
      ],
      [{ kept: test.call }, "defrost.coil_jumper", false, false],
      [{ kept: test.call(coil_jumper: "off") }, "defrost.coil_jumper", false, true],
      [{ kept: test.call(sensor_plug: "off") }, "defrost.sensor_plug", false, false],
      [
        { kept: { "defrost" => { "thermistor" => { "points" => [{ "degrees_f" => 34, "ohms" => 26_000 }] } } } },
        "defrost.thermistor",
        false,
        false
      ],
      [{}, "covers", true, false],
      [{}, "safeties", true, false],
      [{}, "set_point", false, false]
    ].each do |fields, id, never_left, back|
      it "#{id} of #{fields.to_s[0, 90]}: #{never_left.nil? ? "no line" : "never left #{never_left}, back #{back}"}" do
        line = Gorvant::Desks.put_back(record.call({}, **fields)).find { |one| one.id.start_with?(id) }
        expect(line && [line.never_left, !line.by_record.nil?]).to eq(never_left.nil? ? nil : [never_left, back])
      end
    end

    it "names the places where somebody was inside, and says so where nobody wrote any down" do
      says = ->(of) { Gorvant::Desks.put_back(of).find { |line| line.id == "covers" }.says }
      expect(says.call(record.call({}, reads: [volts.call(24.0)]))).to include("outdoor unit")
      expect(says.call(record.call)).to include("look at all")
    end
  end

  describe "what is missing before it can be closed" do
    it "is nothing when all is said, and each thing that is taken away" do
      given = whole.call
      expect(missing.call(record.call(given))).to eq([])
      %w[cause finding done plain].each do |key|
        expect(missing.call(record.call(given.except(key)))).to eq(["/#{key}"])
      end
      given["calls"].each_key do |id|
        expect(missing.call(record.call(given.merge("calls" => given["calls"].except(id))))).to eq(["/calls/#{id}"])
      end
      given["put_back"].each_key do |id|
        expect(missing.call(record.call(given.merge("put_back" => given["put_back"].except(id))))).to eq(
          ["/put_back/#{id}"]
        )
      end
    end

    it "takes a reason for what may stay, and none for covers, safeties and what bridges one" do
      fields = { reads: [did.call("jumper", "jumper_on", note: "Y to T1"), did.call("wire", "lifted", note: "W2")] }
      given = whole.call(**fields)
      left = ->(id, why) do
        missing.call(record.call(given.merge("put_back" => given["put_back"].merge(id => { "left" => why })), **fields))
      end
      expect(left.call("did.wire.w2", "the owner wants it off")).to eq([])
      expect(left.call("did.wire.w2", "  ")).to eq(["/put_back/did.wire.w2"])
      %w[covers safeties did.jumper.y_to_t1].each do |id|
        expect(left.call(id, "the owner wants it so")).to eq(["/put_back/#{id}"])
      end
      off =
        given.merge(
          "left_off" => "High-pressure switch is bridged, part ordered",
          "put_back" => given["put_back"].except("did.jumper.y_to_t1"),
          "calls" => {
          }
        )
      expect(missing.call(record.call(off, **fields))).to eq([])
    end

    # At its limits the weather allows it; one tenth further it does not; unread, nobody can say.
    [
      ["cool", 55.0, []],
      ["cool", 54.9, ["/calls/cool"]],
      ["heat", 75.0, []],
      ["heat", 75.1, ["/calls/heat"]],
      ["emergency", 75.1, ["/calls/emergency"]],
      ["fan", 110.0, []],
      ["heat", nil, ["/calls/heat"]]
    ].each do |call, outdoor, open|
      it "#{call} run at #{outdoor.inspect} °F: #{open}" do
        others = calls.call("how" => "low_voltage", "as" => "expected")
        given = whole.call.merge("calls" => others.merge(call => { "how" => "run", "as" => "expected" }))
        at = record.call(given).with(outdoor_degrees_f: outdoor)
        expect(missing.call(at)).to eq(open)
        noted =
          given.merge(
            "calls" => others.merge(call => { "how" => "run", "as" => "expected", "note" => "the maker allows it" })
          )
        expect(missing.call(record.call(noted).with(outdoor_degrees_f: outdoor))).to eq(outdoor ? [] : open)
      end
    end

    it "asks for a note of what was not run and of what came out otherwise" do
      [{ "how" => "not_run" }, { "how" => "run", "as" => "otherwise" }].each do |said|
        given = whole.call
        with = ->(note) do
          record.call(given.merge("calls" => given["calls"].merge("heat" => said.merge("note" => note))))
        end
        expect(missing.call(with.call(" "))).to eq(["/calls/heat"])
        expect(missing.call(with.call("no time"))).to eq([])
      end
    end

    it "wants every failed reading repeated after the repair, or the reason why not" do
      failed = volts.call(0.1, verdict: "disagrees", at: "2026-11-29T09:00:00Z")
      early = volts.call(24.1, verdict: "agrees", at: "2026-11-29T09:30:00Z")
      late = volts.call(24.1, verdict: "agrees", at: "2026-11-29T10:30:00Z")
      other = volts.call(24.1, verdict: "agrees", at: "2026-11-29T10:31:00Z", call: "cool")
      ask = ->(reads, **more) do
        fields = { reads: reads }
        given = whole.call(**fields).merge("repaired_at" => "2026-11-29T10:00:00Z", **more.transform_keys(&:to_s))
        missing.call(record.call(given, **fields))
      end
      expect(ask.call([failed, early, other])).to eq(["/not_repeated"])
      expect(ask.call([failed, early, other], not_repeated: "the battery was flat")).to eq([])
      expect(ask.call([failed, early, late])).to eq([])
      expect(
        described_class.before_repair([failed, early, late], { "close_out" => { "repaired_at" => late.at } })
      ).to eq([failed, early])
    end

    it "does not take a yes while a repeated reading disagrees, or the unit is left off" do
      reads = [volts.call(0.1, verdict: "disagrees"), volts.call(0.2, verdict: "disagrees", at: "2026-11-29T10:30:00Z")]
      fields = { reads: reads, told: true }
      given = whole.call(**fields).merge("repaired_at" => "2026-11-29T10:00:00Z")
      expect(missing.call(record.call(given, **fields))).to eq(["/answered"])
      expect(missing.call(record.call(given.merge("answered" => "yes"), **fields))).to eq(["/answered"])
      expect(missing.call(record.call(given.merge("answered" => "partly"), **fields))).to eq([])
      off = whole.call(told: true).merge("answered" => "yes", "left_off" => "no part")
      expect(missing.call(record.call(off, told: true))).to eq(["/answered"])
    end

    it "asks for a natural defrost where the defrost was the matter, and says that it is still to be seen" do
      fields = { symptoms: ["iced_outdoor_unit"] }
      given = whole.call(**fields)
      expect(missing.call(record.call(given, **fields))).to eq(["/natural_defrost"])
      expect(missing.call(record.call(given, symptoms: ["no_heat"]))).to eq([])
      not_seen = record.call(given.merge("natural_defrost" => "not_seen"), **fields)
      expect([missing.call(not_seen), described_class.mark(not_seen)]).to eq([[], "so_far"])
      seen = record.call(given.merge("natural_defrost" => "seen"), **fields)
      expect(described_class.mark(seen)).to eq("agrees")
    end
  end

  # [what is kept otherwise than all well, mark]
  [
    [{}, "agrees"],
    [{ "calls" => { "heat" => { "how" => "low_voltage", "as" => "expected" } } }, "agrees"],
    [{ "calls" => { "heat" => { "how" => "not_run", "note" => "no time" } } }, "so_far"],
    [{ "calls" => { "heat" => { "how" => "run", "as" => "otherwise", "note" => "no fan" } } }, "disagrees"],
    [{ "put_back" => { "set_point" => { "left" => "asked to" } } }, "so_far"],
    [{ "answered" => "partly" }, "so_far"],
    [{ "answered" => "no" }, "disagrees"],
    [{ "left_off" => "no part" }, "disagrees"]
  ].each do |otherwise, mark|
    it "closes as #{mark} with #{otherwise}" do
      given = whole.call.merge(otherwise) { |_key, was, now| was.is_a?(Hash) ? was.merge(now) : now }
      expect(described_class.mark(record.call(given))).to eq(mark)
    end
  end

  it "keeps what it understands, and names what it does not" do
    given =
      whole.call.merge(
        "photos" => ["3d6f0a52-6f5e-4b1e-9a55-0c3e8f5d7b21"],
        "leave_out" => ["readings"],
        "repaired_at" => "2026-11-29T10:00:00Z"
      )
    expect(Gorvant::Desks.keep("close_out", given, rig)).to eq(given)
    {
      { "done" => 4 } => "/done",
      { "done" => "x" * 2_001 } => "/done",
      { "plain" => "a\u0000b" } => "/plain",
      { "cause" => "guess" } => "/cause",
      { "repaired_at" => "this morning" } => "/repaired_at",
      { "repaired_at" => "2026-11-29T25:00:00Z" } => "/repaired_at",
      { "calls" => { "heat_9" => { "how" => "run", "as" => "expected" } } } => "/calls/heat_9",
      { "calls" => { "heat" => { "how" => "run" } } } => "/calls/heat",
      { "calls" => { "heat" => { "how" => "not_run", "as" => "expected" } } } => "/calls/heat",
      { "put_back" => { "covers" => "yes" } } => "/put_back",
      { "put_back" => { "covers" => { "left" => 3 } } } => "/put_back",
      { "photos" => ["x"] * 25 } => "/photos",
      { "nothing" => 1 } => "/nothing"
    }.each do |bad, field|
      expect { Gorvant::Desks.keep("close_out", bad, rig) }.to raise_error(Gorvant::BadRecord) { |error|
        expect(error.problems.map { |one| one["field"] }).to eq([field])
      }
    end
  end
end
