# frozen_string_literal: true

require_relative "../support/contract"

RSpec.describe "The defrost desk", :server do
  include_context "with the API's contract"

  let(:visit) { "/api/visits/#{visit_id}" }

  def ask(what, **body) = send_json(:post, "#{visit}/defrost/#{what}", body)
  def version = fetch(visit) && answer["version"]
  def verdicts = answer["verdicts"].map { |one| one["code"] }

  it "says what a defrost waits for and when it is due, as drawn and as found" do
    ask("outlook", coil_degrees_f: 24, counted_minutes: 20)
    due = answer["following"]["in_seconds"]
    expect(due).to be_positive
    expect(answer["checklist"].map { |line| line["id"] }).to include("supply", "t1", "fan")
    keep_desk(visit, "wiring", { landings: [{ cable: "cable_b", conductor: "red", place: "outdoor", lands_on: nil }] })
    ask("outlook", coil_degrees_f: 24, counted_minutes: 20, as_found: true)
    expect(answer["following"]).to include("in_seconds" => nil)
    expect(answer["lamps"].find { |lamp| lamp["id"] == "power" }).to include("on" => false)
    ask("outlook", coil_degrees_f: "cold")
    expect(last_response.status).to eq(422)
  end

  it "runs one history under every school, from text or a table, and finds those that fit" do
    ask("schools", history: { minutes: 170, fed: "0-25, 40-62, 75-", cold: "50-" }, seen: [])
    first = answer["courses"].to_h { |course| [course["school"], course["starts"].first] }
    expect(first.values_at("free", "run_time", "time_only", "run_time_cold").map(&:class).uniq).to eq([Float])
    ask("schools", text: "minutes,fed,cold\n0,1,1\n300,1,1\n", seen: [first["free"]])
    expect(last_response.status).to eq(200)
    ask("schools", history: { minutes: 170, fed: "25-0" })
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/history/fed"])
    ask("schools")
    expect(last_response.status).to eq(422)
  end

  it "keeps a forced test with the visit, marks the page, and does not close it with a jumper on" do
    test = {
      marks: {
        bridge_on: 10,
        fan_off: 31,
        strips_on: 60
      },
      counted_minutes: 0,
      tally: {
        coil_jumper: "on",
        bridge: "off"
      }
    }
    ask("forced_test", test: test)
    expect(verdicts.first).to include("interval")
    expect(answer["left_behind"]).to eq(["the jumper on the coil switch pins is still on"])
    keep_desk(visit, "defrost", { test: test.merge(closed: true) })
    expect([last_response.status, answer["detail"]]).to match([422, include("cannot be closed")])
    done =
      test.merge(closed: true, tally: { coil_jumper: "off", bridge: "off", sensor_plug: "on" }, answers: { fan: false })
    keep_desk(visit, "defrost", { test: done, seen: [60] })
    expect(answer["marks"]["defrost"]).to eq("disagrees")
    fetch(visit)
    expect(answer["desks"]["defrost"]["content"]["test"]["marks"]).to include("fan_off" => 31)
    keep_desk(visit, "defrost", { depth: 1 })
    expect(last_response.status).to eq(422)
    ask("forced_test", test: { marks: { fan_off: -1 } })
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/test/marks/fan_off"])
  end

  it "checks coil switch and thermistor, in words for what cannot be" do
    ask(
      "coil_switch",
      closes_degrees_f: 28,
      opens_degrees_f: 68,
      points: [{ degrees_f: 20, state: "closed" }, { degrees_f: 50, state: "closed" }, { degrees_f: 80, state: "open" }]
    )
    expect(verdicts).to eq(
      %w[coil_switch_closed_right coil_switch_history_right coil_switch_open_right coil_switch_proved]
    )
    ask("coil_switch", closes_degrees_f: 50, opens_degrees_f: 40, points: [])
    expect(last_response.status).to eq(422)
    ask(
      "thermistor",
      table_id: "reed_ten",
      points: [{ degrees_f: 50, ohms: 17_600 }, { degrees_f: 50, ohms: "OL" }, { degrees_f: 50, ohms: 0 }],
      pair: {
        coil_degrees_f: 41,
        air_degrees_f: 52
      }
    )
    expect(verdicts).to eq(%w[thermistor_drifted thermistor_open thermistor_short pair_differs])
    expect(answer["points"].first).to include("error_degrees_f" => be_within(0.3).of(5))
    [-5, "warm", nil].each do |ohms|
      ask("thermistor", table_id: "reed_ten", points: [{ degrees_f: 50, ohms: ohms }])
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/points/0/ohms"])
    end
    ask("thermistor", table_id: "nobody's", points: [])
    expect(last_response.status).to eq(404)
  end

  it "looks at a maker's table, keeps it whole, and refuses it row by row" do
    text = "degrees_f,ohms\n0,90000\n40,26000\n80,9000\n"
    send_json(:post, "/api/sensor_tables", name: "Own", text: text)
    expect(answer).to include("rows" => 3, "kept" => false, "refused" => [])
    send_json(:post, "/api/sensor_tables", name: "Own", text: text.sub("26000", "-1"), id: uuid, keep: true)
    expect(answer).to include("kept" => false, "table" => nil, "refused" => [include("line" => 3)])
    own = uuid
    send_json(:post, "/api/sensor_tables", name: "Own", text: text, id: own, keep: true)
    expect([last_response.status, answer["kept"]]).to eq([201, true])
    send_json(:post, "/api/sensor_tables", name: "Own", text: text, id: uuid, keep: true)
    expect(last_response.status).to eq(422)
    fetch("/api/sensor_tables")
    expect(answer["tables"].map { |table| [table["title"], table["own"]] }).to include(
      ["Own", true],
      [a_string_including("Reed"), false]
    )
    send_json(:post, "/api/sensor_tables/#{own}/deletion", "")
    expect(last_response.status).to eq(200)
  end
end
