# frozen_string_literal: true

require_relative "../support/core"

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
end
