# frozen_string_literal: true

require_relative "../support/core"
require_relative "../support/draughtsman"
require_relative "../support/finding"
require_relative "../../bench/rigs"

# A newcomer has one obvious room: one of each kind is added here by what docs/architecture.md says, and works with
# everything that was there before.
RSpec.describe "A newcomer" do
  def catalogue(table, **more)
    known = Gorvant::Catalogue.public_send(table)
    allow(Gorvant::Catalogue).to receive(table).and_return(known.merge(more.transform_keys(&:to_s)))
  end

  def held(given, call = "heat")
    trace = trace(call)
    seen = Gorvant::Observation.parse(given, trace)
    [seen.says, seen.whereabouts(trace.netlist), Gorvant::Held.against(trace, seen).verdict]
  end

  it "among the functions of readings is a line of data, and a file where the circuit expects something of it" do
    functions = Gorvant::Catalogue.evidence["functions"]
    microfarads = {
      "title" => "µF",
      "unit" => "µF",
      "at" => "load",
      "low" => 0.0,
      "high" => 200.0,
      "instruments" => ["clamp"]
    }
    catalogue(:evidence, functions: functions.merge("microfarads" => microfarads))
    given = { "function" => "microfarads", "place" => "COMP", "value" => 40, "value_high" => 42 }
    expect(held(given)).to eq(["40 to 42 µF", "compressor", "undetermined"])
    expect { held(given.merge("value" => 900)) }.to raise_error(Gorvant::BadObservation, %r{/value})

    stub_const(
      "Gorvant::Held::Farads",
      Module.new { def self.judge(*) = Gorvant::Held.judged("agrees", "ohms_joined", reads: "40 µF") }
    )
    catalogue(:evidence, functions: functions.merge("microfarads" => microfarads.merge("held" => "Farads")))
    expect(held(given).last).to eq("agrees")
  end

  it "among the places that are looked at is a line of data" do
    seen = Gorvant::Catalogue.evidence["functions"]["seen"]
    places = seen["places"].merge("filter" => { "title" => "filter", "choices" => { "clean" => nil, "loaded" => nil } })
    choices = seen["choices"].merge("clean" => "clean", "loaded" => "loaded")
    functions =
      Gorvant::Catalogue.evidence["functions"].merge("seen" => seen.merge("places" => places, "choices" => choices))
    catalogue(:evidence, functions: functions)
    expect(held({ "function" => "seen", "place" => "filter", "choice" => "loaded" })).to eq(
      %w[loaded filter undetermined]
    )
  end

  it "among the desks is a line of data and a folder: it has a mark, and keeps its own record" do
    drawer =
      Module.new do
        def self.standing(record)
          looked_at = record.kept.dig("filters", "sizes").to_a
          Gorvant::Standing.of("defrost", wrong: false, looked_at: looked_at, taken: [], count: looked_at.size)
        end

        def self.keep(given, _rig) = given.slice("sizes")
      end
    stub_const("Gorvant::Desks::Filters", drawer)
    catalogue(:desks, filters: { "title" => "Filters", "built" => true, "keeps" => true })
    expect(Gorvant::Desks.keeping).to include("filters")
    kept = Gorvant::Desks.keep("filters", { "sizes" => %w[16x20], "stray" => 1 }, rig)
    marks =
      [{}, { "filters" => kept }].map do |all|
        Gorvant::Desks.marks(Gorvant::VisitRecord.new(rig: rig, kept: all)).fetch("filters")
      end
    expect([kept, marks.first, marks.last]).to match([{ "sizes" => %w[16x20] }, "untouched", "agrees"])
  end

  it "among the facts is a line of data: asked, defaulted, read by a look, compared in words" do
    catalogue(
      :facts,
      pad_height_inches: {
        "title" => "Pad",
        "asks" => "how high",
        "group" => "outdoor",
        "kind" => "number",
        "low" => 0,
        "high" => 60,
        "unit" => "in",
        "default" => 4
      }
    )
    expect([rig[:pad_height_inches], rig.assumed]).to match([4, include("pad_height_inches")])
    expect(held({ "function" => "looked_up", "place" => "pad_height_inches", "choice" => 12 })).to eq(
      ["12 in", "Pad", "undetermined"]
    )
    taller = rig.set({ pad_height_inches: 12 }, "measured")
    expect(Gorvant::Comparison.of(rig, taller).map(&:title)).to eq(["Pad"])
  end

  it "among the faults is a line of data, and a class where its effect is new: broken, told, and in a trace" do
    corroded =
      Class.new(Gorvant::Fault) do
        # Ohms in series with a wire, by how green it is.
        def inject(netlist, held)
          branch = branch(netlist)
          [netlist.with(branch.with(props: branch.props.merge(ohms: given.fetch("green") * 10.0))), held]
        end
      end
    allow(Gorvant::Fault).to receive(:registry).and_return(Gorvant::Fault.registry.merge("corroded" => corroded))
    catalogue(:faults, corroded: { "title" => "%<at>s corroded", "is" => "green", "shows" => "a drop", "prior" => 1.0 })
    volts = ->(*faults) do
      broken = Gorvant::Trace.new(rig, Gorvant::Condition.new(call: "heat", faults: faults))
      [broken.solution.volts.fetch("outdoor.Y").abs, *broken.fault_titles]
    end
    at = { "kind" => "corroded", "at" => "cable_b.yellow", "green" => 2 }
    (sound,), (dropped, told) = volts.call, volts.call(at)
    expect([dropped < sound - 2, told]).to match([true, /yellow.* corroded/])
    expect { volts.call(at.merge("at" => "nowhere")) }.to raise_error(Gorvant::BadCondition)
  end

  # Two made-up options, an entry each: a switch of the safeties' string, and a load that hangs between two points.
  describe "among the options" do
    let(:entries) do
      {
        "OPS" => {
          "component" => {
            "title" => "oil-pressure switch",
            "protects" => true,
            "kind" => "switch",
            "moved_by" => "pressure",
            "rest" => "closed",
            "does" => "opens on low oil pressure",
            "cautions" => ["safeties"]
          },
          "string" => "safeties",
          "choice" => "oil pressure"
        },
        "HM" => {
          "component" => {
            "title" => "hour meter",
            "kind" => "load",
            "ohms" => 4000.0,
            "works_above_volts_ac" => 12.0,
            "does" => "counts the hours of Y"
          },
          "fact" => "hour_meter",
          "asks" => {
            "title" => "Hour meter",
            "asks" => "fitted",
            "group" => "outdoor",
            "kind" => "flag",
            "default" => false
          },
          "after" => "fan_cycling_switch",
          "across" => %w[outdoor.Y outdoor.C]
        }
      }
    end
    let(:whole) { { "safeties" => %w[LPS OPS HPS], "hour_meter" => true } }
    let(:fitted) { Gorvant::Composer.compose(name: "Optioned", facts: whole) }

    before { catalogue(:options, **entries.transform_keys(&:to_sym)) }

    def stations(view, **options)
      trace = Gorvant::Trace.new(fitted, Gorvant::Condition.new(call: "heat"))
      Gorvant::Views.scene(view, trace, options).stations.map { |one| one.id.split("/").last }
    end

    it "are asked, composed, and in the circuit: live in heating, dead behind a switch that is open" do
      keys = Gorvant::Catalogue.facts.keys
      expect(keys[keys.index("fan_cycling_switch") + 1]).to eq("hour_meter")
      expect([rig[:hour_meter], fitted[:hour_meter], fitted[:safeties]]).to eq([false, true, %w[LPS OPS HPS]])
      works = ->(**more) do
        solution = Gorvant::Trace.new(fitted, Gorvant::Condition.new(call: "heat", **more)).solution
        %w[HM CC].map { |code| solution.working?(code) }
      end
      expect([works.call, works.call(switches: { "OPS" => "open" })]).to eq([[true, true], [true, false]])
    end

    it "are drawn: loom, ladder, connections; and told in the legend, there or not" do
      %w[loops ladder connections].each { |view| expect(stations(view)).to include("HM", "OPS") }
      there = Gorvant::Legend.entries(Gorvant::Trace.new(fitted, Gorvant::Condition.new(call: "heat")))
      expect(there.select(&:fitted).map(&:code)).to include("HM", "OPS")
      lacks = Gorvant::Legend.entries(trace("heat")).find { |one| one.code == "HM" }
      expect(lacks).to have_attributes(fitted: false, title: "hour meter")
    end

    it "are drawn so that nothing lies on anything" do
      %w[loops ladder connections].each do |view|
        scene = Gorvant::Views.scene(view, Gorvant::Trace.new(fitted, Gorvant::Condition.new(call: "heat")), {})
        expect(Draughtsman.new(scene).complaints).to eq([])
      end
    end

    it "are written as rungs and read back" do
      text = Gorvant::Notation.print(fitted)
      expect(text).to include("LPS > OPS > HPS").and include("outdoor.Y > (HM) > C")
      back = Gorvant::Notation.parse(text, name: "Back")
      expect([back[:safeties], back[:hour_meter]]).to eq([%w[LPS OPS HPS], true])
    end

    it "can be broken, found and run" do
      kinds = Gorvant::Faults::Library.of(fitted).select { |one| %w[OPS HM].include?(one["at"]) }
      expect(kinds.map { |one| [one["kind"], one["at"]] }).to include(
        %w[stuck_open OPS],
        %w[stuck_closed OPS],
        %w[open HM]
      )
      found = Finding.new(Finding.library("optioned", fitted, 30.0))
      across = ["heat", "volts_ac", %w[outdoor.OPS.1 outdoor.OPS.2], 25.0]
      opened = found.finder([], across)
      weight = ->(id) { opened.beliefs[found.library.index(id)] }
      expect([found.top(opened), weight["opened_OPS"] > weight["stuck_open:OPS"]]).to eq(["opened_OPS", true])
      expect(found.first(opened.top).shows).to include("low oil pressure")
      script = {
        "moves" => [
          { "at_seconds" => 5, "what" => "call", "value" => "heat" },
          { "at_seconds" => 60, "what" => "switch", "of" => "OPS", "value" => "open" }
        ]
      }
      timeline = Gorvant::Run.of(fitted, Gorvant::Script.parse(script, 120))
      expect(timeline.signal("HM").steps.last[1]).to be(true)
      expect(timeline.signal("CC").steps.last(2)).to match([[be < 60, true], [60.0, false]])
    end
  end

  it "among the formats is a file: one that a run is written in says so, and is one of those" do
    tally =
      Module.new do
        def self.dump(timeline) = timeline.events.map(&:signal).tally.map { |one| one.join(" ") }.join("\n")
      end
    tally.const_set(:OF_RUN, { path: "tally", type: "text/plain" })
    before = Gorvant::Formats.of_run.map { |format| format::OF_RUN[:path] }
    stub_const("Gorvant::Formats::Tally", tally)
    expect(Gorvant::Formats.of_run.map { |format| format::OF_RUN[:path] }).to match_array(before + ["tally"])
    moves = [{ "at_seconds" => 0, "what" => "call", "value" => "heat" }]
    run = Gorvant::Run.of(BenchRigs::SINGLE, Gorvant::Script.parse({ "moves" => moves }, 600))
    texts = Gorvant::Formats.of_run.to_h { |format| [format::OF_RUN[:path], format.dump(run)] }
    expect(texts).to include(
      "tally" => match(/^CC \d/),
      "vcd" => include("$enddefinitions"),
      "events" => start_with("number")
    )
  end
end
