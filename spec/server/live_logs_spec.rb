# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

# A logger that sends while it measures: rows onto a record that listens, until a person closes it.
RSpec.describe "A live record", :server do
  include_context "with the API's contract"

  before { ServerBench.demo.load }

  after { ServerBench.alone }

  let(:worker) { Gorvant::Server::Worker.new(db) }
  let(:visit) { "/api/visits/#{visit_id}" }
  let(:columns) { %w[outdoor coil fan ob] }
  let(:token) { device("log_rows") }
  let(:began) { (Time.now.to_i / 3600 * 3600) - 10_800 - 600 } # what is sent below ends before now, whatever the minute

  def device(scope)
    Gorvant::Server::Devices
      .new(ServerBench.door)
      .make(uuid, ServerBench.viewer, name: "Eave logger", scope: scope)
      .last
  end

  def listening(zone: "America/Chicago")
    id = uuid
    send_json(:post, "#{visit}/logs", id: id, name: "Tonight", live: { zone: zone })
    expect(last_response.status).to eq(201)
    id
  end

  # Rows of a device, without a session.
  def rows(record, list, as: token, columns: self.columns)
    @sent = JSON.generate(record_id: record, columns: columns, rows: list)
    clear_cookies
    post(
      "/api/devices/rows",
      @sent,
      "CONTENT_TYPE" => "application/json",
      "HTTP_HOST" => "127.0.0.1",
      "HTTP_AUTHORIZATION" => "Bearer #{as}"
    )
    set_cookie(ServerBench.cookie)
    [last_response.status, *answer.values_at("new", "known")]
  end

  def row(index, coil: 24.0) = [began + (index * 30), 31.0, coil, 1.1, 0.4]
  def log(id) = fetch("/api/logs/#{id}").then { answer }
  def work = (nil while worker.run_one)

  it "takes rows once, tells who looks, and draws them before anybody has closed it" do
    id = listening
    expect(log(id)).to include("state" => "live", "live" => include("seconds_ago" => nil), "rows" => nil)
    expect(rows(id, (0...40).map { |i| row(i) })).to eq([201, 40, 0])
    expect(rows(id, (0...40).map { |i| row(i) })).to eq([200, 0, 40])
    expect(rows(id, (38...300).map { |i| row(i, coil: 20.0) })).to eq([201, 260, 2])
    expect(log(id)).to include(
      "rows" => 300,
      "from" => began,
      "to" => began + (299 * 30),
      "interval_seconds" => 30,
      "columns" => match_array(columns),
      "live" => include("from" => "Eave logger", "seconds_ago" => be_between(0, 30), "quiet_after_seconds" => 90)
    )
    # Older ones that the logger had kept back, with some that are here: what is new is not among the newest.
    expect(rows(id, (-30...40).map { |i| row(i) })).to eq([201, 30, 40])
    told = db[:events].where(kind: "log_rows").order(:id).select_map(:payload)
    expect(
      told.map { |one| [one["log_id"], one["columns"], one["rows"].size, one["whole"], one["quiet_after_seconds"]] }
    ).to eq([[id, columns, 40, true, 90], [id, columns, 60, false, 90], [id, columns, 60, false, 90]])
    send_json(:post, "/api/logs/#{id}/picture", from: began, to: began + 1200, width: 40, columns: ["coil"])
    expect(answer.dig("columns", "coil", "least").compact.uniq).to eq([24.0])
  end

  it "is read and judged as a whole once a person closes it, and then takes no more" do
    profile = Gorvant::ClockProfile.of(Gorvant::Composer.compose(name: "Log", facts: {}))
    made = Gorvant::Formats::MadeUpLog.new(profile: profile, every: 60, columns: columns, start: began, seed: 2)
    list =
      made
        .lines(20 * 3600)
        .drop(1)
        .map
        .with_index { |line, i| [began - (19 * 3600) + (i * 60), *line.split(",").drop(1).map(&:to_f)] }
    list = list.select { |one| one[0] < Time.now.to_f }
    id = listening
    list.each_slice(500) { |some| rows(id, some) }
    send_json(:post, "#{visit}/logs/#{id}/judgement", "")
    expect([last_response.status, answer["errors"][0]["problem"]]).to match([422, /not been read/])
    send_json(:post, "/api/logs/#{id}/closing", "")
    expect(last_response.status).to eq(202)
    work
    expect(log(id)).to include("state" => "read", "rows" => list.size, "live" => nil)
    send_json(:post, "#{visit}/logs/#{id}/judgement", "")
    work
    send_json(:post, "#{visit}/logs/#{id}/judgement", "")
    expect([last_response.status, answer["defrosts"].size]).to match([200, be > 4])
    expect(rows(id, [[Time.now.to_i, *list.last.drop(1)]])[0]).to eq(422)
    expect(answer["errors"]).to eq(
      [{ "field" => "/record_id", "problem" => "does not listen any more: it has been closed" }]
    )
    send_json(:post, "/api/logs/#{id}/closing", "")
    expect(last_response.status).to eq(422)
  end

  it "goes on listening where the task that reads it is stopped" do
    id = listening
    rows(id, (0...5).map { |i| row(i) })
    send_json(:post, "/api/logs/#{id}/closing", "")
    send_json(:post, "/api/tasks/#{answer["id"]}/cancellation", "")
    expect(log(id)).to include("state" => "live", "rows" => 5)
    expect(rows(id, [row(6)])).to eq([201, 1, 0])
  end

  it "refuses what cannot be, with its place, and keeps nothing of it" do
    id = listening
    {
      [[row(0), row(1).first(3)], columns] => ["/rows/1", /time and 4 values/],
      [[row(0)], %w[outdoor coil fan moon]] => ["/columns/3", /no column/],
      [[[Time.now.to_i + 86_400, 1, 2, 3, 4]], columns] => ["/rows/0/0", /ahead/]
    }.each do |(list, named), (field, says)|
      expect(rows(id, list, columns: named)[0]).to eq(422)
      expect(answer["errors"][0].values_at("field", "problem")).to match([field, says])
    end
    expect(log(id)["rows"]).to be_nil
    send_json(:post, "/api/logs/#{id}/closing", "")
    expect([last_response.status, answer["errors"][0]["problem"]]).to match([422, /no row has come/])
    rows(id, [row(0)])
    expect(rows(id, [row(1).first(3)], columns: %w[outdoor coil])[0]).to eq(422)
    expect(answer["errors"][0].values_at("field", "problem")).to match(["/columns", /outdoor, coil, fan, ob, as/])
  end

  it "listens to a logger's token of its own crew alone, and is no record of files" do
    id = listening
    expect(rows(id, [row(0)], as: device("readings"))[0]).to eq(403)
    crew = db[:crews].returning(:id).insert(name: "Fenwater crew").first[:id]
    other = ServerBench.viewer.with(crew_id: crew, user_id: ServerBench.person("Ilse Marrow", "owner", crew: crew))
    stranger =
      Gorvant::Server::Devices.new(ServerBench.door).make(uuid, other, name: "Not ours", scope: "log_rows").last
    expect(rows(id, [row(0)], as: stranger)[0]).to eq(404)
    files = uuid
    send_json(:post, "#{visit}/logs", id: files, name: "Files")
    expect(rows(files, [row(0)])[0]).to eq(422)
    expect(answer["errors"][0]["problem"]).to include("one that listens")
    expect(log(id)["rows"]).to be_nil
  end

  it "loses and doubles nothing of two devices' rows at once" do
    id = listening
    lists = Array.new(2) { |half| (0...60).map { |i| row((i * 2) + half) } }
    viewers = Array.new(2) { |i| ServerBench.viewer.with(role: "log_rows", name: "Logger #{i}", client: nil) }
    lists
      .zip(viewers)
      .map do |list, viewer|
        Thread.new do
          Gorvant::Server::Crew.as(viewer.crew_id) do
            list.each_slice(6) do |some|
              parsed = Gorvant::Formats::LiveRows.parse(columns, some, now: Time.now.to_f)
              Gorvant::Server::LiveLogs.new(db, viewer).take(id, parsed)
            end
          end
        end
      end
      .each(&:join)
    hours = Gorvant::Server::LogHours.new(db, id)
    expect(log(id)["rows"]).to eq(120)
    expect(hours.numbers.sum { |number| hours.hour(number).seconds.size }).to eq(120)
  end
end
