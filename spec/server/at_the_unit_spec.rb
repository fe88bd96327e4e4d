# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

# What a technician at a unit leans on: a visit from nothing, its weather, its own words, and that nothing is
# half-written.
RSpec.describe "At the unit", :server do
  include_context "with the API's contract"

  let(:visit) { "/api/visits/#{visit_id}" }

  def version = fetch(visit) && answer["version"]
  def begin_with(kit, **more) =
    {
      id: uuid,
      site_name: "Reed mill",
      unit_name: "Loft unit",
      kit: kit,
      visit_on: "2026-11-28",
      complaint: "no heat"
    }.merge(more)
  def rows = %i[sites units rigs rig_revisions visits].to_h { |table| [table, db[table].count] }

  it "begins with a usual kit: one visit and one rig however often it is sent, all of it assumed" do
    body = begin_with("one_stage_odt")
    before = rows
    send_json(:post, "/api/visits", body)
    expect([last_response.status, answer["rig_name"]]).to eq([201, "Reed mill, Loft unit"])
    expect(answer["marks"].values).to all(eq("untouched").or(eq("so_far")))
    send_json(:post, "/api/visits", body)
    expect(last_response.status).to eq(200)
    expect(rows.to_h { |table, count| [table, count - before[table]] }.values).to all(eq(1))
    expect(answer["assumed"]).to be > 10
    send_json(:post, "/api/visits/#{body[:id]}/trace", condition: { call: "heat" })
    expect(answer["loads"].select { |load| load["on"] }.map { |load| load["code"] }).to include("COMP", "BLOWER")
  end

  {
    "no rig at all" => [{}, "/rig_id"],
    "a kit and a rig" => [{ kit: "one_stage", rig_id: SecureRandom.uuid }, "/rig_id"],
    "a kit that is none" => [{ kit: "two_stage_steam" }, "/kit"],
    "a rig that is not there" => [{ rig_id: SecureRandom.uuid }, nil],
    "an earlier visit that is not there" => [{ as_visit_id: SecureRandom.uuid }, nil]
  }.each do |what, (given, field)|
    it "refuses #{what}#{" at #{field}" if field}, and writes nothing" do
      before = rows
      send_json(:post, "/api/visits", begin_with(nil).except(:kit).merge(given))
      expect([last_response.status, answer["errors"]&.first&.fetch("field")]).to eq([field ? 422 : 404, field])
      expect(rows).to eq(before)
    end
  end

  describe "the weather of the visit" do
    before do
      send_json(:post, "/api/visits", begin_with("one_stage_odt", outdoor_degrees_f: 60))
      @made = answer["id"]
    end

    def strips(**condition)
      send_json(:post, "/api/visits/#{@made}/trace", condition: { call: "heat_aux", **condition })
      answer["loads"].find { |load| load["code"] == "HTR" }
    end

    it "puts the outdoor thermostat where that air puts it, says so, and yields to what is typed or supposed" do
      expect(strips).to include("on" => false, "as_designed" => true)
      expect(answer["stands"]).to include(include("code" => "ODT", "state" => "open", "says" => include("60")))
      expect(strips(outdoor_degrees_f: 20)).to include("on" => true)
      expect(strips(switches: { ODT: "closed" })).to include("on" => true)
      expect(answer["stands"].map { |stand| stand["code"] }).not_to include("ODT")
    end

    it "judges a reading by that weather" do
      send_json(
        :post,
        "/api/visits/#{@made}/readings",
        id: uuid,
        from_node: "air_handler.W",
        to_node: "air_handler.C",
        function: "volts_ac",
        value: 0.1,
        instrument: "high_impedance",
        condition: {
          call: "heat_aux"
        },
        taken_at: "2026-11-28T10:00:00Z"
      )
      expect(answer["verdict"]).to eq("agrees")
    end
  end

  describe "degrees" do
    def in_celsius(path) = get(path, {}, "HTTP_HOST" => "127.0.0.1", "HTTP_X_UNITS" => "C") && (@sent = "")

    it "come in °C where the request asks, by one formatter, and the numbers stay in °F" do
      in_celsius("/api/catalogue")
      expect(last_response.body).not_to match(/\d °F/)
      in_celsius(visit)
      expect(answer["outdoor_degrees_f"]).to eq(34.0)
    end

    it "come in kPa and meters too, on a drawing as in a sentence" do
      header("X-Units", "kPa m")
      send_json(:post, "#{visit}/drawing", view: "loops", condition: { call: "heat" })
      said = answer["labels"].map { |label| label["text"] }.grep(/AWG/)
      expect(said).to all(match(%r{ \d+(\.\d)? m\z})).and have_attributes(size: 2)
    ensure
      header("X-Units", nil)
    end

    it "never turn what a person wrote" do
      words = "Colder than 60 °F upstairs since Monday"
      send_json(:patch, visit, version: version, complaint: words)
      in_celsius(visit)
      expect(answer["complaint"]).to eq(words)
    end

    it "leave no mark of a difference in an answer" do
      send_json(:post, "#{visit}/settings", {})
      expect(last_response.body).not_to include("\u2060")
    end
  end

  it "keeps why a line of the bench list was not run, and refuses an empty reason" do
    bench = { "cool-1" => { "not_run" => "34 °F outside" }, "fan" => ["G"] }
    keep_desk(visit, "thermostat", { bench: bench })
    expect(answer["desks"]["thermostat"]["content"]["bench"]).to eq(bench)
    [{ "not_run" => " " }, { "not_run" => "x" * 201 }, { "later" => "yes" }, "G", 7].each do |bad|
      keep_desk(visit, "thermostat", { bench: { "cool-1" => bad } })
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/bench"])
    end
    fetch(visit)
    expect(answer["desks"]["thermostat"]["content"]["bench"]).to eq(bench)
  end

  it "keeps several forced tests, before and after, and refuses a heap of them" do
    test = { marks: { bridge_on: 10, bridge_off: 30 } }
    keep_desk(visit, "defrost", { test: test, earlier: [test, test] })
    expect(answer["desks"]["defrost"]["content"]["earlier"].size).to eq(2)
    keep_desk(visit, "defrost", { test: test, earlier: [test] * 13 })
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/earlier"])
    keep_desk(visit, "defrost", { test: test, earlier: [{ marks: { fan_of: 3 } }] })
    expect(last_response.status).to eq(422)
  end

  it "closes no forced test over the API whose marks leave a jumper on, or a question open" do
    [
      [{ jumper_on: 1, bridge_on: 5, bridge_off: 20 }, {}, "jumper"],
      [{ bridge_on: 5 }, {}, "bridge"],
      [{ bridge_on: 5, bridge_off: 20 }, { coil_jumper: "off" }, "unplugged"]
    ].each do |marks, tally, words|
      keep_desk(visit, "defrost", { test: { marks: marks, tally: tally, closed: true } })
      expect([last_response.status, answer["detail"]]).to match([422, include(words)])
    end
    keep_desk(
      visit,
      "defrost",
      {
        test: {
          marks: {
            bridge_on: 5,
            bridge_off: 20
          },
          tally: {
            coil_jumper: "off",
            sensor_plug: "on"
          },
          closed: true
        }
      }
    )
    expect(last_response.status).to eq(200)
  end

  it "leaves no revision behind when the visit that made it is stale" do
    fetch("#{visit}/rig")
    content = answer["content"]
    before = db[:rig_revisions].count
    send_json(
      :post,
      "#{visit}/fitted",
      revision: revision,
      version: version + 5,
      rig: content.merge("note" => "another")
    )
    expect(last_response.status).to eq(409)
    expect(db[:rig_revisions].count).to eq(before)
    send_json(:post, "#{visit}/fitted", revision: revision, version: version, rig: content.merge("note" => "another"))
    expect([last_response.status, db[:rig_revisions].count]).to eq([201, before + 1])
  end

  it "gives no all-clear of what nobody looked at" do
    send_json(:post, "/api/visits", begin_with("b_type"))
    made = "/api/visits/#{answer["id"]}"
    send_json(:post, "#{made}/wiring", {})
    expect([answer["works"], answer["standing"]["mark"]]).to eq([true, "untouched"])
    send_json(:post, "#{made}/settings", {})
    expect(answer["standing"]["mark"]).to eq("untouched")
    fetch(made)
    expect(answer["marks"].values_at("wiring", "thermostat", "trace", "defrost")).to eq(%w[untouched] * 4)
    expect(answer["marks"]["intake"]).not_to eq("agrees")
  end

  it "tells an unknown field, call, kind or visit in words that name it" do
    {
      { condition: { call: "heat", outdoor_degrees_f: "warm" } } => "/condition/outdoor_degrees_f",
      { condition: { call: "heat", faults: [{ kind: "tired" }] } } => "/condition/faults/0/kind",
      { condition: { call: "heat", moment: "later" } } => "/condition/moment",
      { condition: { call: "heat", switches: { FLS: "open" } } } => "/condition/switches/FLS"
    }.each do |body, field|
      send_json(:post, "#{visit}/trace", body)
      expect([last_response.status, answer["errors"]&.first&.fetch("field")]).to eq([422, field])
    end
  end
end
