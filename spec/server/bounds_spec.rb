# frozen_string_literal: true

require_relative "../support/server"

# An answer that takes too long, a client that has gone, a database that is away, and what is written of all that.
RSpec.describe "The bounds of an answer", :server do
  def visit = "/api/visits/#{visit_id}"

  let(:long) { { script: { moves: [{ at_seconds: 0, what: "call", value: "heat" }] }, duration_seconds: 172_800 } }

  it "ends an answer that takes too long with what it is, keeps nothing of it, and answers the next" do
    stub_const("Gorvant::Server::Budget::MOST_SECONDS", 0.0)
    send_json(:post, "#{visit}/timeline", long)
    expect([last_response.status, answer["title"], last_response.headers["retry-after"]]).to eq(
      [503, "Took too long", nil]
    )
    expect(db[:computed_results].count).to eq(0)
    stub_const("Gorvant::Server::Budget::MOST_SECONDS", 30)
    send_json(:post, "#{visit}/timeline", long)
    expect(last_response.status).to eq(200)
  end

  it "stops working for a client that has hung up" do
    stub_const("Gorvant::Server::Budget::LOOK_EVERY_SECONDS", 0.0)
    here, there = UNIXSocket.pair
    env =
      Rack::MockRequest.env_for(
        "#{visit}/timeline",
        :method => "POST",
        :input => JSON.generate(long),
        "CONTENT_TYPE" => "application/json",
        "HTTP_HOST" => "127.0.0.1",
        "HTTP_COOKIE" => ServerBench.cookie,
        "HTTP_X_CSRF_TOKEN" => ServerBench::TOKEN
      )
    expect(app.call(env.merge("puma.socket" => here)).first).to eq(200)
    db[:computed_results].delete
    Gorvant::Server::Warm.instance_variable_get(:@timelines).clear
    there.close
    again = env.merge("rack.input" => StringIO.new(JSON.generate(long)), "puma.socket" => here)
    expect([app.call(again).first, again["gorvant.code"], db[:computed_results].count]).to eq([499, "called_off", 0])
    fetch(visit)
  end

  it "says that the database is away and when to try again, and whether anything may have been kept; then all is well" do
    cut =
      lambda do
        web = ServerBench.web
        web.disconnect # so that the pool has one connection: the one that is cut
        pid = web.get(Sequel.function(:pg_backend_pid))
        other = Gorvant::Server::Database.connect
        other.get(Sequel.function(:pg_terminate_backend, pid))
        other.disconnect
      end
    path = visit
    cut.call
    fetch(path)
    expect([last_response.status, last_response.headers["retry-after"], answer["kept"]]).to eq([503, "2", "nothing"])
    fetch(path)
    expect(last_response.status).to eq(200)
    cut.call
    send_json(:patch, path, version: 1, complaint: "Hums")
    expect([last_response.status, answer["kept"], answer["detail"]]).to match([503, "unknown", /safe/])
    allow(Gorvant::Server::Visits).to receive(:new).and_raise(Sequel::PoolTimeout)
    send_json(:patch, path, version: 1, complaint: "Hums")
    expect([last_response.status, answer["kept"]]).to eq([503, "nothing"])
  end

  it "writes one line for an answer, with its route and code, and no word of what was sent; and of what broke only where" do
    lines = StringIO.new
    logger = Logger.new(lines, formatter: Gorvant::Server::Journal.method(:line))
    allow(Gorvant::Server::Journal).to receive(:logger).and_return(logger)
    send_json(:post, "#{visit}/trace", condition: { call: "heat", faults: [{ kind: "open", at: "SECRET PLACE" }] })
    send_json(:patch, visit, version: 1, complaint: "Mrs SECRET says it hums")
    allow(Gorvant::Server::Visits).to receive(:new).and_raise(RuntimeError, "SECRET")
    fetch("/api/visits")
    expect(last_response.status).to eq(500)
    written = lines.string.lines.map { |line| JSON.parse(line) }
    expect(written.map { |line| line.values_at("route", "status", "code") }).to eq(
      [
        ["POST /api/visits/:id/trace", 422, "bad_condition"],
        ["PATCH /api/visits/:id", 200, nil],
        ["GET /api/visits", nil, nil],
        ["GET /api/visits", 500, nil]
      ]
    )
    expect(written[2].values_at("error", "severity")).to eq(%w[RuntimeError ERROR])
    expect(lines.string).not_to match(/SECRET|#{visit_id}/)
  end

  it "tells the browser to keep nothing of a visit, to send no address on, and to take no device but the camera" do
    fetch(visit)
    expect(last_response.headers).to include(
      "cache-control" => "no-store",
      "referrer-policy" => "same-origin",
      "permissions-policy" => include("geolocation=()")
    )
  end

  it "refuses dear answers with when to come again while their turns are taken, and not what is known already, nor what is cheap" do
    body = { script: { moves: [{ at_seconds: 0, what: "call", value: "heat" }] }, duration_seconds: 900 }
    send_json(:post, "#{visit}/timeline", body)
    full = Gorvant::Server::Turns.new(running: 0, waiting: 0)
    stub_const("Gorvant::Server::Warm::TURNS", full)
    send_json(:post, "#{visit}/timeline", body)
    expect(last_response.status).to eq(200)
    send_json(:post, "#{visit}/timeline", body.merge(duration_seconds: 901))
    expect([last_response.status, last_response.headers["retry-after"], answer["title"]]).to eq([503, "1", "Busy"])
    send_json(:post, "#{visit}/settings", settings: { stage_delay_minutes: 11 })
    expect(last_response.status).to eq(503)
    send_json(:post, "#{visit}/trace", condition: { call: "cool" })
    expect(last_response.status).to eq(200)
  end
end
