# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"
require_relative "../support/killed_worker"

RSpec.describe "Find", :server do
  weather = (2000..).each.lazy.map { |hundredths| hundredths / 100.0 }.each_entry
  include_context "with the API's contract"

  let(:worker) { Gorvant::Server::Worker.new(db) }
  let(:visit) { "/api/visits/#{visit_id}" }

  # A weather of its own for each example: what a process has laid out outlives the tables that specs empty.
  before do
    Gorvant::Server::Visits.new(db, ServerBench.viewer).change(
      visit_id,
      db[:visits].where(id: visit_id).get(:version),
      outdoor_degrees_f: weather.next
    )
  end

  def ask(**given) = send_json(:post, "#{visit}/find", given)

  def worked_out
    ask
    worker.run_one
    ask
  end

  def top = answer["suspects"].first["id"]

  it "is worked out once for a unit and its weather, and answers from what the visit holds" do
    2.times { ask }
    expect([last_response.status, db[:tasks].count]).to eq([202, 1])
    worker.run_one
    ask
    expect(last_response.status).to eq(200)
    expect(answer["looked_at"]["tests"]).to be > 200
    sources = answer["evidence"].map { |one| one["source"] }
    expect(sources).to include("defrost").and include(
            *db[:readings].where(visit_id: visit_id, function: "seen").map(:id).first(1)
          )
    expect(answer["suspects"].sum { |one| one["belief"] } + answer["rest"]["belief"]).to be_within(0.01).of(1.0)
    expect(answer["next"]["condition"]["call"]).to eq("heat")
  end

  it "gives a first look of the complaint's calls while all else is worked out, to who asks for it, and no mark" do
    send_json(:patch, visit, version: fetch(visit) && answer["version"], symptoms: %w[no_heat])
    ask(early: true)
    expect([last_response.status, answer["state"]]).to eq([202, "waiting"])
    KilledWorker.after_first_look(self, worker, db)
    ask
    expect(last_response.status).to eq(202)
    task = answer
    ask(early: true)
    expect([last_response.status, answer["task"]]).to eq([200, task])
    first = answer
    expect(first["first_look"]).to match(/\AFirst look: the likeliest \d+ of \d+ causes, as they show in Heat\./)
    expect([first["outcome"]["key"], first["next"]["condition"]["call"]]).to eq(%w[open heat])
    expect([listed, mark]).to eq(%w[untouched untouched])
    worker.run_one
    ask(early: true)
    expect(answer.values_at("first_look", "task")).to eq([nil, nil])
    expect(answer["looked_at"]["tests"]).to be > first["looked_at"]["tests"] * 2
    expect(listed).to eq("so_far")
  end

  # A reading that goes beside every test.
  def interval(id) =
    {
      id: id,
      function: "looked_up",
      place: "defrost_interval_minutes",
      choice: 60,
      condition: {
        call: "heat"
      },
      taken_at: Time.now.utc.iso8601
    }

  it "weighs a reading as it comes, and forgets it when it is taken back" do
    worked_out
    before = answer.except("stands")
    id = uuid
    send_json(:post, "#{visit}/readings", interval(id))
    expect(last_response.status).to eq(201)
    ask
    expect(answer["suspects"]).not_to eq(before["suspects"])
    send_json(:post, "#{visit}/readings/#{id}/retraction", "")
    ask
    expect(answer.except("stands")).to eq(before)
  end

  it "is of the unit as it was last found: another is worked out anew, and put right it is the one before" do
    worked_out
    before = answer["suspects"]
    lands = ->(*list) do
      landings = list.map { |at| { cable: "cable_a", conductor: "yellow", place: "wall", lands_on: at } }
      keep_desk(visit, "wiring", { landings: landings, jumpers: [] })
      ask
      last_response.status
    end
    expect([lands.call("G"), lands.call("Y"), lands.call]).to eq([202, 200, 200])
    expect([last_response.status, answer["suspects"]]).to eq([200, before])
  end

  def listed = fetch("/api/visits") && answer["visits"].find { |one| one["id"] == visit_id }["marks"]["find"]
  def mark = fetch(visit) && answer["marks"]["find"]

  it "stands on the day sheet as it was last asked, until anything that it follows from is another" do
    expect([listed, mark]).to eq(%w[untouched untouched])
    worked_out
    expect(answer["mark"]).to eq("so_far")
    expect([listed, mark]).to eq(%w[so_far so_far])
    reading = {
      id: uuid,
      function: "looked_up",
      place: "defrost_interval_minutes",
      choice: 60,
      condition: {
        call: "heat"
      },
      taken_at: Time.now.utc.iso8601
    }
    turns = {
      "a reading" => -> { send_json(:post, "#{visit}/readings", reading) },
      "a reading taken back" => -> { send_json(:post, "#{visit}/readings/#{reading[:id]}/retraction", "") },
      "what a desk keeps" => -> { keep_desk(visit, "thermostat", { settings: { stage_delay_minutes: 20 } }) },
      "the complaint" => -> do
        send_json(:patch, visit, version: fetch(visit) && answer["version"], symptoms: %w[no_heat])
      end
    }
    turns.each do |what, turn|
      turn.call
      expect([what, listed, mark]).to eq([what, "untouched", "untouched"])
      worked_out
      expect([what, listed, mark]).to eq([what, "so_far", "so_far"])
    end
    db[:visit_desks].where(visit_id: visit_id, desk: "close_out").delete
    keep_desk(visit, "close_out", { done: "Looked at it" })
    expect(listed).to eq("so_far") # what is written at the end is nothing that Find follows from
    stub_const("Gorvant::Server::FindMarks::STATE", "'of another engine'")
    expect(listed).to eq("untouched")
  end

  # Down the tests that it asks for, not possible here, until one is seen.
  def until_seen
    worked_out
    skipped = []
    until %w[seen looked_up].include?(answer["next"]["function"])
      skipped << answer["next"]["id"]
      ask(skip: skipped)
    end
    skipped
  end

  it "asks no more for what nobody could tell, until that is taken back; it weighs nothing" do
    skipped = until_seen
    before = answer
    told = before["next"].slice("function", "place", "condition")
    id = uuid
    told.update(id: id, choice: "could_not_tell", taken_at: Time.now.utc.iso8601)
    send_json(:post, "#{visit}/readings", told)
    expect([last_response.status, answer["verdict"]]).to eq([201, "undetermined"])
    ask(skip: skipped)
    expect(answer["next"]["id"]).not_to eq(before["next"]["id"])
    expect(answer["suspects"].map { |one| one["belief"] }).to eq(before["suspects"].map { |one| one["belief"] })
    send_json(:post, "#{visit}/readings/#{id}/retraction", "")
    ask(skip: skipped)
    expect(answer["next"]["id"]).to eq(before["next"]["id"])
  end

  # A visit of the same unit, in a weather of its own.
  def begun(degrees_f)
    unit = db[:visits].where(id: visit_id).get(:unit_id)
    given = { id: uuid, unit_id: unit, as_visit_id: visit_id, outdoor_degrees_f: degrees_f, symptoms: %w[no_heat] }
    send_json(:post, "/api/visits", given.merge(visit_on: "2026-11-30"))
    expect(last_response.status).to eq(201)
    given[:id]
  end

  # [[id, whether nobody waits for it]]
  def waiting =
    db[:tasks].where(state: "waiting").order(:created_at).map { |task| [task[:id], task[:input].key?("ahead")] }

  it "is begun as a visit is, behind what somebody waits for, and once where it is there or asked for already" do
    first, second = [97.31, 12.31].map { |degrees_f| begun(degrees_f) }
    begun(97.31)
    expect(waiting.map(&:last)).to eq([true, true])
    send_json(:post, "/api/visits/#{second}/find", { early: true })
    expect([answer["id"], waiting.map(&:last)]).to eq([waiting.last.first, [true, false]])
    expect([worker.run_one, worker.run_one]).to eq([answer["id"], db[:tasks].order(:created_at).get(:id)])
    [first, second].each do |id|
      send_json(:post, "/api/visits/#{id}/find", { early: true })
      expect([last_response.status, answer["first_look"]]).to eq([200, nil])
    end
    begun(12.31)
    expect(waiting).to eq([])
  end

  it "keeps no visit from being begun, whatever Find has against the unit" do
    allow(Gorvant::Desks::Find).to receive(:situation).and_raise(Gorvant::BadCondition.new(field: "/", problem: "odd"))
    expect([begun(96.31), waiting]).to match([String, []])
  end

  it "begins anew where the unit is otherwise, and lets the older work go" do
    ask
    first = answer["id"]
    send_json(:patch, visit, version: db[:visits].where(id: visit_id).get(:version), outdoor_degrees_f: 61)
    ask
    expect([last_response.status, db[:tasks].where(id: first).get(:state)]).to eq([202, "cancelled"])
    expect(answer["id"]).not_to eq(first)
  end

  it "leaves out what cannot be done here, stays where one stands, and turns to one suspect" do
    worked_out
    skipped = answer["next"]["id"]
    ask(skip: [skipped], stands: "wall", mode: "here", about: top)
    expect(answer["next"]&.fetch("id")).not_to eq(skipped)
    expect(
      [answer["next"], *answer["next"]&.fetch("others")].compact.map { |test| test["at"] }.uniq - ["wall", nil]
    ).to eq([])
    ask(about: top)
    expect(answer["about"].first).to include("says", "minutes", "expects")
    ask(about: "no such thing")
    expect(answer["about"]).to be_nil
  end

  it "says what a spoken line is taken for, with call and place from the line before, and keeps nothing" do
    before = db[:readings].count
    send_json(:post, "#{visit}/saying", text: "see to why twenty four point three", call: "heat", at: "outdoor")
    way = answer["ways"].first
    expect(way).to include("where" => "outdoor C – outdoor Y", "reads" => "24.3 V", "call" => "heat", "left" => [])
    send_json(:post, "#{visit}/saying", text: "fan stands", call: "heat", chosen: { call: "defrost" })
    expect(answer["ways"].first).to include("call" => "defrost", "reads" => "stands")
    send_json(:post, "#{visit}/saying", text: "o zero outdoors in heat, low z")
    expect(answer["ways"].first).to include("meter" => "low_impedance", "left" => [])
    send_json(:post, "#{visit}/saying", text: "board shows two flashes", call: "heat", meter: "low_impedance")
    expect(answer["ways"].first).to include("meter" => nil, "note" => "board shows two flashes")
    send_json(:post, "#{visit}/saying", text: "fan stands, compressor hums", call: "heat")
    expect([answer["ways"].map { |one| one["reads"] }, answer["rest"]]).to eq([["stands"], "compressor hums"])
    send_json(:post, "#{visit}/saying", text: "good morning")
    expect([answer["ways"], db[:readings].count]).to eq([[], before])
    send_json(
      :post,
      "#{visit}/readings",
      id: uuid,
      condition: {
        call: "heat"
      },
      taken_at: Time.now.utc.iso8601,
      **way["given"]
    )
    expect([last_response.status, answer["verdict"]]).to eq([201, "agrees"])
  end

  # Asked for, worked out and asked for again; the kind of what was to be worked out.
  def road_map(**asked)
    send_json(:post, "#{visit}/road-map", asked)
    kind = last_response.status == 202 ? answer["kind"] : nil
    worker.run_one
    kind
  end

  it "draws a road map from where the visit stands: a task once what it is drawn from is there, another after a reading" do
    expect(Array.new(3) { road_map }).to eq(["signatures", "road_map", nil])
    expect([last_response.status, answer["leaves"]]).to match([200, be_between(1, 25)])
    drawn = answer
    expect([road_map(mode: "fewest"), road_map]).to eq(["road_map", nil])
    expect(answer).to eq(drawn)
    send_json(:post, "#{visit}/readings", interval(uuid))
    expect([last_response.status, road_map, road_map]).to eq([201, "road_map", nil])
    expect(answer["tree"]).not_to eq(drawn["tree"])
    after = answer
    ask
    expect(after.dig("tree", "test", "says")).to eq(answer["next"]["says"])
  end

  it "draws no road map of a unit that was changed meanwhile, and says so" do
    road_map
    send_json(:post, "#{visit}/road-map", {})
    id = answer["id"]
    send_json(:patch, visit, version: db[:visits].where(id: visit_id).get(:version), outdoor_degrees_f: 61)
    worker.run_one
    fetch("/api/tasks/#{id}")
    expect(answer.values_at("state", "error")).to match(["failed", /changed while .* ask for it again/])
    expect(road_map).to eq("signatures")
  end

  it "refuses what it does not know" do
    ask(stands: "roof")
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/stands"])
  end
end
