# frozen_string_literal: true

require_relative "../support/browser"

RSpec.describe "The first day with Gorvant", :browser, type: :feature do
  it "goes from a demo visit to a kept reading, and on to a rig file of one's own" do
    visit "/"
    expect(page).to have_css("[data-testid=visit]", count: 11)
    find("[data-testid=visit]", text: "Boathouse library").click
    find("[data-testid=call-heat]").click
    tap_station "outdoor.C"
    tap_station "outdoor.Y"
    expect(page).to have_css("[data-testid=expected]", text: "24.2")
    expect(page).to have_css("[data-testid=reason]", text: "outdoor Y is live, outdoor C is common")
    find("[data-testid=measured]").fill_in(with: "24.3")
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=verdict]", text: "24.3 V agrees")
    expect(page).to have_css("[data-testid=reading]", text: "outdoor C – outdoor Y")

    click_on "Rigs"
    file =
      Tempfile
        .create(%w[own .json])
        .tap { |own| own.write(JSON.generate(rig_file("hostel_bunks").merge("name" => "Kiln room, my own"))) }
    file.close
    give("rig-file", file.path)
    find("[data-testid=rig]", text: "Kiln room, my own").click_on("Trace")
    find("[data-testid=call-heat]").click
    tap_station "outdoor.B"
    expect(page).to have_css("[data-testid=reason]", text: "outdoor B is live")
    expect(page).to have_no_css("[data-testid=keep]")
  end

  it "explains an open switch, names the first missing link, and remembers all in the address" do
    visit trace_path("?call=heat&supposed=DTS:open")
    click_on "Across"
    tap_station "DTS"
    expect(page).to have_css("[data-testid=reason]", text: "DTS is open and the loop is otherwise whole")
    find("[data-testid=load-COMP]").click
    expect(page).to have_css("[data-testid=why]", text: "first missing link is DTS")
    page.refresh
    expect(page).to have_css("[data-testid=reason]", text: "DTS is open")
    expect(find("[data-testid=call-heat]")["aria-pressed"]).to eq("true")
  end

  it "is driven by keys alone at the bench" do
    visit trace_path
    expect(page).to have_css("[data-testid=call-off]")
    page.send_keys("4")
    expect(page).to have_css("[data-station]", minimum: 30)
    expect(find("[data-testid=call-heat]")["aria-pressed"]).to eq("true")
    3.times { page.send_keys(:arrow_right) }
    first = find("[data-testid=probe-red]").text
    page.send_keys("m")
    page.send_keys("24,3", :enter)
    expect(page).to have_css("[data-testid=verdict]", text: "24.3 V")
    expect(find("[data-testid=probe-red]").text).not_to eq(first) # moved on to the next point
  end

  it "keeps what was typed when it is no number, and says what would be right" do
    visit trace_path("?call=heat&black=outdoor.C&red=outdoor.Y")
    find("[data-testid=measured]").fill_in(with: "lots")
    find("[data-testid=keep]").click
    expect(page).to have_css("[role=alert]", text: "such as 24.3")
    expect(find("[data-testid=measured]").value).to eq("lots")
    expect(page).to have_css("[data-testid=reading]", count: 8)
  end

  it "keeps what was seen, read at a place, looked up and done, each held against what it can be held against" do
    visit trace_path("?call=heat")
    find("[data-testid=function-seen]").click
    find("[data-testid=keep]").click
    expect(page).to have_css("[role=alert]", text: "Choose what it was")
    find("[data-testid=choice-stands]").click
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=verdict].disagrees", text: "outdoor fan: stands, and it is fed in this call")
    find("[data-testid=function-degrees_f]").click
    pick("place", "supply air")
    find("[data-testid=measured]").fill_in(with: "about 92")
    find("[data-testid=stopped]").fill_in(with: "soon")
    find("[data-testid=keep]").click
    expect(page).to have_css("[role=alert]", text: "Minutes since the compressor stopped")
    find("[data-testid=stopped]").fill_in(with: "0")
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=reading]", text: "about 92 °F")
    find("[data-testid=function-looked_up]").click
    pick("place", "Reversing valve")
    find("[data-testid=choice-B]").click
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=verdict].disagrees", text: "heating (B), and Fitted says cooling (O)")
    find("[data-testid=function-did]").click
    find("[data-testid=choice-lifted]").click
    find("[data-testid=reading-note]").fill_in(with: "O, at the board")
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=reading]", text: "O, at the board")
    expect(complaints).to eq([])
    find("[data-testid=reading]", text: "stands").click_on("Correct")
    expect(page).to have_css("[data-testid=function-seen]")
    find("[data-testid=choice-turns]").click
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=reading]", text: "corrected", count: 1)
    expect(page).to have_css("[data-testid=verdict].agrees", text: "outdoor fan: turns")
  end

  it "corrects a reading and takes one back, both still on the page" do
    visit trace_path("?call=heat")
    find("[data-testid=reading]", text: "board T1").click_on("Correct")
    find("[data-testid=measured]").fill_in(with: "24.1")
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=reading]", text: "corrected", count: 1)
    expect(page).to have_css("[data-testid=reading]", text: "24.1 V agrees")
    all("[data-testid=reading]").last.click_on("Take back")
    expect(page).to have_css("[data-testid=reading]", text: "taken back")
    expect(page).to have_css("[data-testid=reading]", count: 9)
  end

  it "begins a visit at a new site, and says what is missing first" do
    visit "/visits/new"
    find("[data-testid=begin]").click
    expect(page).to have_css("[role=alert]", text: "the site, the unit, what is fitted")
    find("[data-testid=site]").fill_in(with: "Lantern studio")
    find("[data-testid=unit]").fill_in(with: "Kiln room unit")
    find("[data-testid=complaint]").fill_in(with: "<b>cold</b> #{"very " * 60}")
    find("[data-testid=library] summary").click
    find("[data-testid=library] label", text: "Boathouse library, north").click
    find("[data-testid=begin]").click
    expect(page).to have_css("h1", text: "Lantern studio, Kiln room unit")
    expect(find("[data-testid=complaint]").value).to start_with("<b>cold</b> very")
    click_on "Trace"
    expect(page).to have_text("<b>cold</b> very")
    visit "/visits/new"
    find("[data-testid=site]").fill_in(with: "Lantern studio")
    find("[data-testid=unit]").fill_in(with: "Kiln room unit")
    expect(page).to have_css("[data-testid=as-earlier] input:checked", visible: :all)
    find("[data-testid=begin]").click
    expect(page).to have_css(".earlier", text: "<b>cold</b>")
  end

  it "points into a rig file that is wrong" do
    visit "/rigs"
    bad = rig_file.tap { |rig| rig["cables"][0]["conductors"][2]["to"] = "Q" }
    file = Tempfile.create(%w[bad .json]).tap { |own| own.write(JSON.generate(bad)) }
    file.close
    give("rig-file", file.path)
    expect(page).to have_css("[role=alert]", text: "cable 1, conductor 3: to unknown terminal")
    expect(page).to have_css("[data-testid=rig]", count: 7)
  end

  it "removes the demo data and brings it back" do
    visit "/settings"
    find("[data-testid=demo-remove]").click
    expect(page).to have_css("[data-testid=demo-restore]")
    click_on "Visits"
    expect(page).to have_text("No visit yet")
    visit "/settings"
    find("[data-testid=demo-restore]").click
    expect(page).to have_css("[data-testid=demo-remove]", wait: 90)
  end

  it "shows one loop as a string of stations on a phone, with the meter and its keypad docked" do
    resize(390, 844)
    visit trace_path("?call=heat&loop=CC")
    expect(page).to have_no_css("svg.scene")
    find(".string[aria-label=contactor] button", text: "outdoor Y").click
    expect(page).to have_css("[data-testid=expected]", text: "24.2")
    find("[data-testid=measured]").click
    within(".pad") { %w[2 4 . 2].each { |digit| click_on(digit) } }
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=verdict]", text: "24.2 V agrees")
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
  end
end
