# frozen_string_literal: true

require_relative "../support/browser"

# Within everybody's reach: every page there is, in both themes and at every width, and a journey by what a screen
# reader says and nothing else.
RSpec.describe "Reach", :browser, type: :feature do
  include_context "with a worker"

  router = File.read(File.join(Gorvant::Server::ROOT, "web/src/router.ts"), encoding: "UTF-8")
  paths = router.scan(/path: '([^']+)'/).flatten
  # Not of who has come in, or with journeys of their own.
  elsewhere = %w[/open/:key /welcome/:token /practice/tries/:id]
  tabs = {
    "/visits/:id/trace" => %w[?view=ladder ?view=connections ?view=focus ?view=legend ?call=heat&black=outdoor.C],
    "/visits/:id/thermostat" => %w[?tab=staging ?tab=bench],
    "/visits/:id/defrost" => %w[sensors schools test recorded planner list].map { |tab| "?tab=#{tab}" }
  }
  parts = %w[device account people bin archives devices crews log]
  every =
    (paths - elsewhere).flat_map do |path|
      next parts.map { |part| "/settings/#{part}" } if path.start_with?("/settings")

      [path, *tabs.fetch(path, []).map { |query| path + query }]
    end

  def address(path)
    kind = path[%r{\A/(visits|rigs|units|sites)/:id}, 1]
    id = kind == "visits" ? visit_id : kind && db[kind.to_sym].get(:id)
    path.sub(":id", id.to_s).sub("/:number?", "").sub("/:anything(.*)*", "/nowhere")
  end

  # What it asked for is there.
  def arrive(path)
    visit address(path)
    expect(page).to have_css("main :is(h1, h2)", wait: 40), path
    expect(page).to have_no_css(".el-skeleton, [role=progressbar]", wait: 40)
    page.evaluate_async_script(<<~JS)
      const [done] = arguments
      let timer
      const rest = () => { clearTimeout(timer); timer = setTimeout(done, 300) }
      new PerformanceObserver(rest).observe({ type: 'resource' })
      rest()
    JS
  end

  widths = [[1280, 800], [390, 844], [820, 1100]]
  every
    .each_slice(9)
    .with_index do |slice, number|
      it "has nothing for axe to complain of, no sideways scroll, no small target, and comes without moving (#{number + 1})" do
        visit "/settings"
        wrong =
          slice.each_with_index.flat_map do |path, i|
            found = []
            # Each page in both themes: on a phone in one, wider in the other; which, goes round.
            [widths[1], widths[i.odd? ? 0 : 2]].zip(
              i.odd? ? %w[dark light] : %w[light dark]
            ) do |(width, height), theme|
              page.execute_script("localStorage.setItem('gorvant.theme', arguments[0])", theme)
              resize(width, height)
              arrive(path)
              moved = shifted
              found << [path, width, "moved", moved.round(3)] if moved > 0.02
              found.concat(complaints.map { |one| [path, width, theme, one] })
              found << [path, width, "sideways", sideways] if sideways.positive?
              next unless width == 390

              found << [path, "small", small_targets.first(3)] if small_targets.any?
              found << [path, "type", small_type.first(3)] if small_type.any?
              resize(320, 640) # as 1280 px at 400 %
              found << [path, 320, "sideways", sideways] if sideways.positive?
            end
            found
          end
        expect(wrong).to eq([])
      end
    end

  # What is said of the page, from top to bottom: [[role, name, the element's number]].
  def spoken
    browser = page.driver.browser
    browser.execute_cdp("Accessibility.enable")
    nodes = browser.execute_cdp("Accessibility.getFullAXTree")["nodes"].reject { |node| node["ignored"] }
    nodes.map { |node| [node.dig("role", "value"), node.dig("name", "value").to_s, node["backendDOMNodeId"]] }
  end

  def names(role) = spoken.select { |said, _name, _node| said == role }.map { |_role, name, _node| name }

  # The one thing of this role that is said so, however it looks and wherever it stands.
  def hear(role, name, wait: 15)
    page
      .document
      .synchronize(wait, errors: [BrowserBench::NotHeard]) do
        all = spoken.select { |said, _heard, _node| said == role }
        all.find { |_said, heard, _node| name === heard } || # rubocop:disable Style/CaseEquality
          raise(
            BrowserBench::NotHeard.new("no #{role} is called #{name.inspect}: #{all.map { |one| one[1] }.first(60)}")
          )
      end
  end

  # As a reader's own "activate", and its own way to type.
  def act(role, name, text = nil)
    browser = page.driver.browser
    object = browser.execute_cdp("DOM.resolveNode", backendNodeId: hear(role, name).last).dig("object", "objectId")
    does = text ? "function () { this.focus(); this.select?.() }" : "function () { this.focus?.(); this.click?.() }"
    does = "function () { this.dispatchEvent(new MouseEvent('click', { bubbles: true })) }" if text == :tap
    browser.execute_cdp("Runtime.callFunctionOn", objectId: object, functionDeclaration: does)
    browser.execute_cdp("Input.insertText", text: text) if text.is_a?(String)
  end

  it "leads from the visits to a reading, the tape and the next test by names alone" do
    visit "/"
    act("link", /Quince Street bakery.*Shop unit/m)
    act("link", /\ATrace /)
    act("button", "Heat")
    hear("button", /\Acontactor, /)

    # A loop is a list from R to C, headed by what stops it.
    loops = spoken.drop_while { |role, name, _node| [role, name] != ["region", "The loops, from R to C"] }
    expect(loops.map(&:first)).to include("heading", "list", "listitem")
    expect(hear("heading", /\Acontactor, on\. /)[1]).to include("its loop is whole by way of FU, Y")
    expect(names("button").grep(/conductor/)).to include("yellow conductor, cable A").and all(match(/, cable [AB]\z/))

    # Two points by what they are called, what is read there, and what that means.
    act("button", /\Aoutdoor C, /, :tap)
    act("button", /\Aoutdoor Y1?, /, :tap)
    act("textbox", /\Areads/, "24.2")
    act("button", /\AKeep/)
    hear("StaticText", /24\.2 V (agrees|does not agree|is )/)

    # The tape is events in their order.
    act("button", "Tape")
    hear("list", "Events")
    events = names("button").grep(/\A\d+:\d\d/)
    expect(events.size).to be > 3

    act("link", /\AFind /)
    hear("heading", /V AC|Look|Ask|Ω|Wait|Force/, wait: 60) # worked out first
    expect(names("radiogroup").size + names("group").size).to be > 1
    expect(spoken.map { |_role, name, _node| name }.grep(/\b[a-z]+_[a-z]+\b/)).to eq([])
  end

  # The name of what has the focus, and what the page says of itself, as its reader is told it.
  def told = spoken.filter_map { |role, name, _node| name if role == "StaticText" }

  it "leads from the complaint over a wire that is moved to what has to be put back, by names alone" do
    visit "/visits/#{visit_id}/intake"
    act("checkbox", "Capacitor discharged")
    act("button", "Contactor silent")
    hear("link", "Contactor silent")
    act("textbox", "Set point, °F", "900")
    act("textbox", "Room, °F", "66")
    hear("alert", "")
    expect(told).to include(/Set point: a number from 35 to 99 °F/)
    hear("link", /\AIntake right so far/)

    act("link", /\AWiring /)
    ends = names("button").grep(%r{ of cable [AB], })
    expect(ends).to eq(ends.uniq).and all(match(/\A(wall|air handler|outdoor): /i))
    act("button", /\Awall: orange of cable A, on O/i, :tap)
    act("button", /\Awall B\z/i, :tap)
    hear("button", /\Awall: orange of cable A, on B, drawn on O\z/i)
    hear("link", "Wiring disagrees")

    act("link", /\AClose out /)
    left = hear("heading", /\APut back \d+ missing/)[1][/\d+/].to_i
    act("checkbox", /\AThermostat back on/)
    hear("heading", "Put back #{left - 1} missing")
    act("button", "Close the visit")
    hear("heading", /\AWhat was found \d missing/)
    expect(spoken.map { |_role, name, _node| name }.grep(/\b[a-z]+_[a-z]+\b/)).to eq([])
  end

  it "knows every page of the router" do
    expect(every.map { |path| address(path) }.grep(/:/)).to eq([])
    expect(every.size).to be > 45
  end
end
