# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

# A meter that is not there: it says "now", the server works out what it shows, and its token learns nothing.
RSpec.describe "A stand-in of a meter", :server do
  include_context "with the API's contract"

  after { ServerBench.alone }

  let(:token) { make("stand_in") }

  def make(scope) =
    Gorvant::Server::Devices.new(ServerBench.door).make(uuid, ServerBench.viewer, name: "Bench meter", 
scope: scope).last

  def place(*probes, call: "heat", seconds_ago: 5)
    send_json(:post, "/api/visits/#{visit_id}/here", page: "trace", call: call, probes: probes)
    db[:events].where(kind: "here").update(at: Time.now - seconds_ago)
  end

  def sample(with: token, **given)
    @sent = JSON.generate({ id: uuid, visit_id: visit_id, **given })
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
    place("outdoor.C", "outdoor.Y", seconds_ago: 0.2)
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

  it "reads nothing with its token" do
    @sent = ""
    header("Authorization", "Bearer #{token}")
    clear_cookies
    ["/api/stream", "/api/visits/#{visit_id}", "/api/rigs", "/api/practice", "/api/visits"].each do |path|
      get(path, {}, "HTTP_HOST" => "127.0.0.1")
      expect(last_response.status).to eq(401), path
    end
  end
end
