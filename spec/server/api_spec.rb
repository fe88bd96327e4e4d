# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

# Requests and responses are checked against the OpenAPI document as they pass.
RSpec.describe "The API", :server do
  include_context "with the API's contract"

  def reading(**change)
    {
      id: uuid,
      from_node: "outdoor.C",
      to_node: "outdoor.Y",
      function: "volts_ac",
      value: 24.3,
      instrument: "high_impedance",
      condition: {
        call: "heat"
      },
      taken_at: "2026-11-24T10:00:00Z"
    }.merge(change)
  end

  def keep(body) = send_json(:post, "/api/visits/#{visit_id}/readings", body)

  it "lists visits with the tally of their readings" do
    fetch "/api/visits"
    north = answer["visits"].find { |visit| visit["unit"] == "North unit" }
    expect(north).to include(
      "site" => "Boathouse library",
      "readings" => {
        "agree" => 4,
        "disagree" => 1
      },
      "marks" => include("trace" => "disagrees", "wiring" => "untouched")
    )
  end

  it "traces a visit's rig, and answers the same again from what it keeps" do
    2.times { send_json(:post, "/api/visits/#{visit_id}/trace", { condition: { call: "heat" } }) }
    expect(answer["loads"].select { |load| load["on"] }.map { |load| load["code"] }).to include("COMP", "OFM", "BLOWER")
    expect(db[:computed_results].count).to eq(1)
  end

  it "draws what it traces where that is asked for, as the drawing by itself" do
    asked = { condition: { call: "heat" }, drawing: { view: "ladder", at_rest: true } }
    send_json(:post, "/api/visits/#{visit_id}/trace", asked)
    expect([answer["loads"].size, scene = answer["scene"]]).to match([be > 3, include("view" => "ladder")])
    send_json(:post, "/api/visits/#{visit_id}/drawing", { condition: { call: "heat" }, **asked[:drawing] })
    expect(answer).to eq(scene)
    send_json(:post, "/api/visits/#{visit_id}/trace", { condition: { call: "heat" }, drawing: { view: "focus" } })
    expect([last_response.status, answer["errors"].map { |one| one["field"] }]).to eq([422, ["/drawing/load"]])
  end

  it "carries the expected reading of every pair of drawn points, as the single measurement gives it" do
    send_json(:post, "/api/visits/#{visit_id}/expected", { condition: { call: "heat" }, instrument: "high_impedance" })
    table = answer
    index = table["nodes"].combination(2).to_a.index { |pair| pair.sort == %w[outdoor.C outdoor.Y] }
    send_json(
      :post,
      "/api/visits/#{visit_id}/measurement",
      { condition: { call: "heat" }, from_node: "outdoor.C", to_node: "outdoor.Y", instrument: "high_impedance" }
    )
    expect(
      [table["volts_ac"][index], table["says"][table["says_index"][index]], table["classes"][table["klass"][index]]]
    ).to eq(answer.values_at("volts_ac", "says", "klass"))
  end

  it "keeps a reading with all that gives it meaning, and judges it itself" do
    keep(reading)
    expect(last_response.status).to eq(201)
    expect(answer).to include(
      "verdict" => "agrees",
      "call_title" => "Heat",
      "circuit" => "reference",
      "taken_by" => "Local owner",
      "taken_at" => "2026-11-24T10:00:00Z"
    )
    expect(answer["expected"]).to include("klass" => "about_24")
    expect(db[:readings].where(id: answer["id"]).get(:rig_revision_id)).to eq(
      db[:visits].where(id: visit_id).get(:rig_revision_id)
    )
  end

  it "takes a whole number of volts as the number it is" do
    keep(reading(value: 24))
    expect([last_response.status, answer["value"], answer["verdict"]]).to eq([201, 24.0, "agrees"])
  end

  it "keeps one reading when the same is sent twice, and refuses another under its id" do
    body = reading
    2.times { keep(body) }
    expect(last_response.status).to eq(200)
    expect(db[:readings].where(id: body[:id]).count).to eq(1)
    keep(body.merge(value: 19.0))
    expect(last_response.status).to eq(409)
  end

  # What a person reads beside volts: body, and what is told of it.
  {
    "ohms of a coil by itself" => [
      { function: "ohms", from_node: "outdoor.CC.1", to_node: "outdoor.CC.2", value: 11.8, isolated: true },
      { "reads" => "11.8 Ω", "verdict" => "agrees", "instrument" => "ohmmeter", "isolated" => true }
    ],
    "an open coil" => [
      { function: "ohms", from_node: "outdoor.CC.1", to_node: "outdoor.CC.2", open: true, isolated: true },
      { "reads" => "OL", "value" => nil, "verdict" => "disagrees" }
    ],
    "a range" => [
      { function: "psi", place: "vapour_port", value: 310, value_high: 330, about: true },
      { "reads" => "about 310 to 330 psi", "where" => "vapor port", "verdict" => "undetermined", "expected" => nil }
    ],
    "what was seen" => [
      { function: "seen", place: "outdoor_fan", choice: "stands" },
      { "reads" => "stands", "where" => "outdoor fan", "verdict" => "disagrees" }
    ],
    "what was looked up" => [
      { function: "looked_up", place: "changeover", choice: "O" },
      { "reads" => "cooling (O)", "where" => "Reversing valve", "choice" => "O", "verdict" => "agrees" }
    ],
    "a flag looked up" => [
      { function: "looked_up", place: "outdoor_thermostat", choice: true },
      { "choice" => true, "reads" => "yes" }
    ],
    "what was done" => [
      { function: "did", place: "wire", choice: "lifted", note: "O, at the board" },
      { "reads" => "lifted", "note" => "O, at the board", "verdict" => "undetermined" }
    ],
    "nobody could tell" => [
      { function: "seen", place: "compressor", choice: "could_not_tell" },
      { "verdict" => "undetermined", "says" => "Kept: nobody could tell. Nothing follows." }
    ]
  }.each do |what, (given, told)|
    it "keeps #{what}, gives it back as it was kept, and takes it twice for one" do
      moment = { compressor_stopped_minutes: 4.0 }
      body = { id: uuid, condition: { call: "heat" }, moment: moment, taken_at: "2026-11-24T10:00:00Z" }.merge(given)
      2.times { keep(body) }
      expect([last_response.status, answer]).to match([200, include(told)])
      fetch "/api/visits/#{visit_id}/readings"
      kept = answer["readings"].select { |one| one["id"] == body[:id] }
      expect(kept).to match([include(told.merge("moment" => { "compressor_stopped_minutes" => 4.0 }))])
    end
  end

  it "takes no call for read by what was only looked up or seen in it" do
    kiln =
      db[:visits].join(:units, id: :unit_id).where(Sequel[:units][:name] => "Kiln shed unit").get(Sequel[:visits][:id])
    open_calls = -> { fetch("/api/visits/#{kiln}") && answer["standing"]["trace"] }
    keep = ->(body) { send_json(:post, "/api/visits/#{kiln}/readings", body) }
    cool = { condition: { call: "cool" } }
    seen = { id: uuid, function: "seen", place: "outdoor_fan", choice: "turns", taken_at: "2026-11-24T10:00:00Z" }
    before = open_calls.call
    keep.call(seen.merge(cool))
    expect([answer["verdict"], open_calls.call]).to eq(["agrees", before])
    keep.call(reading(**cool))
    expect([answer["verdict"], open_calls.call]).to match(["agrees", satisfy { |says| says != before }])
  end

  it "supersedes and takes back, and shows both for ever" do
    keep(first = reading(value: 2.43))
    keep(second = reading(supersedes_id: first[:id]))
    keep(reading(supersedes_id: first[:id]))
    expect([last_response.status, answer["errors"][0]["field"]]).to eq([422, "/supersedes_id"])
    2.times { send_json(:post, "/api/visits/#{visit_id}/readings/#{second[:id]}/retraction", "") }
    fetch "/api/visits/#{visit_id}/readings"
    both = answer["readings"].last(2)
    expect(both[0]).to include("value" => 2.43, "superseded_by_id" => second[:id], "verdict" => "disagrees")
    expect(both[1]["retracted_at"]).not_to be_nil
    fetch "/api/visits"
    expect(answer["visits"].find { |visit| visit["id"] == visit_id }["readings"]).to eq("agree" => 4, "disagree" => 1)
  end

  # What must come back as a clear error that names the field, with nothing written.
  {
    "a negative reading" => [{ value: -1 }, "/value"],
    "a reading that is text" => [{ value: "lots" }, "/value"],
    "a reading of a million" => [{ value: 1_000_000 }, "/value"],
    "both probes on one point" => [{ to_node: "outdoor.C" }, "/to_node"],
    "a point that is not there" => [{ to_node: "outdoor.YY" }, "/to_node"],
    "an unknown call" => [{ condition: { call: "warm" } }, "/condition/call"],
    "an unknown key in the condition" => [{ condition: { call: "heat", mood: "bad" } }, "/condition/mood"],
    "an unknown meter" => [{ instrument: "tongue" }, "/instrument"],
    "no time" => [{ taken_at: "yesterday-ish" }, "/taken_at"],
    "a key that is none" => [{ verdict: "agrees" }, "/verdict"],
    "an id that is no UUID" => [{ id: "1; DROP TABLE readings" }, "/id"],
    "a note of 10 000 characters" => [{ note: "x" * 10_000 }, "/note"]
  }.each do |name, (change, field)|
    it "refuses #{name}" do
      expect { keep(reading(**change)) }.not_to(change { db[:readings].count })
      expect(last_response.status).to eq(422)
      expect(answer.fetch("errors").map { |error| error["field"] }).to include(field) if field
    end
  end

  it "keeps script tags as the plain text they are" do
    keep(reading(note: "<script>alert(1)</script>"))
    expect(answer["note"]).to eq("<script>alert(1)</script>")
    expect(last_response.headers["content-type"]).to start_with("application/json")
  end

  it "answers 404 for what is not there, as problem details" do
    ["/api/visits/#{uuid}", "/api/visits/none", "/api/rigs/#{uuid}"].each do |path|
      fetch path
      expect([last_response.status, last_response.headers["content-type"]]).to eq([404, "application/problem+json"])
    end
  end

  it "imports a rig file, exports it unchanged, and traces it" do
    file = rig_file.merge("name" => "My own rig")
    send_json(:post, "/api/rigs", { id: (id = uuid), rig: file })
    expect(last_response.status).to eq(201)
    fetch "/api/rigs/#{id}/export"
    expect(answer).to eq(file)
    send_json(:post, "/api/rigs/#{id}/trace", { condition: { call: "cool" } })
    expect(answer["loads"].find { |load| load["code"] == "RVS" }["on"]).to be(true)
  end

  it "refuses a bad rig file with the pointer to each fault, and keeps nothing" do
    file = rig_file
    file["cables"][0]["conductors"][2]["to"] = "Q"
    file["cables"][1]["conductors"][0].delete("from")
    expect { send_json(:post, "/api/rigs", { id: uuid, rig: file }) }.not_to(
      change { [db[:rigs].count, db[:rig_revisions].count] }
    )
    expect(answer["errors"].map { |error| error["field"] }).to eq(
      %w[/cables/0/conductors/2/to /cables/1/conductors/0/from]
    )
  end

  it "begins a visit at a new site, once however often it is sent" do
    rig_id = db[:rigs].get(:id)
    body = {
      id: uuid,
      site_name: "Lantern studio",
      unit_name: "Kiln room unit",
      rig_id: rig_id,
      visit_on: "2026-11-24",
      complaint: "Cold",
      symptoms: ["no_heat"]
    }
    2.times { send_json(:post, "/api/visits", body) }
    expect(last_response.status).to eq(200)
    expect(answer).to include("site" => "Lantern studio", "symptom_titles" => ["No heat"])
    expect(db[:units].where(name: "Kiln room unit").count).to eq(1)
    send_json(:post, "/api/visits", body.merge(id: uuid, rig_id: uuid))
    expect(last_response.status).to eq(404)
  end

  it "refuses a change made on an old version, and tells both values" do
    send_json(:patch, "/api/visits/#{visit_id}", { version: 1, complaint: "First" })
    expect(answer).to include("complaint" => "First", "version" => 2)
    send_json(:patch, "/api/visits/#{visit_id}", { version: 1, complaint: "Second" })
    expect(last_response.status).to eq(409)
    expect(answer).to include(
      "current_version" => 2,
      "current" => {
        "complaint" => "First"
      },
      "given" => {
        "complaint" => "Second"
      }
    )
  end

  it "takes the demo data out but for what a user's visit needs, and brings it back" do
    demo_visits = db[:visits].count
    rig_id = db[:rigs].where(name: "Observatory hostel, bunks").get(:id)
    unit_id = db[:units].where(name: "Bunk room unit").get(:id)
    send_json(:post, "/api/visits", { id: uuid, unit_id: unit_id, rig_id: rig_id, visit_on: "2026-11-24" })
    send_json(:post, "/api/demo/removal", "")
    expect([db[:visits].count, db[:rigs].select_map(:name), db[:units].select_map(:name)]).to eq(
      [1, ["Observatory hostel, bunks"], ["Bunk room unit"]]
    )
    send_json(:post, "/api/demo/restoration", "")
    expect(db[:visits].count).to eq(demo_visits + 1)
  end

  it "tells what it speaks: its document, its catalogue, its viewer, its sites" do
    fetch "/api/openapi.json"
    expect(answer["openapi"]).to eq("3.1.0")
    fetch "/api/catalogue"
    expect(answer["calls"].map { |call| call["key"] }).to eq(%w[1 2 3 8 4 9 5 6 7])
    fetch "/api/sites"
    expect(answer["sites"].map { |site| site["name"] }).to include("Reed Lane clinic")
    fetch "/api/viewer"
    expect(answer).to include("crew" => "Larkmere crew", "role" => "owner")
  end
end
