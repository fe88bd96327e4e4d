# frozen_string_literal: true

require "zlib"
require_relative "../support/server"
require_relative "../support/contract"
require_relative "../support/object_storage"

# A logger's files from the first part to what they say of the unit.
RSpec.describe "Recorded defrosts", :server do
  include_context "with the API's contract"

  before { ServerBench.demo.load }

  after { Gorvant::Server::Depot.current = nil }

  let(:worker) { Gorvant::Server::Worker.new(db) }
  let(:visit) { "/api/visits/#{visit_id}" }
  let(:profile) { Gorvant::ClockProfile.of(rig_of_visit) }

  def rig_of_visit
    viewer = ServerBench.viewer
    Gorvant::Server::Visits.new(db, viewer).then { |visits| visits.rig(visits.find(visit_id)) }
  end

  # A day of a made-up unit, its board on 90 min.
  def made_up(**options) =
    Gorvant::Formats::MadeUpLog.new(
      profile: profile.with(interval_seconds: 5400.0),
      changeover: rig_of_visit.changeover,
      every: 60,
      **options
    )

  def text_of(log, hours: 24) = log.text(hours * 3600)

  def create
    id = uuid
    send_json(:post, "#{visit}/logs", id: id, name: "Hall logger")
    expect(last_response.status).to eq(201)
    id
  end

  def send_part(id, file, number, text, raw: false)
    @sent = raw ? text : Zlib.gzip(text)
    post(
      "/api/logs/#{id}/files/#{file}/parts/#{number}",
      @sent,
      "CONTENT_TYPE" => "application/octet-stream",
      "HTTP_HOST" => "127.0.0.1"
    )
    last_response.status
  end

  def look(id)
    send_json(:post, "/api/logs/#{id}/look", zone: "UTC")
    expect(last_response.status).to eq(200)
    answer
  end

  def read(id, parts, mapping: look(id)["mapping"])
    send_json(:post, "/api/logs/#{id}/reading", mapping: mapping, parts: parts)
    expect([last_response.status, last_response.body]).to match([202, String])
    work
    fetch("/api/logs/#{id}")
    answer
  end

  def work = (nil while worker.run_one)

  def judge(id)
    send_json(:post, "#{visit}/logs/#{id}/judgement", "")
    work if last_response.status == 202
    send_json(:post, "#{visit}/logs/#{id}/judgement", "")
    expect(last_response.status).to eq(200)
    answer
  end

  it "reads a file in parts, keeps packed hours, and says what the board runs on" do
    log = made_up
    text = text_of(log)
    id = create
    cut = text.bytesize / 2
    expect(send_part(id, 1, 2, text.byteslice(cut..))).to eq(201)
    send_json(:post, "/api/logs/#{id}/reading", mapping: { zone: "UTC" }, parts: [2])
    expect([last_response.status, answer["errors"]&.first]).to match([422, include("problem" => /part 1 of file 1/)])
    2.times { expect(send_part(id, 1, 1, text.byteslice(0, cut))).to eq(201) } # sent again is kept once
    fetch "/api/logs/#{id}/parts"
    expect(answer["files"]).to eq([{ "file" => 1, "numbers" => [1, 2] }])

    row = read(id, [2])
    expect(row).to include("state" => "read", "rows" => 1440, "interval_seconds" => 60.0)
    expect(db[:log_hours].where(log_id: id).count).to eq(24)
    judgement = judge(id)
    expect(judgement["verdicts"].map { |one| one["code"] }).to include("recorded_interval_other")
    expect(judgement["verdicts"].first["says"]).to include("90")
    truth = log.defrosts.select(&:end_seconds)
    found = judgement["defrosts"].map { |one| one["start"] }
    expect(truth.map { |one| found.min_by { |at| (at - one.start_seconds).abs } - one.start_seconds }).to all(be <= 60)
    expect(found.size).to eq(log.defrosts.size)

    send_json(:post, "/api/logs/#{id}/picture", from: row["from"], to: row["to"], width: 300, columns: %w[coil outdoor])
    coil = answer.dig("columns", "coil")
    expect([coil["least"].size, coil["least"].compact.min, coil["most"].compact.max]).to match(
      [300, be < 25, be > profile.ends_degrees_f - 25]
    )
  end

  it "draws least and most of every pixel from the level that is fine enough, and nothing where nothing was written" do
    rows =
      (0...7200)
        .map { |i| [1_768_003_200 + i, i.even? ? 20.0 : 40.0, 30.0] }
        .reject { |at, *_| at.between?(1_768_006_000, 1_768_007_000) }
    lines = rows.map { |at, *degrees| [Time.at(at).utc.strftime("%Y-%m-%d %H:%M:%S"), *degrees].join(",") }
    id = create
    send_part(id, 1, 1, "Time,Coil °F,Outdoor °F\n#{lines.join("\n")}\n")
    read(id, [1])
    picture = ->(from, to, width, columns = %w[coil]) do
      send_json(:post, "/api/logs/#{id}/picture", from: from, to: to, width: width, columns: columns)
      answer["columns"]
    end
    whole = picture[1_768_003_200, 1_768_010_400, 12]
    expect(whole["coil"]["least"].zip(whole["coil"]["most"]).uniq).to contain_exactly([20.0, 40.0], [nil, nil])
    minutes = picture[1_768_003_200, 1_768_006_800, 60, %w[coil outdoor]]
    expect(minutes["outdoor"]["most"].first(46)).to all(eq(30.0))
    expect(minutes["outdoor"]["most"].last(13)).to all(be_nil)
    seconds = picture[1_768_003_200, 1_768_003_210, 10]["coil"]
    expect(seconds["least"]).to eq([20.0, 40.0] * 5)
    expect(seconds["most"]).to eq(seconds["least"])

    # The same from a storage beside the database.
    storage = ObjectStorage.new
    Gorvant::Server::Depot.current = storage.depot
    worker.tidy
    expect(db[:log_hours].where(log_id: id, object_key: nil).count).to eq(0)
    expect([storage.objects.size, picture[1_768_003_200, 1_768_003_210, 10]["coil"]]).to eq([2, seconds])

    picture[1_768_003_210, 1_768_003_200, 10]
    expect([last_response.status, answer["errors"].first["problem"]]).to eq([422, "has to be after “from”"])
    picture[1_768_003_200, 1_768_003_210, 10, %w[moon]]
    expect(last_response.status).to eq(422)
  end

  it "joins files by time, in whatever order they were chosen, and reads the next of their kind alike" do
    lines = text_of(made_up, hours: 8).lines
    id = create
    send_part(id, 1, 1, [lines[0], *lines[241..]].join)
    send_part(id, 2, 1, lines[0..240].join)
    mapping = look(id)["mapping"].then { |one| one.merge("columns" => one["columns"].except("humidity")) }
    row = read(id, [1, 1], mapping: mapping)
    expect(row).to include("state" => "read", "rows" => 480, "columns" => mapping["columns"].keys)
    again = create
    send_part(again, 1, 1, lines[0..20].join)
    expect(look(again)).to include("kept" => true, "mapping" => include("columns" => mapping["columns"]))
  end

  it "refuses a file with bad lines whole, by their numbers, and keeps nothing of it" do
    lines = text_of(made_up, hours: 3).lines
    lines[9] = lines[9].sub(/\A[^,]+/, "yesterday")
    lines[49] = "#{lines[49].chomp},7\n"
    lines[119] = lines[119].sub(/\d+\.\d,/, "warm,")
    id = create
    send_part(id, 1, 1, lines.join)
    row = read(id, [1], mapping: look(id)["mapping"])
    expect(row["state"]).to eq("refused")
    expect(row["problems"].map { |one| one["field"] }).to eq(%w[/lines/10 /lines/50 /lines/120])
    expect(db[:log_hours].where(log_id: id).count).to eq(0)
    send_json(:post, "#{visit}/logs/#{id}/judgement", "")
    expect(last_response.status).to eq(422)
    # Put right and sent again it is read.
    send_part(id, 1, 1, text_of(made_up, hours: 3))
    expect(read(id, [1])["state"]).to eq("read")
  end

  it "ends the same when the worker was killed half-way, with nothing there twice" do
    text = text_of(made_up, hours: 12)
    size = (text.bytesize / 4.0).ceil
    id = create
    4.times { |i| send_part(id, 1, i + 1, text.byteslice(i * size, size)) }
    mapping = look(id)["mapping"]
    once = read(id, [4], mapping: mapping)
    hours = -> { db[:log_hours].where(log_id: id).order(:hour).select_map(%i[hour content]) }
    before = hours.call

    send_json(:post, "/api/logs/#{id}/reading", mapping: mapping, parts: [4])
    task = db[:tasks].where(state: "waiting").first
    killed = Gorvant::Server::ReadLog.new(task[:input].to_hash, db)
    2.times { |i| killed.step(i) } # what the killed worker had done
    db[:tasks].where(id: task[:id]).update(state: "running", beat_at: Time.now - 60, partial: Sequel.pg_jsonb([1, 1]))
    work
    fetch("/api/logs/#{id}")
    expect(answer.slice("state", "rows", "from", "to")).to eq(once.slice("state", "rows", "from", "to"))
    expect(hours.call).to eq(before)
  end

  it "is as it came after a reading that was stopped or failed, and is not read twice at once" do
    id = create
    send_part(id, 1, 1, text_of(made_up, hours: 2))
    mapping = look(id)["mapping"]
    ask = -> { send_json(:post, "/api/logs/#{id}/reading", mapping: mapping, parts: [1]) }
    ask.call
    task = answer["id"]
    ask.call
    expect([last_response.status, answer["errors"].first["problem"]]).to eq([422, "is being read just now"])
    send_json(:post, "/api/tasks/#{task}/cancellation", "")
    fetch "#{visit}/logs"
    expect(answer["logs"].map { |one| one["state"] }).to eq(["coming"])
    ask.call
    db[:tasks].where(state: "waiting").update(state: "failed")
    expect(send_part(id, 1, 1, text_of(made_up, hours: 2))).to eq(201)
    expect(read(id, [1])["state"]).to eq("read")
  end

  it "stops what is no gzip, too large, or too much when it is unpacked" do
    id = create
    send_part(id, 1, 1, "plain text", raw: true)
    send_json(:post, "/api/logs/#{id}/look", {})
    expect([last_response.status, answer["errors"].first["problem"]]).to match([422, /not gzip/])
    expect(send_part(id, 1, 1, Random.new(1).bytes(1_048_577), raw: true)).to eq(413)
    expect(send_part(id, 41, 1, "x")).to eq(422)
    stub_const("Gorvant::Server::Logs::LIMITS", Gorvant::Server::Logs::LIMITS.merge("most_bytes" => 5_000_000))
    send_part(id, 1, 1, text_of(made_up, hours: 1))
    send_part(id, 1, 2, "1,2\n" * 2_000_000)
    row = read(id, [2], mapping: look(id)["mapping"])
    expect(row).to include("state" => "refused", "problems" => [include("problem" => /over \d+ MB unpacked/)])
  end

  it "keeps a record with its crew and its unit" do
    id = create
    send_part(id, 1, 1, text_of(made_up, hours: 2))
    read(id, [1])
    other = db[:visits].exclude(unit_id: db[:visits].where(id: visit_id).get(:unit_id)).get(:id)
    send_json(:post, "/api/visits/#{other}/logs/#{id}/judgement", "")
    expect(last_response.status).to eq(404)
    send_json(:post, "/api/logs/#{id}/deletion", "")
    expect([last_response.status, db[:log_hours].count]).to eq([200, 0])
  end

  it "has the demo's records read by the worker, after what people wait for, and takes them out with the demo" do
    stub_const("Gorvant::Server::ReadLog::MadeUp::STEPS", 1)
    demo = Gorvant::Server::Demo.new(db, ServerBench.viewer)
    2.times { demo.load }
    id = create
    send_part(id, 1, 1, text_of(made_up, hours: 2))
    send_json(:post, "/api/logs/#{id}/reading", mapping: look(id)["mapping"], parts: [1])
    worker.run_one
    expect(db[:logs].where(id: id).get(:state)).to eq("read")
    work
    expect(db[:logs].where(demo: true).select_map(:state)).to eq(%w[read read])
    demo.remove
    expect(db[:logs].where(demo: true).count).to eq(0)
  end

  it "plans a year once for a unit and its weather" do
    stub_const("Gorvant::Desks::Defrost::YearPlan::VARIANTS", %w[as_is])
    text = "Month,Temp F,Humidity,Hours\n1,27.5,85,700\n2,32.5,85,600\n"
    send_json(:post, "#{visit}/planner", climate: { text: text })
    expect(last_response.status).to eq(202)
    work
    send_json(:post, "#{visit}/planner", climate: { text: text })
    expect([last_response.status, answer["hours"]]).to eq([200, 1300])
    expect(answer["settings"].map { |one| one["id"] }).to include("30", "60", "90", "120", "demand")
    send_json(:post, "#{visit}/planner", climate: { text: "Month,Temp F,Humidity,Hours\n13,20,85,700\n" })
    expect([last_response.status, answer["errors"].first["problem"]]).to match([422, /month has to be 1 to 12/])
    send_json(:post, "#{visit}/planner", climate: { kind: "hills", text: text })
    expect(last_response.status).to eq(422)

    # With a record of the unit the coil is fitted to it first, or it is said why not.
    id = create
    send_part(id, 1, 1, text_of(made_up, hours: 12))
    read(id, [1])
    asked = { climate: { text: text }, log_id: id }
    2.times { send_json(:post, "#{visit}/planner", asked).then { work } }
    send_json(:post, "#{visit}/planner", asked)
    expect([last_response.status, answer["assumed"].first]).to match(
      [200, /Hall logger.*surface ×|shipped coil stands/]
    )
  end
end
