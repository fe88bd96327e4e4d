# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"
require_relative "../support/practice_trial"

# A meter that is not there: it says "now", the server works out what it shows, and its token learns nothing.
RSpec.describe "A stand-in of a meter", :server do
  include_context "with the API's contract"

  after { ServerBench.alone }

  let(:token) { make("stand_in") }

  def make(scope) =
    Gorvant::Server::Devices
      .new(ServerBench.door)
      .make(uuid, ServerBench.viewer, name: "Bench meter", scope: scope)
      .last

  def place(*probes, call: "heat", seconds_ago: 5)
    send_json(:post, "/api/visits/#{visit_id}/here", page: "trace", call: call, probes: probes)
    db[:events].where(kind: "here").update(at: Time.now - seconds_ago)
  end

  def sample(with: token, **given)
    @sent = JSON.generate({ id: uuid, visit_id: visit_id, **given }.compact)
    clear_cookies
    header("Authorization", "Bearer #{with}")
    post("/api/devices/stand-in", @sent, "CONTENT_TYPE" => "application/json", "HTTP_HOST" => "127.0.0.1")
    header("Authorization", nil)
    as(ServerBench.viewer.user_id)
    db[:events].where(kind: "device_reading").reverse(:id).get(:payload)&.to_hash
  end

  it "shows what the unit gives between the probes of the page, settled after a while" do
    place("outdoor.C", "outdoor.R")
    shown = sample
    expect([last_response.status, answer.keys]).to eq([201, ["taken"]])
    expect(shown).to include("function" => "volts_ac", "unit" => "V", "stable" => true, "device" => "Bench meter")
    expect(shown["value"]).to be_between(23, 28)
    expect(shown["probes"]).to eq(%w[outdoor.C outdoor.R])
    expect(shown).not_to include("instrument") # nobody has said what its input is
    place("outdoor.C", "outdoor.Y", seconds_ago: -30) # just now, however slow this machine is
    expect(sample["stable"]).to be(false)
  end

  it "shows nothing while no probes are placed, or the page has gone" do
    expect(sample).to be_nil
    place("outdoor.C")
    expect(sample).to be_nil
    place("outdoor.C", "moon.R")
    expect(sample).to be_nil
    place("outdoor.C", "outdoor.R", seconds_ago: 600)
    expect(sample).to be_nil
    expect(last_response.status).to eq(200)
  end

  it "is what its function says: 0 on DC is no dead circuit" do
    place("outdoor.C", "outdoor.R")
    expect(sample(function: "volts_dc")).to include("function" => "volts_dc", "value" => 0.0, "unit" => "V")
    expect(sample(function: "hertz")).to include("function" => "hertz", "value" => 60.0, "unit" => "Hz")
  end

  it "measures no visit but those of the demo data, and only with its own kind of token" do
    place("outdoor.C", "outdoor.R")
    sample(with: make("readings"))
    expect([last_response.status, answer["detail"]]).to match([403, /no stand-in/])
    db[:visits].where(id: visit_id).update(demo: false)
    sample
    expect([last_response.status, answer["detail"]]).to match([403, /demo data alone/])
    expect(db[:events].where(kind: "device_reading").count).to eq(0)
  end

  describe "at a drill" do
    let(:try) do
      library = PracticeTrial.library(rig, 34.0)
      drill = PracticeTrial.hidden(library, %w[stuck_open:HPS])
      row = Gorvant::Server::Drills.new(db, ServerBench.viewer).keep(uuid, {}, drill, { id: db[:rigs].get(:id) }).first
      send_json(:post, "/api/practice/tries", id: uuid, drill_id: row[:id])
      answer["id"]
    end

    def put(*probes) = send_json(:post, "/api/practice/tries/#{try}/probes", probes: probes)
    def log = db[:drill_tries].where(id: try).get(:log).to_a

    it "is one act for each place of the probes, however often it shows it, and pays for it" do
      put("outdoor.HPS.1", "outdoor.HPS.2")
      shown = Array.new(3) { sample(visit_id: nil, try_id: try) }
      expect(shown.map { |one| one["value"] }.uniq.size).to eq(1)
      expect(shown.first).to include("try_id" => try, "value" => be_between(23, 28))
      expect([log.size, log.first["act"]["act"], log.first["minutes"]]).to match([1, "volts", be > 1])
      put("outdoor.C", "outdoor.R")
      sample(visit_id: nil, try_id: try)
      expect(log.size).to eq(2)
    end

    it "measures nobody else's, nothing that is decided, and no point that is none" do
      expect(sample(visit_id: nil, try_id: try)).to be_nil # no probes yet
      put("outdoor.C", "moon")
      expect(sample(visit_id: nil, try_id: try)).to be_nil
      db[:drill_tries].update(state: "done")
      expect(sample(visit_id: nil, try_id: try)).to be_nil
      db[:drill_tries].update(created_by: ServerBench.person("Tilda Roe", "apprentice"))
      sample(visit_id: nil, try_id: try)
      expect(last_response.status).to eq(404)
    end

    it "has to be told which: a visit or a drill" do
      sample(visit_id: nil)
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/visit_id"])
      sample(try_id: try)
      expect(last_response.status).to eq(422)
    end
  end
end
