# frozen_string_literal: true

require "open3"
require_relative "../support/server"
require_relative "../support/contract"

# Closing a visit, opening it again, and the papers that are made of it.
RSpec.describe "Close out", :server do
  include_context "with the API's contract"

  let(:visit) { "/api/visits/#{visit_id}" }

  def mine = db[:closings].where(visit_id: visit_id)
  def close_out = fetch("#{visit}/close-out") && answer

  # All that has to be said, as a technician would at this unit.
  def say_all(**otherwise)
    now = close_out
    calls =
      now["calls"].to_h do |one|
        [one["id"], { how: one["season"] == "out" ? "low_voltage" : "run", as: "expected", note: "" }]
      end
    content = {
      cause: "written",
      finding: "Fan relay of the board welded: C to T1 read 0.1 V.",
      plain: "The outdoor fan ran on in defrost, so the ice never melted. We put in a new board.",
      done: "Board replaced.",
      parts: "1 defrost board",
      answered: "yes",
      not_repeated: "dark by then",
      natural_defrost: "not_seen",
      calls: calls,
      put_back: now["put_back"].to_h { |line| [line["id"], "back"] },
      **otherwise
    }
    keep_desk(visit, "close_out", content)
    expect(last_response.status).to eq(200)
  end

  def close(after: 0, id: uuid)
    send_json(:post, "#{visit}/closings", id: id, after: after)
    last_response.status
  end

  def read(**more) =
    send_json(
      :post,
      "#{visit}/readings",
      {
        id: uuid,
        function: "volts_ac",
        instrument: "high_impedance",
        from_node: "outdoor.C",
        to_node: "outdoor.Y",
        value: 24.1,
        condition: {
          call: "heat"
        },
        taken_at: Time.now.utc.iso8601,
        **more
      }
    )

  def pdf_text(**asked)
    send_json(:post, "#{visit}/report-pdf", asked)
    expect([last_response.status, last_response.content_type]).to eq([200, "application/pdf"])
    text, status = Open3.capture2("pdftotext", "-layout", "-", "-", stdin_data: last_response.body, binmode: true)
    expect(status).to be_success
    text.force_encoding("UTF-8")
  end

  it "refuses with all that is missing, and closes nothing" do
    expect(close).to eq(422)
    fields = answer["errors"].map { |one| one["field"] }
    expect(fields).to include(
      "/cause",
      "/done",
      "/plain",
      "/answered",
      "/calls/heat",
      "/put_back/covers",
      "/put_back/set_point"
    )
    expect(mine.count).to eq(0)
    say_all
    say_all(put_back: { "covers" => { left: "it is dark" } })
    expect(close).to eq(422)
    expect(answer["errors"].map { |one| one["field"] }).to include("/put_back/covers")
  end

  it "closes once for one request, is read only then, and is opened again with both closings staying" do
    say_all
    id = uuid
    expect([close(id: id), close(id: id)]).to eq([201, 200])
    expect(mine.select_map(:number)).to eq([1])
    fetch(visit)
    expect(answer.values_at("closed_number")).to eq([1])
    expect(answer["marks"]["close_out"]).to eq("so_far")
    version = answer["version"]
    reading = db[:readings].where(visit_id: visit_id).get(:id)
    refused = {
      "patch" => -> { send_json(:patch, visit, version: version, complaint: "late") },
      "desk" => -> { keep_desk(visit, "wiring", {}) },
      "fitted" => -> do
        fetch("#{visit}/rig") &&
          send_json(:post, "#{visit}/fitted", version: version, revision: answer["revision"], rig: answer["content"])
      end,
      "taking back" => -> { send_json(:post, "#{visit}/readings/#{reading}/retraction", "") },
      "closing" => -> { close(after: 1) }
    }
    refused.each { |what, ask| expect([what, ask.call && last_response.status]).to eq([what, 409]) }
    expect(answer["detail"]).to include("closed (no. 1)")
    send_json(:post, "#{visit}/closings/1/reopening", why: "the fan stands again")
    expect(last_response.status).to eq(200)
    send_json(:post, "#{visit}/closings/1/reopening", why: "twice")
    expect(last_response.status).to eq(422)
    send_json(:patch, visit, version: version, complaint: "late")
    expect(last_response.status).to eq(200)
    expect(close(after: 1)).to eq(201)
    closings = close_out["closings"]
    expect(closings.map { |one| one.values_at("number", "reopened_why") }).to eq(
      [[1, "the fan stands again"], [2, nil]]
    )
  end

  it "tells the second of two who close it of the first, and keeps what the second wrote" do
    say_all
    expect(close).to eq(201)
    expect(close).to eq(409)
    expect(answer["current"]).to include("number" => 1, "by" => "Local owner")
    expect(answer["given"]["handover"]).to include("new board")
    expect(mine.count).to eq(1)
  end

  it "never changes a closing: not by the visit, not by a later reading, not by the role that serves" do
    say_all
    close
    before = mine.first
    digest = Gorvant::Server::Closings.digest(before[:content].to_hash)
    expect(digest).to eq(before[:digest])
    expect(read).to be_truthy
    expect(last_response.status).to eq(201)
    expect(close_out["addenda"].map { |one| one["reads"] }).to eq(["24.1 V"])
    send_json(:post, "#{visit}/report", number: 1)
    expect(answer["addenda"].size).to eq(1)
    expect(JSON.generate(answer["sections"])).not_to include("24.1 V agrees")
    expect(pdf_text(number: 1)).to include("Arrived after the closing")
    expect(mine.first).to eq(before)
    Gorvant::Server::Crew.as(ServerBench.viewer.crew_id) do
      [{ mark: "agrees" }, { content: Sequel.pg_jsonb({}) }, { number: 9 }].each do |change|
        expect { ServerBench.web[:closings].update(change) }.to raise_error(Sequel::DatabaseError, /permission denied/)
      end
      expect { ServerBench.web[:closings].delete }.to raise_error(Sequel::DatabaseError, /permission denied/)
    end
  end

  it "is seen by no other crew" do
    say_all
    close
    other = db[:crews].returning(:id).insert(name: "Other crew").first[:id]
    Gorvant::Server::Crew.as(other) { expect(ServerBench.web[:closings].count).to eq(0) }
    as(ServerBench.person("Someone else", "owner", crew: other))
    %w[close-out report report-pdf].each do |part|
      part == "close-out" ? fetch("#{visit}/#{part}") : send_json(:post, "#{visit}/#{part}", {})
      expect([part, last_response.status]).to eq([part, 404])
    end
  ensure
    ServerBench.alone
  end

  it "goes by Find only as far as Find goes, and by what was read before the repair" do
    # A weather of its own: what a process has laid out outlives the tables that specs empty.
    db[:visits].where(id: visit_id).update(outdoor_degrees_f: 33.37)
    say_all(cause: "find", finding: "")
    expect(close).to eq(422)
    expect(answer["errors"].map { |one| one["field"] }).to eq(["/cause"])
    send_json(:post, "#{visit}/find", {})
    Gorvant::Server::Worker.new(db).run_one
    send_json(:post, "#{visit}/find", {})
    says = answer["outcome"]
    before = answer["evidence"].size
    say_all(cause: "find", finding: "", repaired_at: Time.now.utc.iso8601)
    read(taken_at: (Time.now + 60).utc.iso8601)
    send_json(:post, "#{visit}/find", {})
    expect([answer["outcome"], answer["evidence"].size]).to eq([says, before])
    expect(close).to eq(201)
    send_json(:post, "#{visit}/report", number: 1)
    finding = answer["sections"].find { |one| one["id"] == "finding" }["blocks"]
    expect(finding.first["says"]).to eq(says["says"])
    expect(finding[1]["pairs"].to_h["Does not prove"]).to eq(says["not_proved"])
  end

  describe "on a part between two legs" do
    def visit_id =
      db[:visits]
        .join(:units, id: :unit_id)
        .where(Sequel[:units][:name] => "Bunk room unit", :visit_on => Date.new(2026, 11, 12))
        .get(Sequel[:visits][:id])

    it "has its loop in the report" do
      send_json(:post, "#{visit}/find", {})
      Gorvant::Server::Worker.new(db).run_one
      say_all(cause: "find", finding: "")
      expect(close).to eq(201)
      send_json(:post, "#{visit}/report", number: 1)
      drawn = answer["sections"].flat_map { |one| one["blocks"] }.find { |block| block["svg"] }
      expect([mine.get(:content).dig("report", "found", "id"), drawn["title"]]).to match(
        ["capacitor_weak", /compressor, \w+, V to panel L2/]
      )
    end
  end

  it "tells later visits to the unit what it found, and not when it was opened again" do
    db[:visits].where(id: visit_id).update(outdoor_degrees_f: 33.41)
    doubtful = Sequel.|({ place: "defrost_interval_minutes" }, { to_node: "outdoor.board.T1" })
    db[:readings].where(visit_id: visit_id).where(doubtful).delete
    read(from_node: "outdoor.OFM.R", to_node: "outdoor.OFM.C", value: 238, condition: { call: "defrost" })
    send_json(:post, "#{visit}/find", {})
    Gorvant::Server::Worker.new(db).run_one
    say_all(cause: "find", finding: "", answered: "partly")
    expect(close).to eq(201)
    on, unit_id = db[:visits].where(id: visit_id).get(%i[visit_on unit_id])
    title = mine.get(Sequel.lit("content #>> '{report,found,title}'"))
    expect(title).to include("DFR")
    asked =
      lambda do |unit, day|
        id = uuid
        send_json(:post, "/api/visits", id: id, unit_id: unit, as_visit_id: visit_id, visit_on: day.iso8601)
        db[:visits].where(id: id).update(outdoor_degrees_f: 33.41)
        send_json(:post, "/api/visits/#{id}/find", {})
        Gorvant::Server::Worker.new(db).run_one && send_json(:post, "/api/visits/#{id}/find", {}) if answer["kind"]
        answer["assumed"].grep(/found/)
      end
    expect(asked.call(unit_id, on + 30)).to contain_exactly(include(on.iso8601, title, "Not put right"))
    expect(asked.call(unit_id, on - 1)).to eq([]) # it was before that
    expect(asked.call(db[:units].exclude(id: unit_id).get(:id), on + 30)).to eq([])
    send_json(:post, "#{visit}/closings/1/reopening", { why: "the fan again" })
    expect([last_response.status, asked.call(unit_id, on + 31)]).to eq([200, []])
  end

  it "prints what was found, its proof, before and after, what is put back, left and open, and cautions" do
    say_all(
      put_back:
        close_out["put_back"].to_h do |line|
          [line["id"], line["id"] == "set_point" ? { left: "nobody at home" } : "back"]
        end
    )
    expect(close).to eq(201)
    text = pdf_text(number: 1)
    customer, *pages = text.split("\f").map { |page| page.gsub(/\s+/, " ") }
    expect(customer).to include(
      "Iced over since the weekend",
      "We put in a new board",
      "Only the controls were checked",
      "Still to be seen"
    )
    expect(customer).not_to match(/\bT1\b|\bW2\b/)
    all = pages.join
    expect(all).to include(
      "Fan relay of the board welded",
      "No computation of this program stands behind it",
      "≠ 0.1 V",
      "Not repeated",
      "dark by then"
    )
    expect(all).to include(
      "LEFT",
      "nobody at home",
      "Never bridge a pressure",
      "clears nothing that comes and goes",
      "The fan still draws in defrost"
    )
  end

  it "says in large type that a unit is left off, and runs no call in it" do
    say_all(
      answered: "no",
      left_off: "High-pressure switch bridged by an earlier hand",
      calls: {
      },
      put_back: {
        "set_point" => "back",
        "defrost.thermistor" => "back"
      }
    )
    expect(close).to eq(201)
    expect(answer["mark"]).to eq("disagrees")
    text = pdf_text(number: 1)
    expect(text.scan("LEFT OFF, LOCKED OUT AND TAGGED").size).to be >= 2
    expect(text).to include("High-pressure switch bridged by an earlier hand", "Nothing was run")
  end

  it "sets Greek and Cyrillic, shows what it cannot set by its number, and carries 300 readings over its pages" do
    say_all(plain: "Ο ανεμιστήρας · Вентилятор · Ventilátor · 风扇", done: "long " * 390)
    row = db[:readings].where(visit_id: visit_id, function: "seen").first
    rows = Array.new(300) { |i| row.merge(id: uuid, taken_at: row[:taken_at] + i, note: "row #{i}") }
    db[:readings].multi_insert(rows.map { |one| one.merge(choice: Sequel.pg_jsonb_wrap(one[:choice])) })
    2.times { send_json(:post, "#{visit}/report-pdf", {}) && expect(last_response.status).to(eq(202)) }
    expect(db[:tasks].where(kind: "report", state: "waiting").count).to eq(1)
    worker = Gorvant::Server::Worker.new(db)
    nil while worker.run_one
    text = pdf_text
    expect(text).to include("Ο ανεμιστήρας", "Вентилятор", "Ventilátor", "U+98CE", "DRAFT")
    expect(text.scan(/row \d+/).uniq.size).to eq(300)
    expect(pdf_text(leave_out: ["readings"])).not_to include("row 17")
    send_json(:post, "#{visit}/report-pdf", leave_out: ["put_back"])
    expect(last_response.status).to eq(422)
    db[:readings].where(visit_id: visit_id).update(note: "another")
    send_json(:post, "#{visit}/report-pdf", {})
    expect(last_response.status).to eq(202) # what was drawn before is not what stands now
  end

  it "tells times on paper by the clock of whoever asks, summer and winter" do
    say_all
    all = db[:readings].where(visit_id: visit_id).order(:received_at).select_map(:id)
    db[:readings].where(id: all[0]).update(taken_at: Time.utc(2026, 11, 23, 9, 5))
    db[:readings].where(id: all[1]).update(taken_at: Time.utc(2026, 7, 4, 2, 30))
    expect(pdf_text).to include("2026-11-23 09:05", "2026-07-04 02:30", "UTC")
    expect(pdf_text(zone: "America/Chicago")).to match(
      /2026-11-23\s+.*03:05.*2026-07-03\s+.*21:30|2026-07-03.*2026-11-23/m
    )
    expect(pdf_text(zone: "America/Chicago")).to include("CST", "CDT")
    ["Larkmere", "America/Chicago; x", ""].each do |zone|
      send_json(:post, "#{visit}/report-pdf", zone: zone)
      expect([last_response.status, answer["errors"].map { |one| one["field"] }]).to eq([422, ["/zone"]])
    end
  end

  it "speaks of degrees as they are asked for, and leaves a person's words alone" do
    say_all(plain: "It was 34 °F outside.")
    header("X-Units", "C")
    text = pdf_text
    expect(text).to include("It was 34 °F outside.").and include("°C")
    expect(text.lines.grep(/°F/).map(&:strip)).to eq(["It was 34 °F outside."])
  ensure
    header("X-Units", nil)
  end

  it "prints every visit of the demo data with the complaint, every reading that failed, what has to be put back, and the cautions" do
    visits = db[:visits].select(:id, :complaint).all
    visits.each do |row|
      send_json(:post, "/api/visits/#{row[:id]}/report-pdf", {})
      expect([row[:id], last_response.status]).to eq([row[:id], 200])
      said = Open3.capture2("pdftotext", "-layout", "-", "-", stdin_data: last_response.body, binmode: true).first
      said = said.force_encoding("UTF-8").gsub(/\s+/, " ")
      failed = db[:readings].where(visit_id: row[:id], verdict: "disagrees", function: "volts_ac").select_map(:value)
      expect(said).to include(
        row[:complaint][0, 30],
        "Put back",
        "Never bridge a pressure",
        "clears nothing that comes and goes"
      )
      failed.each { |volts| expect(said).to include("≠ #{format("%.1f", volts)} V") }
    end
  end
end
