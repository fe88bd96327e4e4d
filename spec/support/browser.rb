# frozen_string_literal: true

require_relative "server"
require "capybara/rspec"
require "selenium-webdriver"

# The tests' browser. more: arguments of its own.
chromium =
  lambda do |app, *more|
    options =
      Selenium::WebDriver::Chrome::Options.new(
        binary: ENV.fetch("CHROMIUM", "/usr/bin/chromium"),
        args:
          %w[
            --headless=new
            --no-sandbox
            --disable-dev-shm-usage
            --disable-gpu
            --disable-background-networking
            --disable-component-update
            --disable-sync
            --no-first-run
            --window-size=1280,943
          ] + more
      )
    options.logging_prefs = { browser: "ALL" }
    service = Selenium::WebDriver::Service.chrome(path: ENV.fetch("CHROMEDRIVER", "/usr/bin/chromedriver"))
    Capybara::Selenium::Driver.new(app, browser: :chrome, options: options, service: service)
  end
Capybara.register_driver(:chromium) { |app| chromium.call(app) }
# Whatever name a page has, it is this machine's, by a certificate that nobody has signed.
Capybara.register_driver(:chromium_by_name) do |app|
  chromium.call(app, "--host-resolver-rules=MAP *.test 127.0.0.1", "--ignore-certificate-errors")
end
Capybara.app = ServerBench.app
Capybara.server = :puma, { Silent: true, Threads: "0:4", config_files: ["-"] }
Capybara.server_host = "127.0.0.1"
Capybara.default_driver = Capybara.javascript_driver = :chromium
Capybara.disable_animation = true
Capybara.test_id = "data-testid"
Capybara.default_max_wait_time = 8

require_relative "two_processes"

# What browser specs share.
module BrowserBench
  AXE = File.read(File.join(Gorvant::Server::ROOT, "node_modules/axe-core/axe.min.js"))

  # What a screen reader was asked for and does not say.
  class NotHeard < StandardError
  end

  # Buttons, links and fields of less than 44 px in height, by their words; those in a line of text are let be.
  SMALL = <<~JS
    const whole = (one) => one.closest('label, .el-input__wrapper, .el-select__wrapper, .el-textarea, .el-upload') ?? one
    return [...document.querySelectorAll('a, button, input, select, textarea, [role=tab], [role=button]')]
      .filter((one) => !one.closest('svg') && !['inline', 'contents'].includes(getComputedStyle(one).display))
      .map((one) => [one, whole(one).getBoundingClientRect()])
      .filter(([one, box]) => box.width > 1 && box.height > 1 && box.height < 43.5 && one.checkVisibility())
      .map(([one, box]) => `${(one.textContent || one.ariaLabel || one.className).trim()} ${Math.round(box.height)}`)
  JS

  def small_targets = page.evaluate_script("(() => { #{SMALL} })()")

  # [class of the drawing, px] of type in drawings that is smaller on the screen than can be read.
  TYPE = <<~JS
    return [...document.querySelectorAll('svg text')].flatMap((text) => {
      const to = text.getScreenCTM()
      const px = to ? Math.hypot(to.a, to.b) * parseFloat(getComputedStyle(text).fontSize) : 99
      return px < 11.9 ? [[text.ownerSVGElement.getAttribute('class'), Math.round(px * 10) / 10]] : []
    })
  JS
  def small_type = page.evaluate_script("(() => { #{TYPE} })()")

  # By how much the page is wider than what shows it.
  def sideways = page.evaluate_script("document.documentElement.scrollWidth - window.innerWidth")

  def trace_path(query = "") = "/visits/#{visit_id}/trace#{query}"
  def tap_station(id) = find(%([data-station="#{id}"])).click
  def resize(width, height) =
    page.driver.browser.execute_cdp(
      "Emulation.setDeviceMetricsOverride",
      width: width,
      height: height,
      deviceScaleFactor: 1,
      mobile: width < 500
    )

  # Whose browser it is from here on; nobody's for nil.
  def browse_as(user_id)
    return page.driver.browser.execute_cdp("Network.clearBrowserCookies") unless user_id

    name, value = ServerBench.cookie(user_id).split("=", 2)
    home = "http://#{Capybara.current_session.server.host}:#{Capybara.current_session.server.port}/"
    page.driver.browser.execute_cdp("Network.setCookie", name: name, value: value, url: home, httpOnly: true)
  end

  # Chooses from a list that opens, by mouse. field: its data-testid, or a selector.
  def pick(field, title)
    field = "[data-testid=#{field}]" unless field.start_with?("[")
    # A list that still moves into its place lets a click fall on its neighbor: then once more.
    2.times do
      find("#{field} .el-select__wrapper").click
      at_rest(find(".el-select-dropdown__item:not([hidden])", exact_text: title)).click
      break if page.has_css?(field, text: title, wait: 3)
    end
    expect(page).to have_css(field, text: title)
  end

  # Once it has not moved for some frames.
  def at_rest(element)
    page.evaluate_async_script(<<~JS, element)
      const [one, done] = arguments
      let [before, still] = ['', 0]
      const look = () => {
        const box = JSON.stringify(one.getBoundingClientRect())
        still = box === before ? still + 1 : 0
        before = box
        still > 3 ? done() : requestAnimationFrame(look)
      }
      look()
    JS
    element
  end

  # How much of what was in sight moved while the page came: its layout shifts together.
  def shifted
    page.evaluate_async_script(<<~JS)
      const [done] = arguments
      const all = []
      const keep = (seen) => all.push(...seen.getEntries().filter((one) => !one.hadRecentInput))
      new PerformanceObserver(keep).observe({ type: 'layout-shift', buffered: true })
      setTimeout(() => done(all.reduce((sum, one) => sum + one.value, 0)), 60)
    JS
  end

  # What a desk holds of a visit, as if somebody else had kept it; unheard, as if the page's stream were away just then.
  def hold(desk, visit, content, heard: false)
    viewer = Gorvant::Server::Viewer.local_owner(db)
    viewer = viewer.with(client: Gorvant::Server::Events::QUIET) unless heard
    desks = Gorvant::Server::VisitDesks.new(db, viewer)
    desks.keep(visit, desk, db[:visit_desks].where(visit_id: visit, desk: desk).get(:version) || 0, content)
  end

  # Empties a field as a person does; the driver's own way tells the page nothing.
  def blank(field) = field.send_keys([:control, "a"], :delete)

  # Gives a file to a field that takes one.
  def give(testid, path)
    input = find("[data-testid=#{testid}] input[type=file]", visible: :all)
    page.execute_script("arguments[0].value = ''", input) # as a click on it does
    input.set(path)
  end

  # Axe's complaints about the page as it stands, in short.
  def complaints
    page.driver.browser.manage.timeouts.script_timeout = 120 # a busy machine takes its time over a large drawing
    page.execute_script(AXE)
    found =
      page.evaluate_async_script(
        "axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then(arguments[0])"
      )
    found["violations"].map do |violation|
      "#{violation["id"]}: #{violation["nodes"].map { |node| node["html"][0, 90] }.first(3).join(" | ")}"
    end
  end
end

RSpec.configure do |config|
  config.include(BrowserBench, :browser)
  config.include(ServerBench, :browser)
  config.include(Capybara::DSL, :browser)
  config.before(:each, :browser) do
    ServerBench.fresh
    browse_as(ServerBench.viewer.user_id)
  end
  config.after(:each, :browser) do
    # Nothing of the page itself is what the Content-Security-Policy keeps out.
    blocked = page.driver.browser.logs.get(:browser).map(&:message).grep(/Content.Security.Policy/)
    expect(blocked.uniq.first(3)).to eq([])
    page.driver.browser.execute_cdp("Emulation.clearDeviceMetricsOverride")
    Capybara.reset_sessions!
  end
end

# Tasks are worked meanwhile, as bin/start has it.
RSpec.shared_context "with a worker" do
  around do |example|
    worker = Thread.new { loop { Gorvant::Server::Worker.new(db).run_one || sleep(0.1) } }
    example.run
  ensure
    worker.kill
  end
end
