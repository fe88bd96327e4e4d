# frozen_string_literal: true

require_relative "../support/browser"
require_relative "../support/random_rigs"
require "zlib"

# A visit in a basement: taken along, worked on with the network cut, sent when there is signal again.
RSpec.describe "No signal", :browser, type: :feature do
  include_context "with a worker"

  def network(up)
    page.driver.browser.network_conditions =
      up ? { offline: false, latency: 0, throughput: -1 } : { offline: true, latency: 0, throughput: 0 }
  end

  def cut = network(false)
  def back = network(true)
  def pocket = find("[data-testid=pocket]")
  def entry = find("[data-testid=entry]")
  def write(field, words) = find("[data-testid=#{field}]").set(words).send_keys(:tab)
  def readings = db[:readings].where(visit_id: visit_id)
  def content(desk) = db[:visit_desks].where(visit_id: visit_id, desk: desk).get(:content).to_h

  # Through the sheet, as a person does; until all is here and the engine is up.
  def take_along
    visit trace_path("?call=heat")
    pocket.click
    find("[data-testid=take-along]").click
    expect(page).to have_css("[data-testid=along] li", wait: 60)
    expect(page).to have_css("[data-testid=engine]", text: "Up,", wait: 90)
    find("[data-testid=sheet-close]").click
  end

  # To another page by the header: the engine stays up.
  def to(desk)
    find("[data-testid=page-#{desk}]").click
  end

  # What a closing still lacks on this unit.
  def close_whole
    write("not-repeated", "no light down here")
    find("[data-testid=natural-not_seen]").click
    find("[data-testid=all-expected]").click
    expect(page).to have_css("[data-testid=call-cool].open", text: "out of season", wait: 60)
    pick("outcome-cool", "not run")
    write("note-cool", "34 °F outside")
    20.times { first(".lines .el-checkbox:not(.is-checked):not(.is-disabled)", minimum: 0, wait: 2)&.click or break }
    find("[data-testid=answered-yes]").click
    write("plain", "A wire was on the wrong screw.")
    expect(page).to have_css("[data-testid=missing-count]", text: "Nothing missing", wait: 60)
    find("[data-testid=close-visit]").click
  end

  # What this browser has is nobody's in the next example.
  after do
    back
    visit "/settings"
    page.evaluate_async_script(<<~JS)
      const done = arguments[0]
      indexedDB.databases().then((all) => Promise.all(all.map(({ name }) => new Promise((gone) => {
        const asking = indexedDB.deleteDatabase(name)
        asking.onsuccess = asking.onerror = asking.onblocked = gone
      })))).then(() => { localStorage.clear(); done(true) })
    JS
  end

  it "bears a whole visit, from intake to close-out, and the server has all of it when there is signal again" do
    take_along
    before = readings.count
    cut

    to "intake"
    find("[data-testid=safety-capacitor]").click
    write("complaint", "Ices over. It hums in the cellar.")
    expect(page).to have_css("[data-testid=pocket]", text: "No signal")
    Dir.mktmpdir do |folder|
      require "vips"
      2.times do |i|
        path = File.join(folder, "panel#{i}.png")
        Vips::Image.black(300 + i, 200).pngsave(path)
        give("photo", path)
        expect(page).to have_css(".photos li img[src^='blob:']", count: i + 1, wait: 10)
      end
    end

    to "wiring"
    expect(page).to have_css("[data-testid=board]", wait: 60)
    entry.send_keys("", :enter) until find("[data-testid=now]").text.start_with?("orange")
    entry.send_keys("B", :enter)
    expect(page).to have_css("[data-testid=fewest] li", text: "from B to O", wait: 60)
    page.driver.browser.navigate.refresh # the page is loaded anew, with nothing but what lies here
    expect(page).to have_css("[data-testid=fewest] li", text: "from B to O", wait: 90)
    expect(page).to have_css("[data-testid=page-wiring]", text: "≠", wait: 90) # as soon as the engine is up again

    to "trace"
    find("[data-testid=call-heat]").click
    tap_station("outdoor.Y")
    find("[data-testid=measured]").set("24.2").send_keys(:enter)
    expect(page).to have_text(/24\.2 V (agrees|disagrees)/, wait: 60)

    to "defrost"
    find("[data-testid=tab-test]").click
    find("[data-testid=new-test]", wait: 60).click
    find("[data-testid^=mark-], [data-testid^=do-]", match: :first).click
    expect(page).to have_css("[data-testid=watch-state]", wait: 60)

    to "close_out"
    find("[data-testid=cause-written]", wait: 60).click
    write("finding", "The orange lay on B.")
    write("done", "Moved it to O.")
    find("[data-testid=close-visit]").click
    # Refused here, as the server would; the engine may be at work on Find, for long on a machine that others use too.
    expect(page).to have_css("[role=alert]", text: "say whether the complaint", wait: 60)
    close_whole
    expect(page).to have_css("[data-testid=closed]", text: "Closed, no. 1", wait: 60)
    find("[data-testid=to-report]").click
    expect(page).to have_css("[data-testid=customer-page]", text: "A wire was on the wrong screw.", wait: 60)
    to "close_out"
    expect(page).to have_css("[data-testid=pocket]", text: "No signal")
    expect([readings.count, db[:closings].where(visit_id: visit_id).count]).to eq([before, 0])

    back
    expect(page).to have_css("[data-testid=pocket]", text: "= along", wait: 90)
    expect(readings.count).to eq(before + 1)
    expect(readings.where(value: 24.2).reverse(:received_at).first).to include(
      function: "volts_ac",
      instrument: "high_impedance"
    )
    expect(db[:visits].where(id: visit_id).get(:complaint)).to eq("Ices over. It hums in the cellar.")
    expect(content("wiring")["landings"].to_a.map { |one| one["lands_on"] }).to include("B")
    expect(content("close_out")).to include("finding" => "The orange lay on B.", "done" => "Moved it to O.")
    expect(db[:closings].where(visit_id: visit_id).select_map(:number)).to eq([1])
    expect(page).to have_css("[data-testid=closed]", text: "Closed, no. 1")
    expect(content("defrost")["test"]).not_to be_nil
    expect(db[:photos].where(visit_id: visit_id).count).to eq(2)
  end

  it "asks where somebody else changed the same, sends the rest, and tells what the server does not take" do
    take_along
    hold("close_out", visit_id, { "done" => "Before" })
    visit "/visits/#{visit_id}/close-out"
    expect(page).to have_css("[data-testid=done]", wait: 30)
    cut
    write("done", "Mine")
    to "intake"
    write("complaint", "It hums.")
    expect(page).to have_css(".pocket .el-badge__content", text: "2")
    hold("close_out", visit_id, { "done" => "Theirs" })
    back
    expect(page).to have_css("[data-testid=pocket]", text: "Not sent", wait: 30)
    expect(page).to have_css("[data-testid=pocket].asks", wait: 20)
    expect(page).to have_css(".pocket .el-badge__content", text: "1", wait: 20)
    expect(db[:visits].where(id: visit_id).get(:complaint)).to eq("It hums.")
    pocket.click
    within("[data-testid=outbox]") { expect(page).to have_text("Somebody else changed the same meanwhile") }
    expect(find("[data-testid=clash]").text).to eq("done: mine “Mine”, theirs “Theirs”")
    expect(complaints).to eq([])
    find("[data-testid=outbox-mine]").click
    expect(page).to have_css("[data-testid=nothing-waits]", wait: 20)
    expect(content("close_out")["done"]).to eq("Mine")
  end

  it "says in one sentence what needs signal, keeps what is typed, and shows nobody else what one took along" do
    take_along
    other = ServerBench.person("Ida Fenn", "technician")
    browse_as(other)
    visit trace_path
    pocket.click
    expect(page).to have_css("[data-testid=pocket-sheet]", text: "No visit yet")
    cut
    find("[data-testid=sheet-close]").click
    to "wiring"
    expect(page).to have_css("[role=alert]", text: "What you typed is still here", wait: 40)
    to "intake"
    find("[data-testid=complaint]").set("Typed in a cellar")
    expect(find("[data-testid=complaint]").value).to eq("Typed in a cellar")
    browse_as(ServerBench.viewer.user_id)
    back
    visit trace_path
    pocket.click
    expect(page).to have_css("[data-testid=along] li")
  end

  # A script of the page may take so long.
  def patiently(&block) = Capybara.using_wait_time(90, &block)

  it "answers in the browser what the server answers, for rigs of every sort" do
    visit "/"
    worker = Dir[File.join(Gorvant::Server::App::WEB, "assets", "engine.worker-*.js")].first
    patiently { page.evaluate_async_script(<<~JS, File.basename(worker)) }
      const [name, done] = arguments
      const get = (file) => fetch('/engine/' + file)
      get('engine.json').then((one) => one.json()).then(async ({ ruby, pack }) => {
        window.engine = new Worker('/assets/' + name, { type: 'module' })
        window.engine.onmessage = ({ data }) => done(data.kind)
        const [one, other] = [await (await get(ruby)).arrayBuffer(), await (await get(pack)).arrayBuffer()]
        window.engine.postMessage({ kind: 'start', ruby: one, pack: other })
      })
    JS
    memory = Class.new { def recall(*) = yield }.new
    50.times do |seed|
      rig, condition = RandomRigs.case(seed)
      row = { digest: Gorvant::Formats::RigJson.digest(rig), content: Gorvant::Formats::RigJson.dump(rig) }
      body = { condition: condition.to_json_hash }
      body[:drawing] = { view: "loops", opened: [] } if (seed % 5).zero?
      there = Gorvant::Server::Answers.new(memory).trace(row, body)
      here = in_browser(row, body)
      expect(JSON.parse(here)).to eq(JSON.parse(Gorvant::Server::Answers::Text.of(there, []))), "rig #{seed}"
    end
  end

  def in_browser(row, body)
    visit = { id: uuid, desks: {}, visit_on: "2026-11-28", symptoms: [], safety: [], rig_revision_id: uuid }
    along = {
      engine: "x",
      whose: {
        by: "",
        crew: "",
        marked: false
      },
      digest: row[:digest],
      rig: row[:content],
      carried: {
      },
      closed_as: nil,
      sensor_tables: []
    }
    held = JSON.generate(visit: visit, readings: [], photos: [], along: along)
    asked = JSON.generate(method: "POST", under: "trace", body: body, units: "")
    patiently { page.evaluate_async_script(<<~JS, held, asked) }
      const [held, asked, done] = arguments
      window.engine.onmessage = ({ data }) => done(data.text)
      window.engine.postMessage({ kind: 'hold', text: held })
      window.engine.postMessage({ kind: 'ask', id: 1, text: asked })
    JS
  end

  it "can be installed, opens without the server, and brings no more than it may at first" do
    web = Gorvant::Server::App::WEB
    manifest = JSON.parse(File.read(File.join(web, "manifest.webmanifest")))
    expect(manifest).to include("name" => "Gorvant", "display" => "standalone", "start_url" => "/")
    require "vips"
    manifest["icons"].each do |icon|
      picture = Vips::Image.new_from_file(File.join(web, icon["src"]))
      expect("#{picture.width}x#{picture.height}").to eq(icon["sizes"])
    end
    expect(manifest["icons"].map { |icon| icon["purpose"] }).to include("maskable")
    kept = File.read(File.join(web, "sw.js"))
    expect(kept).not_to include("/engine/ruby")
    index = File.read(File.join(web, "index.html"))
    first = index.scan(%r{(?:src|href)="(/assets/[^"]+\.js)"}).flatten
    gzipped = first.sum { |path| Zlib.gzip(File.binread(File.join(web, path))).bytesize }
    expect(gzipped).to be_between(20_000, 250_000)

    visit "/"
    expect(page).to have_css("[data-testid=visit]")
    ready = "navigator.serviceWorker.ready.then((one) => one.active.state)"
    expect(page.evaluate_async_script("#{ready}.then(arguments[0])")).to include("activ")
    cut
    visit "/settings"
    expect(page).to have_css("header .name", text: "gorvant")
    expect(page).to have_css("[data-testid=pocket]", text: "No signal")
    back
  end

  # A browser of its own, whose folder outlives it.
  def browser_in(folder, &)
    name = :"kept_#{SecureRandom.hex(3)}"
    Capybara.register_driver(name) do |app|
      Capybara.drivers[:chromium]
        .call(app)
        .tap { |one| one.options[:options].add_argument("--user-data-dir=#{folder}") }
    end
    Capybara.using_session(name) { Capybara.using_driver(name, &) }
  end

  # As when its battery falls out.
  def kill(driver)
    folder = driver.options[:options].args.grep(/user-data-dir/).first
    `pgrep -f -- "#{folder}"`.split.each do |pid|
      Process.kill("KILL", pid.to_i)
    rescue Errno::ESRCH
      next # it went with the one before
    end
    driver.quit
  rescue Selenium::WebDriver::Error::WebDriverError
    nil # the driver finds nobody to say good-bye to
  end

  it "keeps what was done through the death of the browser, and sends it once" do
    before = readings.count
    Dir.mktmpdir do |folder|
      browser_in(folder) do
        browse_as(ServerBench.viewer.user_id)
        take_along
        cut
        tap_station("outdoor.Y")
        3.times do |i|
          find("[data-testid=measured]").set("24.#{i}").send_keys(:enter)
          expect(page).to have_css(".pocket .el-badge__content", text: (i + 1).to_s, wait: 20)
          expect(find("[data-testid=measured]")).to match_css(":placeholder-shown", wait: 20) # the next may be typed
        end
        kill(page.driver)
      end
      browser_in(folder) do
        browse_as(ServerBench.viewer.user_id)
        visit "/"
        expect(page).to have_css("[data-testid=visit]", wait: 20)
        40.times { readings.count == before + 3 ? break : sleep(0.5) }
        page.driver.quit
      end
    end
    newest = readings.reverse(:received_at).limit(3).select_map(%i[value taken_at])
    expect(newest.map(&:first)).to eq([24.2, 24.1, 24.0])
    expect(newest.map(&:last)).to eq(newest.map(&:last).sort.reverse)
    expect(readings.count).to eq(before + 3)
  end
end
