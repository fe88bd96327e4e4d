# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

RSpec.describe "Search", :server do
  include_context "with the API's contract"

  def search(text = nil, **more)
    send_json(:post, "/api/search", { text: text, **more }.compact)
    expect(last_response.status).to eq(200)
    answer["visits"].map { |row| row["site"] }
  end

  # [what is typed, sites that are found]
  [
    ["kiln", ["Mossgate kiln hall", "Lantern studio"]],
    ["klin", ["Mossgate kiln hall", "Lantern studio"]],
    ["Klin hall", ["Mossgate kiln hall"]],
    ["boathuose", ["Boathouse library"]],
    ["iln hall", ["Mossgate kiln hall"]],
    ["xkiln", ["Mossgate kiln hall", "Lantern studio"]],
    ["iced", ["Mossgate kiln hall", "Boathouse library"]],
    ["reading room cold", ["Boathouse library"]],
    ["bakery fan switch", ["Quince Street bakery"]],
    ["clin", ["Reed Lane clinic", "Reed Lane clinic"]],
    ["zzzz", []],
    ["kiln & !hall | (", ["Mossgate kiln hall"]],
    ["' OR 1=1 --", []]
  ].each { |typed, sites| it("finds #{sites} by #{typed.inspect}") { expect(search(typed)).to eq(sites) } }

  it "says as what it read a word, and which word nothing is near" do
    search("klin")
    expect(answer["read_as"]).to eq([{ "typed" => "klin", "words" => ["kiln"] }])
    search("kiln zzzzz")
    expect([answer["unknown"], answer["visits"]]).to eq([["zzzzz"], []])
    search("clinic waiting")
    expect([answer["read_as"], answer["unknown"]]).to eq([[], []])
  end

  it "finds by what was written after: notes, a finding, a reading's note, a unit's note; and not by what was taken back" do
    unit = db[:visits].where(id: visit_id).get(:unit_id)
    send_json(:patch, "/api/units/#{unit}", version: 1, notes: "breaker behind the marmalade shelf")
    keep_desk("/api/visits/#{visit_id}", "close_out", { finding: "welded relay", done: "new flange" })
    reading = {
      id: uuid,
      function: "did",
      place: "jumper",
      choice: "jumper_on",
      note: "cobalt clip",
      condition: {
        call: "heat"
      },
      taken_at: Time.now.utc.iso8601
    }
    send_json(:post, "/api/visits/#{visit_id}/readings", reading)
    expect(last_response.status).to eq(201)
    ["marmalade", "welded", "flange", "cobalt", "marmalad cobalt"].each do |text|
      expect([text, search(text)]).to eq([text, ["Boathouse library"]])
    end
    expect(answer["visits"].first["hit"]).to include("marmalade")
    send_json(:post, "/api/visits/#{visit_id}/readings/#{reading[:id]}/retraction", "")
    expect(search("cobalt")).to eq([])
    keep_desk("/api/visits/#{visit_id}", "close_out", { finding: "nothing" })
    expect(search("welded")).to eq([])
  end

  def closing(id, number, cause, reopened_at: nil)
    content = { "report" => { "title" => "T", "cause" => cause } }
    db[:closings].insert(
      **db[:visits].where(id: id).select(:crew_id, :created_by).first,
      id: uuid,
      visit_id: id,
      number: number,
      mark: "agrees",
      content: Sequel.pg_jsonb(content),
      digest: "x",
      reopened_at: reopened_at,
      request_digest: "x"
    )
  end

  it "finds by what the closing that holds names as the cause, and lists those, not those of one opened again" do
    ids = db[:visits].where(closed_number: nil).order(:id).select_map(:id)
    listed = -> { fetch("/api/causes") && (answer["causes"].map(&:values) - @before) }
    @before = []
    @before = listed.call
    closing(ids[0], 1, "LPS open", reopened_at: Time.now)
    closing(ids[0], 2, "HPS stuck open at the outdoor unit's strip")
    ids[1, 2].each { |id| closing(id, 1, "Wire off") }
    closing(ids[3], 1, nil)
    expect(listed.call).to eq([["Wire off", 2], ["HPS stuck open at the outdoor unit's strip", 1]])
    found = ->(cause) { search(nil, cause: cause) && answer["visits"].map { |row| row["id"] } }
    expect(found.call("Wire off")).to match_array(ids[1, 2])
    expect(found.call("HPS stuck open at the outdoor unit's strip")).to eq([ids[0]])
    expect([found.call("LPS open"), found.call("wire off")]).to eq([[], []])
    db[:visits].where(id: ids[1]).update(binned_at: Time.now)
    expect(found.call("Wire off")).to eq([ids[2]])
    expect(fetch("/api/causes") && answer["causes"].first.values).to eq(
      ["HPS stuck open at the outdoor unit's strip", 1]
    )
  end

  it "filters by symptom, day, who began it, and whether it is closed" do
    expect(search(nil, symptom: "iced_outdoor_unit")).to eq(["Mossgate kiln hall", "Boathouse library"])
    expect(search("iced", since: "2026-11-24")).to eq(["Mossgate kiln hall"])
    expect(search("iced", until: "2026-11-24")).to eq(["Boathouse library"])
    expect(search("iced", closed: true)).to eq([])
    db[:visits].where(id: visit_id).update(closed_number: 1)
    expect([search("iced", closed: true), search("iced", closed: false)]).to eq(
      [["Boathouse library"], ["Mossgate kiln hall"]]
    )
    me = answer["people"].find { |one| one["name"] == "Local owner" }["id"]
    expect(search("iced", by: me).size).to eq(2)
    expect(search("iced", by: uuid)).to eq([])
    expect(search.size).to eq(11)
  end

  it "never shows another crew's, nor reads a word by theirs, nor what lies in the bin" do
    other = db[:crews].returning(:id).insert(name: "Other crew").first[:id]
    stranger = ServerBench.person("Someone else", "owner", crew: other)
    as(stranger)
    expect(search("kiln")).to eq([])
    expect(answer["unknown"]).to eq(["kiln"])
    Gorvant::Server::Crew.as(other) do
      web = ServerBench.web
      expect(web.from(Sequel.function(:search_visits, *([nil] * 7), 10)).count).to eq(0)
      expect { web[:search_documents].count }.to raise_error(Sequel::DatabaseError, /permission denied/)
      expect { web.get(Sequel.function(:keep_searched, visit_id)) }.to raise_error(
        Sequel::DatabaseError,
        /permission denied/
      )
    end
    as(ServerBench.viewer.user_id)
    send_json(:post, "/api/visits/#{visit_id}/bin", {})
    expect(search("boathouse")).to eq([])
  ensure
    ServerBench.alone
  end

  it "says what recurs of closed visits alone, and nothing while there are few" do
    fetch("/api/recurring")
    expect(answer.values_at("visits", "enough", "often")).to eq([1, false, []])
    closing = db[:closings].first
    visit = db[:visits].where(id: closing[:visit_id]).first
    8.times do |i|
      id = uuid
      db[:visits].insert(
        visit.merge(
          id: id,
          carried: nil,
          symptoms: Sequel.pg_jsonb(["no_heat"]),
          safety: Sequel.pg_jsonb([]),
          as_found: Sequel.pg_jsonb({}),
          bench: Sequel.pg_jsonb({}),
          setting_labels: Sequel.pg_jsonb({}),
          found_marks: Sequel.pg_jsonb({}),
          defrost: Sequel.pg_jsonb({})
        )
      )
      content = { "report" => { "cause" => i < 3 ? "LPS open" : nil }, "record" => {} }
      db[:closings].insert(
        closing.merge(id: uuid, visit_id: id, content: Sequel.pg_jsonb(content), reopened_at: i == 7 ? Time.now : nil)
      )
    end
    fetch("/api/recurring")
    expect(answer.values_at("visits", "units", "enough")).to eq([8, 1, true])
    expect(answer["often"].map { |one| one.values_at("what", "count", "of") }).to eq(
      [["No heat", 7, 8], ["LPS open", 3, 8]]
    )
  end
end
