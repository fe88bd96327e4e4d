# frozen_string_literal: true

require_relative "../support/browser"

# From a complaint to a cause, by what the page asks: units whose truth is known answer each test.
RSpec.describe "Find", :browser, type: :feature do
  include_context "with a worker"

  let(:volts) do
    { "about_0" => "0.1", "some" => "9", "low" => "20", "about_24" => "24.3", "one_leg" => "120", "two_legs" => "241" }
  end
  let(:ohms) { { "open" => "OL", "joined" => "0.2", "shorted" => "0.3" } }

  def visit_of(unit) =
    db[:visits]
      .join(:units, id: :unit_id)
      .where(Sequel[:units][:name] => unit)
      .reverse(:visit_on)
      .get(Sequel[:visits][:id])

  # The signatures that the worker has kept for a visit, by which a planted truth answers.
  def library(id)
    row = Gorvant::Server::Visits.new(db, ServerBench.viewer).find(id)
    rig = Gorvant::Server::Warm.rig(row)
    found = Gorvant::AsFound.parse(row[:desks].as_found, rig)
    situation = Gorvant::Desks::Find.situation(rig, found, row[:outdoor_degrees_f])
    key = Gorvant::Server::Signatures.key(row[:digest], situation)
    # What the server in this process has laid out outlives the tables that specs empty.
    Gorvant::Server::Warm.library([key, row[:outdoor_degrees_f], situation.told]) do
      Gorvant::Diagnosis::Library.new(situation, JSON.parse(db[:computed_results].where(key: key).get(:content)))
    end
  end

  # Once all of it is worked out, and a tap is of the test that stands there.
  def see_all(part)
    expect(page).to have_css("[data-testid=#{part}]", wait: 60)
    expect(page).to have_no_css("[data-testid=first-look]", wait: 60)
    expect(page).to have_no_css(".next [disabled]")
  end

  # What a unit with this truth would answer.
  def truly(library, truth, test)
    column = library.column(library.test(test))
    row = column.scale.by_answer(column.scale.row(column.codes[library.index(truth)]))
    column.scale.answers[row.index(row.max)]
  end

  def enter(library, test, answer)
    function = library.test(test).function
    return find("[data-testid='lane-#{answer}']").click unless %w[volts_ac ohms minutes].include?(function)

    winding = library.situation.netlist[library.test(test).place][:winding_ohms] if answer == "winding"
    typed = { "volts_ac" => volts, "ohms" => ohms, "minutes" => { "within" => "1", "over" => "30" } }.dig(
      function,
      answer
    )
    find("[data-testid=find-reads]").set(typed || winding.to_s)
    find("[data-testid=find-keep]").click
  end

  # Answers what is asked until it stands; the number of tests that it took.
  def solve(unit, truth, most:)
    id = visit_of(unit)
    visit "/visits/#{id}/find"
    see_all("suspects")
    known = library(id)
    tests = 0
    until %w[proved found as_designed not_now].include?(find("[data-testid=outcome]")["data-outcome"]) || tests == most
      break unless page.has_css?("[data-testid=next-test]", wait: 1)

      test = find("[data-testid=next-test]")["data-test"]
      enter(known, test, truly(known, truth, test))
      expect(page).to have_no_css("[data-testid=next-test][data-test='#{test}']")
      tests += 1
    end
    tests
  end

  {
    "a coil that is open" => ["Kiln shed unit", "open:CC", "CC open", "disagrees"],
    "a sequencer's coil" => ["Bunk room unit", "open:SEQ", "SEQ open", "disagrees"],
    "an outdoor thermostat that is warm, as designed" => ["Loft unit", "odt_warm", "Outdoor thermostat open", "agrees"],
    "a drain that is blocked" => ["Roof unit", "drain_blocked", "Drain of the outdoor coil blocked", "so_far"],
    "a set-up that is wrong, as found" => ["Waiting room unit", "nothing", "O/B on “B, heating”", "disagrees"]
  }.each do |what, (unit, truth, title, mark)|
    it "finds #{what}" do
      tests = solve(unit, truth, most: 14)
      expect(find("[data-testid=suspects] li", match: :first)).to have_text(title)
      expect(tests).to be <= 12
      expect(find("[data-testid=outcome]")).to have_text(/Not proved|After the repair/)
      expect(page).to have_css(".sign.#{mark}", visible: :all)
      id = URI(page.current_url).path[/\h{8}-[\h-]+/]
      expect(Gorvant::Server::FindMarks.new(db, ServerBench.viewer).of([id])[id]).to eq(mark)
    end
  end

  # Until something is asked for that is seen or looked up.
  def pass_over_numbers
    5.times do
      asked = find("[data-testid=next-test]")["data-test"]
      return if asked.start_with?("seen", "looked_up")

      find("[data-testid=skip]").click
      expect(page).to have_no_css("[data-testid=next-test][data-test='#{asked}']")
    end
  end

  it "is worked by keys, stays where one stands, turns to one suspect, and takes a reading back" do
    id = visit_of("North unit")
    visit "/visits/#{id}/find"
    see_all("next-test")
    expect(page).to have_css("[data-testid=once-more]", text: "Told already: 0.1 V")
    find("[data-testid=find-reads]").send_keys("0.1", :enter)
    expect(page).to have_no_css("[data-testid=once-more]")
    pass_over_numbers
    test = find("[data-testid=next-test]")["data-test"]
    first = find("[data-testid^=lane-]", match: :first).text
    page.send_keys("1")
    expect(page).to have_no_css("[data-testid=next-test][data-test='#{test}']")
    expect(find("[data-testid=evidence]")).to have_text(first.sub(/\A\d\s*/, ""))
    find("[data-testid=stands-wall]").click
    find("[data-testid=way-here]").click
    expect(page).to have_css(".next .kicker", text: "wall").or have_no_css(".next")
    find("[data-testid=way-cheapest]").click
    find("[data-testid^=suspect-]", match: :first).click
    expect(page).to have_css(".soonest", text: "Soonest proved or cleared")
    count = all("[data-testid=evidence] li").size
    within("[data-testid=evidence]") { click_on "Take back", match: :first }
    expect(page).to have_css("[data-testid=evidence] li", count: count - 1)
    expect(db[:readings].where(visit_id: id).exclude(retracted_at: nil).count).to eq(1)
    find("[data-testid=what-if-it-is]").click
    expect(page).to have_current_path(%r{/trace\?})
  end

  it "takes readings as they are said, from any page, call and place remembered" do
    id = visit_of("Kiln shed unit")
    visit "/visits/#{id}/thermostat"
    expect(page).to have_css("[data-testid=say-it]")
    find("h1").click
    page.send_keys("s")
    lines = [
      ["outdoor see to why twenty four point three in heat", "24.3 V"],
      ["see to are twenty four point six", "24.6 V"],
      ["contactor out", "dropped out"],
      ["across h p s zero point one", "0.1 V"],
      ["across low pressure about zero point two", "about 0.2 V"],
      ["compressor silent", "silent"],
      ["fan stands", "stands"],
      ["stopped twelve minutes ago", "12 min"],
      ["air handler see to double u zero", "0.0 V"],
      ["contactor coil o l ohms by itself", "OL"],
      ["blower isn't running", "stands"],
      ["outdoors see to oh zero, low impedance", "0.0 V"]
    ]
    lines.each do |said, reads|
      find("[data-testid=said]").set(said)
      expect(page).to have_css("[data-testid=said-way]", text: reads)
      find("[data-testid=said-keep]:not([disabled])").click
      expect(page).to have_css("[data-testid=said-kept]", text: reads)
    end
    kept = db[:readings].where(visit_id: id).order(:received_at).all.last(lines.size)
    expect(kept.map { |row| Gorvant::Server::ReadingRow.observation(row).says }).to eq(lines.map(&:last))
    expect(kept.map { |row| row[:condition]["call"] }.uniq).to eq(["heat"])
    expect(kept.map { |row| row[:instrument] }.values_at(0, -1)).to eq(%w[high_impedance low_impedance])
    find("[data-testid=said]").set("compressor silent, contactor out and outdoor fan stands")
    ["silent", "dropped out", "stands"].zip(
      ["contactor out and outdoor fan stands", "outdoor fan stands", ""]
    ) do |reads, rest|
      expect(page).to have_css("[data-testid=said-way]", text: reads)
      find("[data-testid=said-keep]:not([disabled])").click
      expect(page).to have_css("[data-testid=said-kept]", text: reads)
      expect(find("[data-testid=said]").value).to eq(rest)
    end
    find("[data-testid=said]").set("good morning")
    expect(page).to have_css("[data-testid=said-nothing]")
    expect(complaints).to eq([])
  end

  it "says of a unit that runs as it should that the complaint does not show now, and goes on being asked" do
    tests = solve("Kiln shed unit", "nothing", most: 14)
    outcome = find("[data-testid=outcome]")
    expect([tests, outcome["data-outcome"]]).to match([be > 1, "not_now"])
    expect(outcome).to have_text("?").and have_text(/does not show now, 9\d%/).and have_text("clears nothing")
    expect(page).to have_css("[data-testid=next-test]")
  end

  it "draws a road map on one page, to print and take along" do
    visit "/visits/#{visit_of("Kiln shed unit")}/find"
    see_all("next-test")
    first = find("[data-testid=next-test]").text
    find("[data-testid=to-road-map]").click
    expect(page).to have_css("[data-testid=road-leaf]", minimum: 4, maximum: 25)
    expect(find(".test", match: :first)).to have_text(first)
    expect(complaints).to eq([])
    pdf = page.driver.browser.execute_cdp("Page.printToPDF", preferCSSPageSize: true)["data"].unpack1("m")
    expect(pdf.scan(%r{/Type\s*/Page[^s]}).size).to eq(1)
  end

  %w[light dark].each do |theme|
    it "has nothing for axe to complain of in #{theme}, nor sideways scroll on a phone" do
      visit "/"
      page.execute_script("localStorage.setItem('gorvant.theme', '#{theme}')")
      visit "/visits/#{visit_of("North unit")}/find"
      see_all("next-test")
      find("[data-testid^=suspect-]", match: :first).click
      expect(complaints).to eq([])
      resize(390, 844)
      expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
      expect(complaints).to eq([])
    end
  end
end
