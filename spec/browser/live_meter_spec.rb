# frozen_string_literal: true

require_relative "../support/browser"
require_relative "../support/practice_trial"

# A visit driven by a meter that sends by itself, hands off the keyboard but for the key that keeps.
RSpec.describe "A live meter", :browser, type: :feature do
  after { ServerBench.alone }

  let(:token) do
    devices = Gorvant::Server::Devices.new(ServerBench.door)
    devices.make(SecureRandom.uuid, ServerBench.viewer, name: "Bench meter", scope: "stand_in").last
  end

  # The real program, against the server of this run.
  def meter(seconds, *more, at: ["--visit", visit_id])
    server = Capybara.current_session.server
    url = "http://#{server.host}:#{server.port}"
    given = ["--url", url, "--token", token, *at, "--seconds", seconds.to_s, "--every", "0.3", *more]
    Process.spawn("bin/sim-meter", *given, chdir: Gorvant::Server::ROOT)
  end

  it "shows, holds and keeps what it reads between the page's probes, and is stale when it goes quiet" do
    visit trace_path("?call=heat&black=outdoor.C&red=outdoor.R")
    expect(page).to have_css("[data-testid=expected]")
    running = meter(7)
    expect(page).to have_css("[data-testid=live-meter]", text: "held", wait: 10)
    expect(find("[data-testid=live-value]").text.to_f).to be_between(22, 29)
    expect(page).to have_css("[data-testid=keep-live]", text: "Keep outdoor C – outdoor R")
    find("body").send_keys("k")
    expect(page).to have_css("[data-testid=verdict]", text: /agrees|Agrees|=/)
    expect(db[:readings].where(visit_id: visit_id).reverse(:received_at).get(:instrument)).to eq("high_impedance")
    Process.wait(running)
    expect(page).to have_css("[data-testid=live-meter]", text: "quiet", wait: 8)
    expect(page).to have_css("[data-testid=keep-live]:disabled")
    expect(complaints).to eq([])
  end

  it "refuses a meter on DC: its 0 is no dead circuit" do
    visit trace_path("?call=heat&black=outdoor.C&red=outdoor.R")
    expect(page).to have_css("[data-testid=expected]")
    running = meter(4, "--function", "volts_dc")
    expect(page).to have_css("[data-testid=live-meter]", text: "what it shows is no V AC", wait: 10)
    expect(page).to have_no_css("[data-testid=keep-live]")
    Process.wait(running)
  end

  it "reads a drill's hidden circuit where the probes are put, as acts of the bench" do
    library = PracticeTrial.library(rig, 34.0)
    drill = PracticeTrial.hidden(library, %w[stuck_open:HPS])
    drills = Gorvant::Server::Drills.new(db, ServerBench.viewer)
    row = drills.keep(SecureRandom.uuid, {}, drill, { id: db[:rigs].get(:id) }).first
    as(ServerBench.viewer.user_id)
    send_json(:post, "/api/practice/tries", id: try = SecureRandom.uuid, drill_id: row[:id])
    visit "/practice/tries/#{try}"
    expect(page).to have_css("[data-testid=bench]")
    running = meter(6, at: ["--try", try])
    tap_station("HPS")
    expect(page).to have_css("[data-testid=bench-live]", text: /2[4-6]\.\d V/, wait: 10)
    expect(page).to have_css("[data-testid=bench-log] li:first-child", text: "before HPS – after HPS")
    Process.wait(running)
    expect(all("[data-testid=bench-log] li").size).to eq(1)
  end
end
