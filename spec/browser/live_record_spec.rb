# frozen_string_literal: true

require_relative "../support/browser"

# A logger that sends while it measures, by its own program: drawn as it comes, quiet when it is, judged once closed.
RSpec.describe "A live record", :browser, type: :feature do
  include_context "with a worker"

  after { ServerBench.alone }

  let(:token) do
    devices = Gorvant::Server::Devices.new(ServerBench.door)
    devices.make(SecureRandom.uuid, ServerBench.viewer, name: "Eave logger", scope: "log_rows").last
  end

  # Seconds of a logger whose clock goes so many times as fast.
  def logger(record, seconds, times)
    server = Capybara.current_session.server
    given = {
      url: "http://#{server.host}:#{server.port}",
      token: token,
      record: record,
      seconds: seconds,
      times: times
    }
    more = { again: 0.3, columns: "outdoor,coil,fan,ob,amps" }
    options = given.merge(more).flat_map { |name, value| ["--#{name}", value.to_s] }
    Process.spawn("bin/sim-logger", *options, chdir: Gorvant::Server::ROOT)
  end

  def rows = db[:logs].where(state: "live").get(:told).to_h["rows"].to_i

  it "draws what comes, says when nothing does, and is judged like a file once it is closed" do
    visit "/visits/#{visit_id}/defrost?tab=recorded"
    find("[data-testid=listen]").click
    expect(page).to have_css("[data-testid=heard]", text: "Nothing has come yet")
    expect(page).to have_no_css("[data-testid=close-live]")
    record = find("[data-testid=record-number]").text
    running = logger(record, 4, 7200)
    expect(page).to have_css("[data-testid=heard]", text: "Eave logger sends", wait: 15)
    expect(page).to have_css("[data-testid=latest]", text: /Coil\s+-?\d+\.\d°/)
    expect(page).to have_css("[data-testid=live-plot] canvas")
    Process.wait(running)
    expect($CHILD_STATUS.success?).to be(true)
    expect(rows).to eq(960) # though it sent some of them twice
    expect(complaints).to eq([])

    visit "/visits/#{visit_id}/defrost?tab=recorded" # what came lies on the server
    expect(page).to have_css("[data-testid=live-plot] canvas")
    db[:logs].where(id: record).update(heard_at: Time.now - 300)
    visit "/visits/#{visit_id}/defrost?tab=recorded"
    expect(page).to have_css("[data-testid=heard].quiet", text: "Eave logger has been quiet for 5:0")
    expect(complaints).to eq([])

    find("[data-testid=close-live]").click
    find(".el-popconfirm__action .el-button--primary", visible: true).click
    expect(page).to have_css("[data-testid=recorded-defrosts] tbody tr", minimum: 3, wait: 30)
    expect(page).to have_no_css("[data-testid=live-record]")
    expect(page).to have_no_css("[data-testid=read-anew]")
    expect(complaints).to eq([])
  end
end
