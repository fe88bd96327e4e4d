# frozen_string_literal: true

require_relative "../support/browser"

RSpec.describe "Three linked views", :browser, type: :feature do
  def view(name) = find("[data-testid=view-#{name}]").click
  def lit = all("[data-part][aria-pressed=true]").map { |station| station["data-part"] }.uniq

  it "goes from seven rungs of a paper ladder to a rig, to what differs from the archetype, along a loop by key, and to print" do
    visit "/rigs"
    click_on "Type its rungs"
    find("[data-testid=rig-name]").fill_in(with: "Pottery shed, as its panel shows")
    rungs = find("[data-testid=rungs]")
    rungs.send_keys(
      "wall.G > air_handler.G > (IFR) > C",
      :enter,
      "R > wall.Y > air_handler.Y > outdoor.Y > LPS > HPS > DTS > M > (CC) > C",
      :enter,
      "R > wall.O > air_handler.O > outdoor.O > (RVS) > C",
      :enter,
      "  | R > DFR/no > outdoor.O",
      :enter,
      "R > wall.W2 > air_handler.W > (SEQ) > C",
      :enter,
      "  | R > DFR/no > outdoor.W2_out > air_handler.W",
      :enter,
      "R > DFT > (DFT_IN) > C",
      :enter,
      "R > (BOARD) > C",
      :enter,
      "R > DEFROST > (DFR) > C"
    )
    expect(page).to have_css("svg.ladder [data-part=SEQ]", wait: 10)
    rungs.send_keys(:escape) # the words that are offered lie over what follows
    pick("against", "the archetype")
    expect(page).to have_css("[data-testid=comparison]", text: "DTS only on the panel")
    find("[data-testid=fit-start_kit]").click
    fitted = "[data-testid=fit-start_kit][aria-pressed=true]"
    expect(page).to have_css(fitted)
    expect(page).to have_css("[data-testid=undo]:enabled")
    page.send_keys([:control, "z"])
    expect(page).to have_no_css(fitted)
    page.send_keys([:control, :shift, "z"])
    expect(page).to have_css(fitted)
    find("[data-testid=save-rig]").click
    expect(page).to have_css("[role=status]", text: "Kept as revision 1")

    click_on "Trace"
    find("[data-testid=call-heat]").click
    pick("loop", "contactor")
    passed =
      19.times.map do
        page.send_keys(:arrow_right)
        find("[data-testid=here] b").text
      end
    expect(passed.first).to match(/\A1 of /)
    expect(passed.join(" ")).to match(
      /wall Y.*outdoor Y.*LPS.*HPS.*DTS.*board T1.*contactor.*outdoor C.*TRAN, common side/
    )
    click_on "Print"
    expect(page).to have_css("[data-testid=sheet] img", count: 3)
    sizes =
      page.evaluate_script(
        "Promise.all([...document.querySelectorAll('img')].map((i) => i.decode().then(() => i.naturalWidth)))"
      )
    expect(sizes).to all(be > 900)
  end

  it "lights what is touched in every view, and keeps it in the address" do
    visit trace_path("?call=heat")
    tap_station "CC"
    expect(lit).to eq(["CC"])
    %w[ladder connections].each do |name|
      view name
      expect(page).to have_css("svg.#{name} [data-part=CC][aria-pressed=true]")
    end
    page.send_keys("v")
    expect(page).to have_css("svg.focus [data-part=CC][aria-pressed=true]")
    view "legend"
    expect(find("[data-testid=legend-CC]")["aria-pressed"]).to eq("true")
    find("[data-testid=legend-DFR]").click
    view "ladder"
    expect(page).to have_css("svg.ladder [data-part=DFR][aria-pressed=true]", minimum: 3) # its coil and its contacts
    page.refresh
    expect(page).to have_css("svg.ladder [data-part=DFR][aria-pressed=true]", minimum: 3)
  end

  it "completes words, marks the one that is wrong, and mends it" do
    visit "/rigs/new/rungs"
    rungs = find("[data-testid=rungs]")
    rungs.send_keys("wall.g")
    expect(page).to have_css("[data-testid=choices]", text: "wall.G")
    rungs.send_keys(:tab, "air_handler.G > (IRF) > C")
    expect(page).to have_css("[role=alert]", text: "Line 1, column 30. (IRF) is no word of a rung")
    find("[data-testid=mend]").click
    expect(page).to have_css("svg.ladder [data-part=IFR]")
    expect(rungs.value).to eq("R > wall.G > air_handler.G > (IFR) > C")
    find("[data-testid=fit-crankcase_heater]").click
    expect(rungs.value).to include("with crankcase_heater yes")
    expect(page).to have_css("svg.ladder [data-part=CCH]")
    expect(page).to have_no_css("[data-testid=fit-crankcase_heater] s")
  end

  it "shows the shortest way for 24 V, what lies between the probes, contacts at rest, and fills the screen" do
    visit trace_path("?call=heat&supposed=DTS:open&view=ladder&black=outdoor.Y&red=outdoor.CC.1")
    find("[data-testid=way-from-r]").click
    expect(page).to have_css("[data-testid=way]", text: "Open at DTS")
    find("[data-testid=way-between]").click
    expect(page).to have_css("[data-testid=way] li", text: "HPS")
    find("[data-testid=at-rest]").click
    expect(page).to have_current_path(/contacts=rest/)
    find("[data-testid=panel]").click
    expect(page).to have_css("svg.ladder .struck", minimum: 3)
    find("[data-testid=full]").click
    expect(page).to have_css(".pane.full")
    page.send_keys(:escape)
    expect(page).to have_no_css(".pane.full")
  end

  it "folds what the call leaves out so that all fits on the screen, and unfolds it when asked" do
    visit "/rigs"
    find("[data-testid=rig]", text: "Quince Street bakery").click_on("Trace")
    expect(page).to have_css("svg.loops")
    find("[data-testid=call-heat]").click
    expect(page).to have_css("svg.loops [data-part=CC]")
    bottom = page.evaluate_script("document.querySelector('svg.loops').getBoundingClientRect().bottom")
    small =
      page.evaluate_script(
        "[...document.querySelectorAll('svg.loops text')].filter((text) => parseFloat(getComputedStyle(text).fontSize) < 12).length"
      )
    thin =
      page.evaluate_script(
        "[...document.querySelectorAll('svg.loops .hit')].map((hit) => hit.getBoundingClientRect()).filter((box) => Math.min(box.width, box.height) < 43.9).length"
      )
    expect([bottom <= 800, small, thin]).to eq([true, 0, 0])
  end
end
