# frozen_string_literal: true

require_relative "../support/browser"

RSpec.describe "What a visit finds", :browser, type: :feature do
  let(:visit_path) { "/visits/#{visit_id}" }

  def entry = find("[data-testid=entry]")
  def enter(text) = entry.send_keys(text, :enter)
  def now = find("[data-testid=now]").text
  def fewest = find("[data-testid=fewest]").all("li").map(&:text)
  def findings = find("[data-testid=wiring-findings]")

  it "takes 20 conductors by keyboard alone, names three planted errors, comes to two moves, and keeps all" do
    visit "#{visit_path}/wiring"
    expect(page).to have_css("[data-testid=board]")
    expect(now).to include("red of cable A, drawn on R")
    wall = all("[data-testid=board] [data-testid*='@wall']").size
    enter("") until now.start_with?("orange")
    enter("B")
    expect(page).to have_css("[data-testid=fewest] li", text: "At the wall move the orange of cable A from B to O")
    enter("") while find("[data-testid=place-wall]")["data-chosen"] == "true"
    expect(find("[data-testid=place-wall]").text).to include("✓")
    done = wall
    until now.include?("All looked at") || done > 40
      case now
      when /\Awhite of cable B, drawn on W2 out/
        enter("capped")
      else
        enter("")
      end
      done += 1
    end
    expect(done).to be >= 20
    entry.send_keys(:page_down) until find("[data-testid=place-outdoor]")["data-chosen"] == "true"
    enter("violet bare")
    expect(page).to have_css("[data-testid=wiring-findings]", text: "Bare end: violet of cable B")
    expect(fewest).to eq(
      ["At the wall move the orange of cable A from B to O", "At the outdoor unit land the white of cable B on W2 out"]
    )
    expect(findings).to have_text("the heat pump heats; should be: the heat pump cools; reversing valve solenoid off")
    expect(findings).to have_text(/Defrost\s+the heat pump cools; should be: the heat pump cools, strips heat/)
    expect(all("[data-testid=wiring-findings] > details").size).to eq(3)
    expect(page).to have_css(".says .kept")
    visit "#{visit_path}/wiring"
    expect(page).to have_css("[data-testid=fewest] li", count: 2)
    expect(find("[data-testid=page-wiring]").text).to include("≠")
    expect(find("[data-testid=list]", visible: :all)["textContent"]).to include("violet", "bare")
    click_on "Trace as found"
    expect(page).to have_css("svg.loops")
    find("[data-testid=call-cool]").click
    expect(page).to have_css(".station", minimum: 4)
    expect(page).to have_text("orange on O at the wall: lands on wall B instead")
  end

  it "moves a wire by two taps, takes it back, and says what is wrong with a line without losing it" do
    visit "#{visit_path}/wiring"
    find('[data-testid="end-cable_a.yellow@air_handler"]').click
    find('[data-testid="screw-air_handler.G"]').click
    expect(page).to have_css(".call.wrong", text: "Cool")
    find("[data-testid=undo]").click
    expect(page).to have_no_css(".call.wrong")
    find("[data-testid=redo]").click
    expect(page).to have_css(".call.wrong", text: "Cool")
    find("[data-testid=place-outdoor]").click
    enter("orange Q9")
    expect(page).to have_css("[role=alert]", text: "end with a terminal")
    expect(entry.value).to eq("orange Q9")
    blank(entry)
    enter("jumper R Y")
    expect(page).to have_css("[data-testid=wiring-findings]", text: "Jumper R–Y left in")
    find("[data-testid=as-drawn]").click
    expect(page).to have_css("[data-testid=wiring-standing].untouched")
  end

  it "lands a wire by thumb on a phone, place by place" do
    resize(390, 844)
    visit "#{visit_path}/wiring"
    find("[data-testid=place-outdoor]").click
    find("[data-testid=now]", text: "red")
    3.times { find("[data-testid=entry]").send_keys(:enter) }
    expect(page).to have_css("[data-testid=now]", text: "orange")
    enter("Y")
    expect(page).to have_css("[data-testid=wiring-findings]", text: "Y")
    expect(page).to have_css(".call.wrong", text: "Cool")
    page.execute_script(
      "document.querySelector('[data-testid=\"screw-outdoor.O\"]')" \
        ".scrollIntoView({ block: 'center', inline: 'center' })"
    )
    find('[data-testid="end-cable_b.orange@outdoor"]').click
    find('[data-testid="screw-outdoor.O"]').click
    expect(page).to have_no_css(".call.wrong")
  end

  it "loses nothing when somebody else changes the visit meanwhile: mine on top, or theirs" do
    visit "#{visit_path}/wiring"
    expect(page).to have_css("[data-testid=board]")
    theirs = { landings: [{ cable: "cable_a", conductor: "red", place: "wall", lands_on: "R" }] }
    hold("wiring", visit_id, theirs)
    enter("capped")
    expect(page).to have_css("[role=alert]", text: "Somebody else changed this visit")
    expect(page).to have_css(".call.wrong")
    find("[data-testid=keep-mine]").click
    expect(page).to have_no_css("[data-testid=keep-mine]")
    kept = db[:visit_desks].where(visit_id: visit_id, desk: "wiring").first
    expect([kept[:version], kept[:content]["landings"].map { |one| one["lies"] }]).to eq([2, %w[capped]])
  end

  it "begins anew from what somebody else keeps while it is open, so that what is noted next stands beside it" do
    visit "#{visit_path}/wiring"
    expect(page).to have_css("[data-testid=board]")
    orange = { cable: "cable_b", conductor: "orange", place: "outdoor", lands_on: "O" }
    hold("wiring", visit_id, { landings: [orange] }, heard: true)
    expect(page).to have_css("[data-testid=last-by]", text: "just now")
    expect(page).to have_css('[data-testid="end-cable_b.orange@outdoor"]:not(.unseen)', visible: :all)
    enter("capped")
    expect(page).to have_css(".call.wrong")
    expect(page).to have_no_css("[data-testid=keep-mine]")
    kept = db[:visit_desks].where(visit_id: visit_id, desk: "wiring").first
    expect([kept[:version], kept[:content]["landings"].size]).to eq([2, 2])
  end

  it "takes landings from a file, or refuses it row by row and keeps what was there" do
    visit "#{visit_path}/wiring"
    expect(page).to have_css("[data-testid=board]")
    Dir.mktmpdir do |folder|
      bad = File.join(folder, "bad.csv")
      File.write(bad, "\uFEFFplace;cable;conductor;lands_on\r\nwall;cable_a;orange;B\r\nattic;cable_a;red;R\r\n")
      give("csv-in", bad)
      expect(page).to have_css("[data-testid=refused]", text: "line 3")
      expect(page).to have_no_css(".call.wrong")
      good = File.join(folder, "good.csv")
      File.write(good, File.read(bad).sub("attic", "wall"))
      give("csv-in", good)
      expect(page).to have_css("[data-testid=fewest] li", text: "orange")
    end
  end

  it "checks the settings, runs the stages, says why aux is not on, and ticks off the bench list" do
    visit "#{visit_path}/thermostat"
    expect(page).to have_css("[data-testid=stages]")
    find('[data-setting="stage_delay_minutes"] input:first-of-type', match: :first).set("12").send_keys(:tab)
    find('[data-setting="stage_error_degrees_f"] input', match: :first).set("1.5").send_keys(:tab)
    expect(page).to have_css(
      "[data-testid=stages]",
      text: /12:00\s+W2\s+not sooner: not before its stage delay of 12 min/
    )
    expect(find("[data-testid=waiting]").text).to include(
      "W2 is not on: not before its stage delay of 12 min",
      "It comes at 12:00"
    )
    slider = find("[data-testid=staging-chart] [role=slider]")
    before = slider["aria-valuenow"].to_i
    slider.send_keys(:right, :right)
    expect(page).to have_css("[role=slider][aria-valuetext='#{(before + 60) / 60}:00']")
    expect(page).to have_css("[data-testid=waiting]", text: "At #{(before + 60) / 60}:00")
    find("[data-testid=error]").set("1.5")
    expect(page).to have_css("[data-testid=waiting]", text: "Not within this run")
    find("[data-testid=outdoor-end]").set("12").send_keys(:tab)
    expect(page).to have_css("[data-testid=staging-chart]", text: /\d+ to 12 °F outside/)
    find("[data-testid=outdoor-end]").set("cold").send_keys(:tab)
    expect(page).to have_css("[role=alert]", text: "Outside at the end: “cold” is no number.")
    blank(find("[data-testid=outdoor-end]")).send_keys(:tab)
    pick("room", "typed")
    find("[data-testid=course]").set("0:00 66 41\n10:00 68 – 72\n20:00 69 20")
    expect(page).to have_css("[data-testid=staging-chart]", text: "41 to 20 °F outside")
    pick("room", "error held")
    pick('[data-setting="system_setup"]', "conventional, one heat one cool")
    expect(page).to have_css(".findings", text: "Thermostat set to conventional")
    expect(find("[data-testid=tally]").text).to include("1 disagree")
    find("[data-testid=undo]").click
    expect(page).to have_no_css(".findings", text: "Thermostat set to conventional")
    find("[data-testid=tab-bench]").click
    within("[data-testid=bench-heat-1]") { click_on "As expected" }
    expect(page).to have_css("[data-testid=bench-heat-1].agrees")
    within("[data-testid=bench-fan]") { click_on "Y", exact: true }
    expect(page).to have_css("[data-testid=bench-fan].disagrees")
    find(
      '[data-setting="changeover_school"] .label input, [data-setting="staging_school"] .label input',
      match: :first
    ).set("7").send_keys(:tab)
    find("[data-testid=profile-name]").set("Round dial")
    find("[data-testid=keep-profile]").click
    expect(page).to have_css("[data-testid=profile]", text: "Round dial")
    expect(page).to have_css(".head .kept")
    visit "#{visit_path}/thermostat"
    find("[data-testid=tab-bench]").click
    expect(page).to have_css("[data-testid=bench-heat-1].agrees")
    expect(page).to have_css("[data-testid=bench-fan].disagrees")
  end

  it "takes down the complaint where it shows, safety first, with a photo; and what is only assumed is one glance away" do
    visit "#{visit_path}/intake"
    find("[data-testid=safety-capacitor]").click
    expect(page).to have_css("[data-testid=safety-capacitor] input:checked", visible: :all)
    find("[data-testid=symptom-defrost_never_starts]").click
    find("[data-testid=set_point_degrees_f]").set("900").send_keys(:tab)
    expect(page).to have_css("[role=alert]", text: "Set point: a number from 35 to 99 °F.")
    find("[data-testid=set_point_degrees_f]").set("70").send_keys(:tab)
    Dir.mktmpdir do |folder|
      path = File.join(folder, "panel.png")
      require "vips"
      Vips::Image.black(900, 600).pngsave(path)
      give("photo", path)
    end
    expect(page).to have_css(".photos li img")
    visit "#{visit_path}/intake"
    expect(page).to have_css("[data-testid=symptom-defrost_never_starts][aria-pressed=true]")
    expect(find("[data-testid=set_point_degrees_f]").value).to eq("70")
    click_on "Fitted"
    find("[data-testid=group-assumed]").click
    before = find("[data-testid=group-assumed]").text[/\d+/].to_i
    pick("source", "measured")
    find('[data-fact="defrost_interval_minutes"] input').set("90").send_keys(:tab)
    expect(page).to have_css("[data-testid=group-assumed]", text: (before - 1).to_s)
    find("[data-testid=save-rig]").click
    expect(page).to have_text("the visit goes on with it")
  end
end
