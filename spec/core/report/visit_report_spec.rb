# frozen_string_literal: true

require_relative "../../support/core"

# What goes on paper: never more than the verdict, and nothing of it lost.
RSpec.describe Gorvant::VisitReport do
  fitted = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  break_in_y = { "kind" => "open", "at" => "cable_b.yellow" }

  find = ->(key, faults: [break_in_y]) do
    {
      outcome: {
        key: key,
        says: "What Find says: #{key}.",
        not_proved: "What it does not prove."
      },
      suspects: [
        { title: "Yellow open", carried_by: ["C to Y: 0 V"], against: [], alike: ["Splice open"], faults: faults }
      ],
      evidence: [*[{ says: "C to Y: 0 V", aside: false }] * 2, { says: "C to R: 0 V", aside: true }],
      changed: [{ says: "Read 24 V, then 0." }],
      assumed: ["Contactor poles: not read"]
    }
  end
  report = ->(close_out, found: nil, photos: [], wiring: {}, **fields) do
    record =
      Gorvant::VisitRecord.new(
        rig: fitted,
        outdoor_degrees_f: 40.0,
        kept: {
          "close_out" => close_out,
          "wiring" => wiring
        },
        **fields
      )
    about =
      described_class::About.new(
        site: "Bramble mill",
        unit: "Loft unit",
        visit_on: "2026-11-29",
        complaint: "It is cold",
        find: found,
        photos: photos,
        names: ["Ilse"],
        crew: "Larkmere crew"
      )
    described_class.new(record, about).to_h
  end
  section = ->(given, id) { given["sections"].find { |one| one["id"] == id } }
  words = ->(value) { JSON.generate(value) }

  # [what Find came to, whether the loop is drawn with the break]
  {
    "proved" => true,
    "unproved" => true,
    "found" => false,
    "open" => false,
    "none" => false,
    "as_designed" => false,
    "fuse_open" => false,
    "landings" => false,
    "not_now" => false,
    "nothing_left" => false
  }.each do |key, drawn|
    it "says of #{key} what Find says, what that does not prove and leans on#{", and draws the break" if drawn}" do
      given = report.call({ "cause" => "find" }, found: find.call(key))
      said = words.call(section.call(given, "finding"))
      expect(said).to include(
        "What Find says: #{key}.",
        "What it does not prove.",
        "C to Y: 0 V",
        "Splice open",
        "Contactor poles: not read",
        "Read 24 V, then 0.",
        "evidence: 2.",
        "Not weighed: C to R: 0 V."
      )
      expect(given["cause"]).to eq(%w[proved unproved found as_designed].include?(key) ? "Yellow open" : nil)
      loop = section.call(given, "loop")
      expect(!loop.nil?).to eq(drawn)
      expect(loop["blocks"].first["svg"]).to include("<svg", "≠") if drawn
    end
  end

  it "draws the loop that the unit as found breaks, where that explains it" do
    landing = {
      "cable" => "cable_b",
      "conductor" => "yellow",
      "place" => "outdoor",
      "lands_on" => nil,
      "lies" => "bare"
    }
    found = { "landings" => [landing] }
    given = report.call({ "cause" => "find" }, found: find.call("found", faults: []), wiring: found)
    expect(section.call(given, "loop")["blocks"].first["svg"]).to include("off its terminal", "outdoor Y")
  end

  it "draws no loop for what opens none" do
    shut = { "kind" => "set_up", "at" => "stages_setup", "value" => 1 }
    expect(
      section.call(report.call({ "cause" => "find" }, found: find.call("proved", faults: [shut])), "loop")
    ).to be_nil
    expect(section.call(report.call({ "cause" => "find" }, found: find.call("proved", faults: [])), "loop")).to be_nil
  end

  it "says of a written finding that no computation stands behind it, and of none that nothing was said" do
    given = report.call({ "cause" => "written", "finding" => "A loose lug." }, found: find.call("proved"))
    expect(words.call(section.call(given, "finding"))).to include("A loose lug.", "No computation").and not_include(
            "What Find says"
          )
    expect(words.call(section.call(report.call({}), "finding"))).to include("Nothing has been said to be found")
    expect(words.call(section.call(report.call({ "cause" => "find" }), "finding"))).to include("had not answered")
  end

  it "counts as run only what was run, names the rest, and runs nothing in a unit that is left off" do
    calls = Gorvant::Outputs.calls(fitted).to_h { |id| [id, { "how" => "run", "as" => "expected" }] }
    checked = ->(with, **more) do
      words.call(report.call({ "calls" => calls.merge(with), **more.transform_keys(&:to_s) })["customer"])
    end
    expect(checked.call({})).to include("7 were run and did as they should.\"")
    expect(checked.call({ "cool" => { "how" => "low_voltage", "as" => "expected" } })).to include(
      "6 were run",
      "nothing was run: Cool."
    )
    expect(checked.call({ "cool" => { "how" => "not_run", "note" => "cold" } })).to include(
      "6 were run",
      "Not run: Cool."
    )
    expect(checked.call({ "heat" => { "how" => "run", "as" => "otherwise", "note" => "no fan" } })).to include(
      "6 were run",
      "Not as it should: Heat."
    )
    off = report.call({ "calls" => calls, "left_off" => "no part" })
    expect(words.call(off["customer"])).to include("LEFT OFF", "no part", "Nothing was run").and not_include(
            "were run and did"
          )
    expect(off["handover"]).to include("LEFT OFF").and include("no part")
  end

  it "leaves every open thing standing where it is read last" do
    fields = { symptoms: ["iced_outdoor_unit"] }
    given =
      report.call(
        {
          "answered" => "partly",
          "natural_defrost" => "not_seen",
          "put_back" => {
            "set_point" => {
              "left" => "asked to"
            }
          }
        },
        **fields
      )
    open = words.call(section.call(given, "follow_up"))
    expect(open).to include("Still to be seen", "In part", "Left as it was", "clears nothing that comes and goes")
    seen = report.call({ "answered" => "yes", "natural_defrost" => "seen" }, **fields)
    expect(words.call(section.call(seen, "follow_up"))).to include("clears nothing").and not_include("Still to be seen")
    expect(words.call(section.call(given, "put_back"))).to include("LEFT", "asked to", "NOT TICKED")
  end

  it "prints the newest of very many readings, and says how many it does not" do
    reads =
      Array.new(605) do |i|
        Gorvant::VisitRead.new(
          id: i.to_s,
          observation: Gorvant::Observation.new(function: "did", place: "power", choice: "cut", instrument: "person"),
          condition: Gorvant::Condition.new(call: "off"),
          at: "2026-11-29T09:00:00Z",
          note: "no. #{i}"
        )
      end
    said = words.call(section.call(report.call({}, reads: reads), "readings"))
    expect(said).to include("(5)", "no. 604").and not_include("no. 4\"")
    expect(words.call(section.call(report.call({}, reads: reads.first(600)), "readings"))).to include(
      "no. 0\""
    ).and not_include("archive")
  end

  it "keeps a person's words apart from its own, so that nothing of them is turned" do
    given =
      report.call(
        { "plain" => "It was 34 °F.", "cause" => "written", "finding" => "34 °F outside", "done" => "nothing at 34 °F" }
      )
    turned = Gorvant::Measures.all(JSON.parse(JSON.generate(given)), %w[C]) { |key, _| %w[own handover].include?(key) }
    expect(words.call(turned).scan("34 °F").size).to eq(words.call(given).scan("34 °F").size)
  end

  RSpec::Matchers.define_negated_matcher :not_include, :include
end
