# frozen_string_literal: true

require_relative "../support/browser"

# A unit that nobody has seen, by thumb; what is typed and not yet kept; °C; and what nobody looked at.
RSpec.describe "At the unit", :browser, type: :feature do
  def kit(id) = find("label", text: id)
  def meter = find("[aria-label=Meter]")

  it "comes from nothing to a reading that is judged, by thumb on a phone, in twelve taps" do
    resize(390, 844)
    visit "/"
    taps = 0
    tap = ->(found) { found.click.tap { taps += 1 } }
    tap.call(find("a", text: "Begin a visit", match: :first))
    tap.call(find("[data-testid=site]")).send_keys("Reed mill")
    tap.call(find("[data-testid=unit]")).send_keys("Loft unit", :escape)
    tap.call(kit("One stage, outdoor thermostat"))
    tap.call(find("[data-testid=begin]"))
    expect(page).to have_css("h1", text: "Reed mill, Loft unit")
    tap.call(at_rest(find("[data-testid=pages-here]")))
    tap.call(at_rest(find("[data-testid=page-trace]")))
    tap.call(find("[data-testid=call-heat]"))
    tap.call(find("[aria-label=Loops] button", text: "CC"))
    tap.call(find(".bead button", text: "outdoor Y", match: :first, visible: true))
    expect(meter).to have_text("V AC")
    glass, entry = %w[.glass .reading].map { |one| meter.find(one).native.rect }
    expect(glass.y + glass.height).to be <= entry.y
    tap.call(find("[data-testid=measured]"))
    find("[data-testid=measured]").send_keys("24.1")
    tap.call(meter.find("[data-testid=keep]"))
    expect(page).to have_css("[data-testid=reading]", text: "24.1 V")
    expect(taps).to be <= 12
    expect(complaints).to eq([])
  end

  it "says so far where a complaint was taken down and safety is still open" do
    visit "/visits/new"
    find("[data-testid=site]").fill_in(with: "Reed mill")
    find("[data-testid=unit]").fill_in(with: "Loft unit")
    kit("One stage, outdoor thermostat").click
    find("[data-testid=complaint]").fill_in(with: "The strips never come on.")
    click_on "Aux heat never comes"
    find("[data-testid=begin]").click
    expect(page).to have_css("h1", text: "Reed mill, Loft unit")
    expect(find("[data-testid=intake-standing]")[:class]).to include("so_far")
  end

  it "takes a first look by six marks, is waved off for good, and comes back by the keys" do
    visit "/"
    within("[data-testid=new-here]") { click_on "First look" }
    titles =
      6.times.map do
        title = find(".el-tour__title", text: /./).text
        find(".el-tour__footer .el-button", text: /Next|Finish/).execute_script("this.click()") # it moves
        expect(page).to have_no_css(".el-tour__title", text: /\A#{title}\z/)
        title
      end
    expect(titles.uniq.size).to eq(6)
    expect(page).to have_no_css(".el-tour__title")
    visit "/"
    expect(page).to have_css("[data-testid=visit]")
    expect(page).to have_no_css("[data-testid=new-here]")
    visit trace_path("?call=heat")
    expect(page).to have_css("[data-station]")
    page.send_keys("?")
    find("[data-testid=first-look-again]").click
    expect(page).to have_css(".el-tour__title", text: "The call")
    page.send_keys(:escape)
    expect(page).to have_no_css(".el-tour__title")
  end

  it "keeps a half-typed visit through composing a rig, asks before leaving that, and comes back with the new rig chosen" do
    visit "/visits/new"
    find("[data-testid=site]").fill_in(with: "Willow kiln")
    find("[data-testid=unit]").fill_in(with: "Yard unit")
    find("[data-testid=complaint]").fill_in(with: "Hums and stops")
    click_on "Compose it"
    expect(page).to have_current_path(%r{/rigs/new\?for=visit})
    expect(page).to have_css("[data-testid^=group-]", minimum: 3)
    visit "/visits/new"
    expect(find("[data-testid=site]").value).to eq("Willow kiln")
    expect(find("[data-testid=complaint]").value).to eq("Hums and stops")
    find("[data-testid=clear]").click
    expect(find("[data-testid=site]").value).to eq("")
  end

  it "tells of a visit in °C, takes °C, and keeps °F and everybody's own words" do
    visit "/settings"
    find("[data-testid='unit-°C']").click
    visit "/visits/#{visit_id}/intake"
    expect(page).to have_text("°C")
    expect(page).to have_no_text(/\d °F/)
    outside = find("[data-testid=outdoor_degrees_f]")
    expect(outside.value).to eq("1.1")
    outside.set("-5").send_keys(:tab)
    kept = -> { db[:visits].where(id: visit_id).get(:outdoor_degrees_f) }
    page.document.synchronize(8) { raise Capybara::ElementNotFound unless kept.call.round == 23 }
    visit "/visits/#{visit_id}/defrost"
    expect(page).to have_css("[data-testid=lamps]")
    expect(page).to have_no_text(/\d °F/)
    visit "/visits/#{visit_id}/thermostat"
    expect(page).to have_css("[data-testid=stages]")
    expect(page).to have_no_text(/\d °F/)
  end

  it "shows the outdoor thermostat where the weather puts it, with what follows, and lets it be supposed otherwise" do
    heron = db[:visits].where(outdoor_degrees_f: 58).get(:id)
    visit "/visits/#{heron}/trace?call=heat_aux"
    expect(page).to have_css("[data-testid=stands]", text: "ODT open: 58 °F outside")
    expect(find("[data-testid=load-HTR]").text).to match(/off\z/)
    find("[data-testid=load-HTR]").click
    expect(find("[data-testid=why]").text).to include("ODT")
    find("[data-testid=stand-ODT]").click
    expect(find("[data-testid=load-HTR]")).to have_text("on")
    expect(page).to have_css(".supposed", text: "ODT closed")
    page.go_back
  end

  it "has all of a defrost's moments, and what runs beside the drawing without scrolling" do
    visit trace_path("?call=defrost")
    expect(page).to have_css("[data-testid=moment-natural][aria-pressed=true]")
    loads = find("[aria-label='What runs']").native.rect
    expect(loads.y + loads.height).to be < 800
    expect(meter.native.rect.then { |rect| rect.y + rect.height }).to be < 800
    find("[data-testid=moment-forced_jumper]").click
    expect(page).to have_css("[data-testid=moment-forced_jumper][aria-pressed=true]")
    expect(page).to have_text("DFT")
  end

  it "shows nothing as looked at that nobody looked at" do
    visit "/visits/#{visit_id}/wiring"
    expect(page).to have_css("[data-testid=wiring-standing].untouched", text: "No end looked at yet")
    expect(find("[data-testid=page-wiring]").text).not_to include("=")
    expect(find("[data-testid=calls]").text).not_to include("=")
    expect(find("[data-testid=page-intake]").text).to include("~")
  end

  it "folds the states that work, and shows each that does not" do
    visit "/visits/#{visit_id}/wiring"
    plain = all("[data-testid=calls] .call").size
    find("[data-testid=states]").click
    expect(all("[data-testid=calls] .call").size).to be > plain
    find("[data-testid=states]").click
    find('[data-testid="end-cable_b.yellow@outdoor"]').click
    find('[data-testid="screw-outdoor.CC"]').click
    expect(page).to have_css("[data-testid=calls] .call.wrong", text: /Heat, HPS open/)
    expect(page).to have_css("[data-testid=fewest] li", text: "yellow")
  end

  it "asks of a forced test what its marks leave open, and closes it only then; another test keeps the first" do
    fresh =
      db[:visits]
        .join(:units, id: :unit_id)
        .where(Sequel[:units][:name] => "Waiting room unit")
        .reverse(:visit_on)
        .get(Sequel[:visits][:id])
    visit "/visits/#{fresh}/defrost"
    find("[data-testid=tab-test]").click
    find("[data-testid=mark-bridge_on]").click
    find("[data-testid=mark-bridge_off]").click
    expect(page).to have_css("[data-testid=tally]", text: /unplugged|jumper/)
    expect(page).to have_css("[data-testid=close-test][disabled]")
    find("[data-testid=tally-sensor_plug-on]").click
    find("[data-testid=tally-coil_jumper-off]").click
    find("[data-testid=close-test]:not([disabled])").click
    expect(page).to have_css("[data-testid=watch-state]", text: "closed")
    find("[data-testid=new-test]").click
    expect(page).to have_css("[data-testid=earlier-0]")
    visit current_path
    find("[data-testid=tab-test]").click
    expect(page).to have_css("[data-testid=earlier-0]")
  end

  it "names its eight marks on the day sheet, and leads from a symptom to the first thing to look at" do
    visit "/"
    %w[Intake Fitted Trace Wiring Thermostat Defrost].each { |name| expect(page).to have_css("main", text: name) }
    expect(page).to have_text("not looked at").and have_text("right so far")
    visit "/visits/#{visit_id}/trace"
    expect(page).to have_css("[data-testid=leads] a", minimum: 1)
    expect(all("[data-testid=leads] a").map { |one| one[:href] }).to include(end_with("/defrost"))
    find("[data-testid=leads] a[href*=trace]").click
    expect(page).to have_css("[data-testid=expected]")
    expect(page).to have_no_css("[data-testid=leads]")
    expect(page).to have_current_path(/call=heat.*red=outdoor\.O/)
  end
end
