# frozen_string_literal: true

require_relative "../support/browser"

# A crew comes together: the owner's password, a link for a technician, two browsers on one visit.
RSpec.describe "A crew", :browser, type: :feature do
  word = "reeds on the north shore"

  after { ServerBench.alone }

  # Another browser, of somebody else.
  def other_browser(user_id = nil)
    Capybara.using_session(:other) do
      browse_as(user_id) if user_id
      yield
    end
  end

  def fill(testid, text) = find("[data-testid=#{testid}]").fill_in(with: text)

  it "opens by the start's link, gets a password, invites a technician, and is closed to who has none" do
    browse_as(nil)
    visit "/open/not-the-key"
    expect(page).to have_css("h1", text: "This link opens nothing")
    visit "/open/#{CGI.escape(ServerBench::KEY).gsub("+", "%20")}"
    expect(page).to have_css("h1", text: "Day sheet")
    expect(page).to have_current_path("/")

    find("[data-testid=who]").click
    fill("account-name", "Wren")
    fill("account-password", "short")
    find("[data-testid=account-keep]").click
    expect(page).to have_text("10 characters or more")
    fill("account-password", word)
    find("[data-testid=account-keep]").click
    expect(page).to have_css("[data-testid=account-kept]")

    find("[data-testid=settings-people]").click
    find("[data-testid=invite-as-apprentice]").click
    find("[data-testid=invite]").click
    link = find("[data-testid=shown-once]").text
    other_browser do
      visit URI(link).path
      expect(page).to have_text("You read and practice")
      fill("welcome-name", "Tilda Roe")
      fill("welcome-sign-in-name", "tilda")
      fill("welcome-password", word)
      find("[data-testid=welcome-go]").click
      expect(page).to have_css("[data-testid=who]", text: "apprentice: reads and practices")
      expect(page).to have_no_link("Begin a visit")
      visit trace_path("?call=heat&black=outdoor.C&red=outdoor.Y")
      find("[data-testid=measured]").fill_in(with: "24.3")
      find("[data-testid=keep]").click
      expect(page).to have_text("an apprentice reads and practices; a technician or the owner does this")
      expect(find("[data-testid=measured]").value).to eq("24.3")
    end
    visit "/settings/people"
    expect(find("[data-testid=people]")).to have_text("Tilda Roe")
    expect(complaints).to eq([])
    find("[data-testid=settings-account]").click
    find("[data-testid=sign-out]").click
    expect(page).to have_css("[data-testid=sign-in]")
    fill("sign-in-name", "wren")
    fill("sign-in-password", "#{word}s")
    find("[data-testid=sign-in]").click
    expect(page).to have_text("this name and password do not fit together")
    fill("sign-in-password", word)
    find("[data-testid=sign-in]").click
    expect(page).to have_css("h1", text: "Day sheet")
  end

  it "asks for the session that ended over the page, and what was typed stays" do
    name = db[:users].where(id: ServerBench.viewer.user_id)
    name.update(sign_in_name: "wren", password_hash: Gorvant::Server::Door.password_hash(word))
    visit trace_path("?call=heat&black=outdoor.C&red=outdoor.Y")
    find("[data-testid=measured]").fill_in(with: "24.3")
    db[:sessions].delete
    page.execute_script("document.querySelector('[data-testid=keep]').click()") # or whatever else is asked first
    expect(page).to have_css("[data-testid=signed-out]", text: "What you typed stays")
    fill("sign-in-name", "wren")
    fill("sign-in-password", word)
    find("[data-testid=sign-in]").click
    expect(page).to have_no_css("[data-testid=signed-out]")
    expect(page).to have_no_css(".el-overlay-dialog", visible: true)
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=verdict]", text: "24.3 V agrees")
  end

  it "works on one visit from two browsers: each sees what the other keeps, where they are, and asks for hands clear" do
    olm = ServerBench.person("Olm Brandt", "technician")
    visit trace_path("?call=off")
    other_browser(olm) do
      visit trace_path("?call=heat&black=outdoor.C&red=outdoor.Y")
      find("[data-testid=together]", text: "Local owner").click
      find("[data-testid=together-at-outdoor]").click
      find("[data-testid=measured]").fill_in(with: "24.3")
      find("[data-testid=keep]").click
      expect(page).to have_css("[data-testid=reading]", text: "outdoor C – outdoor Y")
    end
    expect(page).to have_css("[data-testid=together]", text: "Olm Brandt")
    expect(page).to have_css("path.other", minimum: 1, visible: :all) # his probes, in another shape
    find("[data-testid=call-heat]").click
    expect(page).to have_css("[data-testid=reading]", text: "Olm Brandt")
    expect(page).to have_css("[data-testid=together-list]", text: "Olm Brandt Outdoor · Trace")
    expect(page).to have_text("Before you set HEAT at the wall").or have_text("Before you set Heat at the wall")
    find("[data-testid=ask-hands]").click
    other_browser do
      expect(page).to have_css("[data-testid=hands-asked]", text: "Local owner is about to change the call")
      find("[data-testid=hands-not-yet]").click
    end
    expect(page).to have_css("[data-testid=hands-answer]", text: "Olm Brandt: not yet")
    find("[data-testid=ask-hands]").click
    other_browser { find("[data-testid=hands-clear]").click }
    expect(page).to have_css("[data-testid=hands-answer]", text: "Olm Brandt: hands clear")
  end

  it "lets a device write by a token that is shown once, and revokes it" do
    visit "/settings/devices"
    fill("device-name", "Reed meter")
    find("[data-testid=device-make]").click
    token = find("[data-testid=shown-once]").text
    expect(token).to match(Gorvant::Server::Devices::TOKEN)
    find("[data-testid=once-done]").click
    expect(page).to have_no_text(token)
    sample = { id: uuid, function: "volts_ac", value: 24.3, unit: "V", stable: true, device_time: Time.now.iso8601 }
    send_as = -> do
      post(
        "/api/devices/readings",
        JSON.generate(sample),
        "CONTENT_TYPE" => "application/json",
        "HTTP_HOST" => "127.0.0.1",
        "HTTP_AUTHORIZATION" => "Bearer #{token}"
      )
      last_response.status
    end
    expect(send_as.call).to eq(201)
    find("[data-testid=device-revoke]").click
    find(".el-popconfirm__action .el-button--primary", visible: true).click
    expect(page).to have_css("[data-testid=devices]", text: "revoked just now")
    expect(send_as.call).to eq(401)
    expect(page).to have_css(".gone b", text: "Reed meter")
  end

  it "throws a visit away at the foot of its intake, and has it back" do
    visit "/visits/#{visit_id}/intake"
    find("[data-testid=throw-away]").click
    find(".el-popconfirm__action .el-button--primary", visible: true).click
    expect(page).to have_css("h1", text: "Day sheet")
    expect(page).to have_css("[data-testid=visit]", count: 10)
    expect(page).to have_no_text("Boathouse library")
    visit "/settings/bin"
    expect(page).to have_css("[data-testid=bin]", text: /Boathouse library, North unit.*goes in 30 days/m)
    find("[data-testid=take-out]").click
    expect(page).to have_css("[data-testid=bin-empty]")
    visit "/"
    expect(page).to have_css("[data-testid=visit]", count: 11)
  end
end
