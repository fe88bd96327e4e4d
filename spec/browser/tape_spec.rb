# frozen_string_literal: true

require_relative "../support/browser"

RSpec.describe "The tape", :browser, type: :feature do
  let(:rig) { "/rigs/#{db[:rigs].where(name: "Quince Street bakery, shop").get(:id)}/trace" }

  def query(**more) = "?#{URI.encode_www_form(more)}"
  def seconds = find("[data-testid=at]").text.split(":").map(&:to_f).inject { |sum, part| (sum * 60) + part }
  def lane(id) = find(%([data-testid="lane-#{id}"])).find("b").text
  def short_stop =
    [5, 600, 630].zip(%w[heat off heat]).map { |at, value| { at_seconds: at, what: "call", value: value } }

  it "plays a stop, a hold, a start, a defrost and the return on tape and diagrams together, and says why the contactor is dead" do
    visit rig
    expect(page).to have_css("svg.loops")
    page.send_keys("t")
    find("[data-testid=call-heat]").click
    expect(page).to have_css("[data-testid=moves]", text: "call heat")
    pick("preset", "A short stop, then on to a defrost")
    expect(page).to have_css("[data-testid=moves] li", count: 3)
    visit rig + query(tape: JSON.generate(start: { outdoor_degrees_f: 30 }, moves: short_stop), at: 580)
    expect(page).to have_css('[data-testid="lane-COMP"] b', text: "on")
    find("[data-testid=play]").click
    expect(page).to have_css('[data-testid="lane-hold"] b', text: "on")
    expect(page).to have_css('[data-testid="lane-COMP"] b', text: "on")
    find("[data-testid=play]").click
    visit rig + query(tape: JSON.generate(start: { outdoor_degrees_f: 30 }, moves: short_stop), span: 10_800, at: 3890)
    expect(page).to have_css('[data-testid="lane-defrost"] b', text: "off")
    pick("speed", "×10") # a defrost is over in minutes
    find("[data-testid=play]").click
    expect(page).to have_css('[data-testid="lane-defrost"] b', text: "on")
    find("[data-testid=play]").click
    expect(lane("OFM")).to eq("off")
    expect(page).to have_css("svg.loops .station.on", minimum: 4)
    expect(page).to have_css("[data-testid=valve-picture]", text: "Hot gas goes to the outdoor coil")
    page.send_keys("p")
    find("[data-testid=lanes]").send_keys(:end)
    page.send_keys("p")
    expect(page).to have_css("[data-testid=apart]", text: "valve: cooling → heating")

    visit rig + query(tape: JSON.generate(start: { outdoor_degrees_f: 30 }, moves: short_stop), at: 859)
    expect(page).to have_css('[data-testid="lane-outdoor.Y"] b', text: "on")
    expect([lane("outdoor.Y"), lane("CC")]).to eq(%w[on off])
    find("[data-testid=lane-CC]").click
    expect(page).to have_css("[data-testid=why-so]", text: "left, for nobody read how long it lasts: as designed")
    expect(page).to have_css("[data-testid=why-so]", text: "On again at 15:00, in 0:41")
    page.send_keys("]")
    expect(page).to have_css('[data-testid="lane-CC"] b', text: "on")
    expect(seconds).to eq(900)
  end

  it "takes a supposed safety, a broken wire and a temperature as moves at the cursor, and undoes them" do
    visit rig + query(tape: JSON.generate(moves: short_stop.first(1)), at: 300, part: "HPS")
    find("[data-testid=suppose]").click
    expect(page).to have_css("[data-testid=moves] li", text: "5:00\nswitch HPS open")
    find("[data-testid=move-value]").fill_in(with: "12")
    find("[data-testid=move-at]").fill_in(with: "20:00")
    find("[data-testid=move-add]").click
    expect(page).to have_css("[data-testid=moves] li", text: "outdoor 12 °F")
    expect(page).to have_css("[data-testid=events]", text: "HPS opens")
    within("[data-testid=tape]") { click_on "Undo" }
    expect(page).to have_no_css("[data-testid=moves] li", text: "outdoor 12 °F")
    find("[data-testid=move-at]").fill_in(with: "soon")
    find("[data-testid=move-add]").click
    expect(page).to have_css("[role=alert]", text: "Times as 2:30")
    expect(find("[data-testid=move-at]").value).to eq("soon")
  end

  it "tells what is wrong with a script from outside, and zooms without losing the cursor" do
    visit rig + query(tape: JSON.generate(moves: [{ at_seconds: 9, what: "call", value: "warm" }]))
    expect(page).to have_css("[role=alert]", text: "unknown call 'warm'")
    visit rig + query(tape: JSON.generate(moves: short_stop), at: 859)
    expect(page).to have_css('[data-testid="lane-CC"]')
    expect(page).to have_css(".ruler text", exact_text: "0:00")
    find("[data-testid=lanes]").send_keys("+", "+", "+")
    expect(page).to have_css("[data-testid=at]", text: "14:19")
    expect(page).to have_no_css(".ruler text", exact_text: "0:00")
  end

  %w[light dark].each do |theme|
    it "has nothing for axe to complain of in #{theme}, nor on a phone" do
      visit "/settings"
      page.execute_script("localStorage.setItem('gorvant.theme', arguments[0])", theme)
      visit rig + query(tape: JSON.generate(moves: short_stop), at: 859)
      find("[data-testid=lane-CC]").click
      expect(page).to have_css("[data-testid=why-so]")
      expect(complaints).to eq([])
      resize(390, 844)
      expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    end
  end
end
