# frozen_string_literal: true

require_relative "../support/browser"

# From the iced unit's verdict to the next visit: found, repaired, repeated, run, put back, closed, read, begun again.
RSpec.describe "Close out", :browser, type: :feature do
  include_context "with a worker"

  after { db[:audit_trail].delete }

  let(:page_of) { "/visits/#{visit_id}/close-out" }

  def write(field, words) = find("[data-testid=#{field}]").set(words).send_keys(:tab)
  def kept = expect(page).to have_css("[role=status]", text: "= kept")
  def tick_all
    all("ul.lines input[type=checkbox]:not(:checked):not(:disabled)", visible: :all).size.times do
      first(".lines .el-checkbox:not(.is-checked):not(.is-disabled)").click
      kept
    end
  end

  def no_sideways = expect(page.evaluate_script("document.documentElement.scrollWidth - innerWidth")).to be <= 0

  def said(**otherwise)
    {
      "cause" => "written",
      "finding" => "Welded fan relay.",
      "done" => "New board.",
      "plain" => "The fan ran on.",
      "answered" => "partly",
      "not_repeated" => "dark",
      "natural_defrost" => "not_seen",
      "calls" => Gorvant::Outputs.calls(rig).to_h { |id| [id, { "how" => "low_voltage", "as" => "expected" }] },
      "put_back" => %w[set_point covers safeties defrost.thermistor].to_h { |id| [id, "back"] }
    }.merge(otherwise.transform_keys(&:to_s))
  end

  def rig = Gorvant::Server::Warm.rig(Gorvant::Server::Visits.new(db, ServerBench.viewer).find(visit_id))

  it "leads from the verdict to the next visit, with nothing to be remembered" do
    hold("thermostat", visit_id, { "settings" => { "stage_delay_minutes" => 20 } })
    visit page_of
    expect(page).to have_css("[data-testid=find-says]", text: /%|Defrost/, wait: 60)
    missing = find("[data-testid=missing-count]").text[/\d+/].to_i
    find("[data-testid=close-visit]").click
    expect(page).to have_css("[role=alert]", text: "say what was found")
    expect(page).to have_css("[data-testid=missing-found]")
    find("[data-testid=cause-find]").click
    write("done", "Defrost board replaced.")
    kept
    find("[data-testid=repaired]").click
    expect(page).to have_text("Find leaves it out")
    click_on "Repeat it"
    expect(page).to have_css("[data-testid=measured]", wait: 20)
    find("[data-testid=measured]").set("24.2").send_keys(:enter)
    expect(page).to have_text("24.2")
    visit page_of
    expect(page).to have_css("[data-testid=repeats] li.agrees", text: "24.2 V")
    find("[data-testid=natural-not_seen]").click
    find("[data-testid=all-expected]").click
    expect(page).to have_css("[data-testid=call-heat].fine")
    expect(page).to have_css("[data-testid=call-cool].open", text: "out of season")
    pick("outcome-cool", "not run")
    write("note-cool", "34 °F outside")
    tick_all
    find("[data-testid=answered-yes]").click
    write("plain", "The fan ran on in defrost, W2 was dead. We put in a new board.")
    expect(page).to have_css("[data-testid=codes]", text: "W2")
    write("plain", "The fan ran on in defrost. We put in a new board.")
    expect(page).to have_no_css("[data-testid=codes]")
    expect(page).to have_css("[data-testid=missing-count]", text: "Nothing missing")
    expect(missing).to be > 10
    find("[data-testid=close-visit]").click
    expect(page).to have_css("[data-testid=closed]", text: "Closed, no. 1")
    expect(page).to have_css("[data-testid=left-open]", text: "Cool not run: 34 °F outside")
    find("[data-testid=to-report]").click
    expect(page).to have_css("[data-testid=customer-page]", text: "We put in a new board")
    expect(page).to have_css("[data-testid=report-finding]", text: "Does not prove")
    find("summary", text: "What goes in").click
    find("[data-testid=section-readings]").click
    expect(page).to have_no_css("[data-testid=report-readings]")
    find("[data-testid=pdf]").click
    expect(page).to have_no_css("[role=alert]")
    visit page_of
    find("[data-testid=to-unit]").click
    expect(page).to have_css("[data-testid=unit-visit]", text: "closed, no. 1")
    find("[data-testid=begin-here]").click
    expect(page).to have_field("Unit", with: "North unit")
    expect(page).to have_css("[data-testid=as-earlier]", text: "as told then")
    find("[data-testid=begin]").click
    expect(page).to have_css("[data-testid=page-thermostat]", wait: 20)
    find("[data-testid=page-thermostat]").click
    expect(page).to have_css("[data-testid=told]", text: "Nov 23")
    expect(page).to have_css("[data-setting=stage_delay_minutes]", text: "as told last time")
  end

  it "closes by no reason what may never be left, and then only with the unit off and tagged" do
    hold(
      "close_out",
      visit_id,
      said("put_back" => %w[set_point defrost.thermistor safeties].to_h { |id| [id, "back"] })
    )
    visit page_of
    expect(page).to have_css("[data-testid=line-covers]", text: "No reason closes this one")
    expect(page).to have_no_css("[data-testid=left-covers]")
    find("[data-testid=close-visit]").click
    expect(page).to have_css("[role=alert]", text: "Never closed by a reason")
    write("left-off", "cover broken, part ordered")
    expect(page).to have_css("[data-testid=line-covers]", text: "the unit is left off")
    find("[data-testid=close-visit]").click
    expect(page).to have_css("[data-testid=closed].disagrees")
    find("[data-testid=to-report]").click
    expect(page).to have_css("[data-testid=customer-page] .large", text: "LEFT OFF, LOCKED OUT AND TAGGED")
    visit page_of
    find("[data-testid=open-again]").click
    find("[data-testid=open-why]").set("cover is here")
    find("[data-testid=open-sure]").click
    expect(page).to have_css("[data-testid=closing-1]", text: "cover is here")
    expect(page).to have_css("[data-testid=missing-count]")
  end

  it "shows the second of two who close it what the first closed" do
    hold("close_out", visit_id, said)
    visit page_of
    expect(page).to have_css("[data-testid=missing-count]", text: "Nothing missing")
    viewer = Gorvant::Server::Viewer.local_owner(db).with(client: Gorvant::Server::Events::QUIET)
    row = Gorvant::Server::Visits.new(db, viewer).find(visit_id)
    Gorvant::Server::Closer.new(db, viewer).close(row, uuid, {}, after: 0)
    find("[data-testid=close-visit]").click
    expect(page).to have_css("[data-testid=closed-by-other]", text: "Local owner closed this visit meanwhile, as no. 1")
    expect(page).to have_css("[data-testid=closed]", text: "no. 1")
  end

  it "finds a visit again by a mistyped word, narrows it, and keeps what is asked in the address" do
    visit "/"
    expect(page).to have_css("[data-testid=visit]", minimum: 8)
    page.send_keys("/")
    page.active_element.send_keys("klin")
    expect(page).to have_css("[data-testid=read-as]", text: "kiln")
    expect(page).to have_css("[data-testid=visit]", count: 2)
    find("[data-testid=narrow]").click
    find("[data-testid=by-symptom] input").set("iced")
    find(".el-select-dropdown__item:not([hidden])", exact_text: "Outdoor unit iced").click
    expect(page).to have_css("[data-testid=visit]", count: 1, text: "Mossgate kiln hall")
    page.refresh
    expect(page).to have_css("[data-testid=visit]", count: 1, text: "Mossgate kiln hall")
    find("[data-testid=search]").set("zzzzz")
    expect(page).to have_css("[data-testid=unknown]", text: "zzzzz")
  end

  it "keeps notes for the next one, takes an archive in, and asks where two wrote at once" do
    unit = db[:visits].where(id: visit_id).get(:unit_id)
    visit "/units/#{unit}"
    write("notes", "Ladder in the boat shed")
    expect(page).to have_css("[role=status]", text: "= kept")
    db[:units].where(id: unit).update(notes: "Dog in the yard", version: 3)
    write("notes", "Ladder in the boat shed, rung loose")
    expect(page).to have_css("[role=alert]", text: "Dog in the yard")
    page.refresh
    write("notes", "Both: dog, ladder")
    expect(page).to have_css("[role=status]", text: "= kept")
    find_field("Installed in").click.set("2014").send_keys(:enter)
    expect(page).to have_field("Installed in", with: "2014")
    expect(find("[data-testid=notes]").value).to eq("Both: dog, ladder")
    page.refresh
    expect(page).to have_field("Installed in", with: "2014")
    expect(db[:units].where(id: unit).get(%i[notes installed_year])).to eq(["Both: dog, ladder", 2014])
    archive = Gorvant::Server::ArchiveZip.dump(Gorvant::Server::Archives.new(db, ServerBench.viewer).files([visit_id]))
    id = visit_id
    db[:visits].where(id: id).delete
    Dir.mktmpdir do |folder|
      path = File.join(folder, "north.zip")
      File.binwrite(path, archive)
      visit "/settings/archive"
      give("archive-file", path)
      expect(page).to have_css("[data-testid=taken-in]", text: "taken in", wait: 20)
      File.binwrite(path, archive.b[0, archive.bytesize / 2])
      give("archive-file", path)
      expect(page).to have_css("[role=alert]", text: /damaged|cannot be read/, wait: 20)
    end
    expect(db[:visits].where(id: id).count).to eq(1)
  end

  def download(link)
    encoded = page.evaluate_async_script(<<~JS, find(link)[:href])
      const [address, done] = arguments
      fetch(address).then((answer) => answer.blob()).then((blob) => {
        const reader = new FileReader()
        reader.onload = () => done(reader.result.split(',')[1])
        reader.readAsDataURL(blob)
      })
    JS
    encoded.unpack1("m")
  end

  it "writes all that the crew keeps to one file, from which it comes back" do
    Thread.new { Gorvant::Server::Worker.new(db).run_one until @over }
    visit "/settings/archive"
    find("[data-testid=export]").click
    expect(page).to have_css("[data-testid=export-made]", text: /\d+ files/, wait: 60)
    whole = download("[data-testid=export-whole]")
    ids = db[:visits].select_map(:id)
    db[:visits].delete
    Dir.mktmpdir do |folder|
      path = File.join(folder, "crew.zip")
      File.binwrite(path, whole)
      give("archive-file", path)
      files = Zip::File.open(path, &:size)
      expect(page).to have_css("[data-testid=taken-in] > li", count: files, wait: 60)
    end
    expect(page).to have_no_css("[role=alert]")
    expect(db[:visits].select_map(:id)).to match_array(ids)
    page.refresh
    expect(page).to have_css("[data-testid=export-made]", text: /\d+ files/)
  ensure
    @over = true
  end

  it "prints light on paper whatever the screen is, and without the keys" do
    visit "/visits/#{visit_id}/report"
    expect(page).to have_css("[data-testid=customer-page]")
    page.execute_script(
      "localStorage.setItem('gorvant.theme', 'dark'); document.documentElement.dataset.theme = 'dark'"
    )
    page.execute_script("dispatchEvent(new Event('beforeprint'))")
    expect(page).to have_css("html[data-theme=light]")
    page.driver.browser.execute_cdp("Emulation.setEmulatedMedia", media: "print")
    expect(page).to have_no_css(".bar [data-testid=pdf]")
    page.driver.browser.execute_cdp("Emulation.setEmulatedMedia", media: "")
    page.execute_script("dispatchEvent(new Event('afterprint'))")
    expect(page).to have_css("html[data-theme=dark]")
    page.execute_script("localStorage.removeItem('gorvant.theme')")
  end

  it "holds a closed visit up as known good, and the next one shows what is held against it" do
    good, later = db[:visits].where(visit_on: %w[2026-03-03 2026-11-12]).order(:visit_on).select_map(:id)
    visit "/visits/#{later}/intake"
    expect(page).to have_css("[data-testid=intake-standing]")
    expect(page).to have_no_css("[data-testid=since-good]")
    visit "/visits/#{good}/trace"
    expect(page).to have_css("[data-testid=read-only]", text: "closed, no. 1")
    visit "/visits/#{good}/close-out"
    find("[data-testid=known-good]").click
    expect(page).to have_css("[data-testid=known-good][disabled]", text: "Known good")
    visit "/visits/#{later}/intake"
    expect(page).to have_css("[data-testid=since-good] li.unlike", text: "R to C at that place was not read")
  end

  it "takes readings from a table and shows why it takes none" do
    visit trace_path
    expect(page).to have_css("[data-testid=reading]", count: 8, wait: 20)
    Dir.mktmpdir do |folder|
      path = File.join(folder, "readings.csv")
      head = "taken_at,call,function,from,to,value,instrument"
      File.write(path, "#{head}\n2026-11-23T11:00:00Z,heat,volts_ac,outdoor.C,outdoor.O,0.2,high_impedance\n")
      give("readings-file", path)
      expect(page).to have_css("[role=status]", text: "1 of 1 rows kept")
      expect(page).to have_css("[data-testid=reading]", count: 9)
      File.write(path, "#{head}\n2026-11-23T11:00:00Z,heat,volts_ac,outdoor.C,outdoor.Q,0.2,high_impedance\n")
      give("readings-file", path)
      expect(page).to have_text("line 2: to_node is no point of this rig")
    end
  end

  # [address, what shows that it is there]
  {
    "close-out" => ["[data-testid=missing-count]", -> { page_of }],
    "report" => ["[data-testid=customer-page]", -> { "/visits/#{visit_id}/report" }],
    "unit" => ["[data-testid=unit-visit]", -> { "/units/#{db[:visits].where(id: visit_id).get(:unit_id)}" }],
    "site" => ["[data-testid=site-unit]", -> { "/sites/#{db[:sites].where(name: "Boathouse library").get(:id)}" }],
    "recurring" => ["[data-testid=recurring]", -> { "/recurring" }],
    "search" => ["[data-testid=visit]", -> { "/?q=klin&closed=no" }]
  }.each do |what, (there, address)|
    it "#{what} holds on a phone and is sound for who cannot see it, light and dark" do
      resize(390, 844)
      visit instance_exec(&address)
      expect(page).to have_css(there)
      no_sideways
      %w[light dark].each do |theme|
        page.execute_script("document.documentElement.dataset.theme = arguments[0]", theme)
        expect([theme, complaints]).to eq([theme, []])
      end
    end
  end
end
