# frozen_string_literal: true

require_relative "../support/browser"

RSpec.describe "The defrost desk", :browser, type: :feature do
  let(:desk) { "/visits/#{visit_id}/defrost" }

  def lamp(id) = find("[data-testid=lamp-#{id}]")
  def set_seconds(step, value) = find("[data-testid=step-#{step}] .at input").set(value.to_s).send_keys(:tab)

  it "leads from an iced unit to the selector on 90, the fan that still draws, and no jumper left" do
    hold("defrost", visit_id, {})
    visit desk
    find("[data-testid=coil]").set("24").send_keys(:tab)
    find("[data-testid=counted]").set("20").send_keys(:tab)
    expect(page).to have_css("[data-testid=next]", text: "Next defrost in 40 min")
    expect(lamp("count").text).to include("Count 20 of 60 min", "waits for 40 more minutes")
    find("[data-testid=coil]").set("60").send_keys(:tab)
    expect(page).to have_css("[data-testid=next]", text: "No defrost within 6 hours")
    expect(lamp("cold").text).to include("nobody can tell: between 30 and 80")

    find("[data-testid=tab-sensors]").click
    [%w[24 closed], %w[86 open]].each do |degrees, state|
      find("[data-testid=switch-degrees]").set(degrees)
      find("[data-testid=switch-state-#{state}]").click
      find("[data-testid=switch-add]").click
    end
    expect(page).to have_css(".verdict.right", text: "Seen closed cold and open warm")
    find("[data-testid=ohms-degrees]").set("34")
    find("[data-testid=ohms]").set("26600")
    find("[data-testid=ohms-add]").click
    expect(page).to have_css(".verdict.wrong", text: "Reads 6.1 °F high")

    find("[data-testid=tab-test]").click
    expect(page).to have_css(".warning", text: "Bridge off at once")
    find("[data-testid=test-counted]").set("0").send_keys(:tab)
    expect(find("[data-testid=expected]").text).to include("14.1 s")
    find("[data-testid=do-unplug]").click
    find("[data-testid=mark-jumper_on]").click
    find("[data-testid=mark-bridge_on]").click
    expect(page).to have_css("[data-testid=step-bridge] .at input")
    running = find("[data-testid=clock]").text
    visit "#{desk}?tab=test"
    expect(page).to have_css("[data-testid=step-bridge] .at input")
    expect(find("[data-testid=clock]").text).not_to eq("0:00.0")
    expect(running).to match(/0:0\d/)
    set_seconds("bridge", 20)
    find("[data-testid=mark-valve_heard]").click
    set_seconds("watch_valve", 41.1)
    find("[data-testid=mark-bridge_off]").click
    set_seconds("unbridge", 42)
    find("[data-testid=no-fan]").click
    find("[data-testid=reading-fan_amps]").set("1.1").send_keys(:tab)
    expect(page).to have_css(".verdict:first-child", text: "The fan still draws in defrost")
    expect(page).to have_css(".verdict", text: "The selector is on 90 min, not on 60")
    find("[data-testid=note-interval]").click
    expect(page).to have_css(".verdict.right", text: "The selector is on 90 min")
    expect(find("[data-testid=expected]").text).to include("21.1 s")
    expect(find("[data-testid=tally]").text).to include("the jumper on the coil switch pins is still on")
    expect(find("[data-testid=close-test]")).to be_disabled
    find("[data-testid=mark-jumper_off]").click
    expect(find("[data-testid=close-test]")).to be_disabled
    find("[data-testid=do-replug]").click
    expect(page).to have_css("[data-testid=tape-beside]", text: "valve heard")
    find("[data-testid=close-test]:enabled").click
    expect(page).to have_text("Closed, every jumper accounted for")
    visit "#{desk}?tab=test"
    expect(page).to have_css(".verdict", text: "look at this first")
    expect(find("[data-testid=page-defrost]").text).to include("≠")
  end

  it "says what is then to be seen, and takes what is not yet so for waiting and no fault" do
    visit desk
    expect(page).to have_css("[data-testid=lamp-count].false", text: "waits for")
    expect(lamp("count").find(".bulb").text).to eq("…")
    course = find("[data-testid=course]").all("li").map { |line| line.text.tr("\n", " ") }
    expect(course).to include("0:00 Outdoor fan off", "0:25 Heat strips on").and(
      include(a_string_matching(/\d:\d\d Board: defrost over, the coil is warm: ended by temperature/))
    )
    find("[data-testid=coil]").set("cold").send_keys(:tab)
    expect(page).to have_css("[role=alert]", text: "Coil: a number")
    expect(find("[data-testid=coil]").value).to eq("cold")
  end

  it "takes a test that another watch timed, and goes on with one that another device began" do
    hold("defrost", visit_id, {})
    visit "#{desk}?tab=test"
    set_seconds("bridge", 0)
    set_seconds("watch_fan", "soon")
    expect(page).to have_css("[role=alert]", text: "The outdoor fan stops: “soon” is no number such as 14.5.")
    find("[data-testid=reading-fan_amps]").set("some").send_keys(:tab)
    expect(page).to have_css("[role=alert]", text: "Fan in defrost: “some” is no number such as 1.1.")
    set_seconds("watch_fan", 14)
    expect(page).to have_css(".verdict", text: "More than one interval fits")
    expect(find("[data-testid=watch-state]").text).to include("type the seconds")
    expect(find("[data-testid=mark-valve_heard]")).to be_disabled
    find("[data-testid=test-counted]").set("0").send_keys(:tab)
    expect(page).to have_css(".verdict.right", text: "The selector is on 60 min")
    find("[data-testid=step-watch_fan] .at input").send_keys([:control, "a"], :backspace, :tab)
    expect(page).to have_no_css(".verdict", text: "selector")
    2.times { find("[data-testid=new-test]").click }
    expect(find("[data-testid=watch-state]").text).to include("The first mark starts the watch")
    record = { "test" => { "marks" => { "bridge_on" => 1.5 }, "watch_started_at" => Time.now.to_f - 125 } }
    # Of a visit that no page here has open, so that nothing of this one is still on its way.
    other =
      db[:visits]
        .join(:units, id: :unit_id)
        .where(Sequel[:units][:name] => "Waiting room unit")
        .reverse(:visit_on)
        .get(Sequel[:visits][:id])
    hold("defrost", other, record)
    visit "/visits/#{other}/defrost?tab=test"
    expect(page).to have_css("[data-testid=clock]", text: /\A2:[01]\d/)
    find("[data-testid=mark-fan_off]").click
    expect(find("[data-testid=step-watch_fan] .at input").value.to_f).to be_between(124, 150)
  end

  it "is for thumbs at the unit: steps, clock and verdicts on a phone" do
    hold("defrost", visit_id, {})
    resize(390, 844)
    visit "#{desk}?tab=test"
    find("[data-testid=mark-bridge_on]").click
    find("[data-testid=mark-fan_off]").click
    expect(page).to have_css("[data-testid=verdicts] .verdict")
    boxes =
      page.evaluate_script(
        "[...document.querySelectorAll('.steps button')].map((one) => { const box = one.getBoundingClientRect(); return [box.left, box.right, box.height] })"
      )
    expect(boxes.map { |left, right, _height| [left >= 0, right <= 390] }.uniq).to eq([[true, true]])
    expect(boxes.map(&:last)).to all(be >= 44)
  end

  it "runs one history under every school, painted or typed, and takes the one that fits as the board's" do
    visit "#{desk}?tab=schools"
    expect(page).to have_css("[data-testid=course-run_time_cold] .first", text: "123")
    expect(page).to have_css("[data-testid=fitting]", text: "Fits what was seen: run time while cold.")
    find("[data-testid=lane-cold]").set("always").send_keys(:tab)
    expect(page).to have_css("[data-testid=course-run_time_cold] .first", text: "88")
    expect(page).to have_css("[data-testid=fitting]", text: "No school fits")
    paint = find("[data-testid=paint-cold]")
    page.driver.browser.action.move_to(paint.native, -150, 0).click_and_hold.move_by(120, 0).release.perform
    expect(find("[data-testid=lane-cold]").value).to match(/\A0-\d+, \d+-\z/)
    find("[data-testid=lane-cold]").set("50-0").send_keys(:tab)
    expect(page).to have_css("[role=alert]", text: "no stretch of minutes")
    find("[data-testid=lane-cold]").set("50-").send_keys(:tab)
    find("[data-testid=seen]").set("123, later").send_keys(:tab)
    expect(page).to have_css("[role=alert]", text: "“later” is no number of minutes")
    find("[data-testid=seen]").set("123").send_keys(:tab)
    find("summary", text: "run time while cold").click
    find("[data-testid=use-run_time_cold]").click
    expect(page).to have_text("The board’s school, as the rig has it")
    visit desk
    expect(page).to have_css("[data-testid=next]", text: "By the school “run time while cold”")
  end

  it "takes readings of the checklist into the visit, and a maker's table from a file" do
    visit "#{desk}?tab=list"
    within("[data-testid=check-t1]") do
      find("input").set("0.2")
      click_on "Keep"
      expect(page).to have_css(".had", text: "≠")
    end
    within("[data-testid=check-w2_out]") do
      find("input").set("24.3")
      click_on "Keep"
      expect(page).to have_css(".had", text: "=")
    end
    visit "#{desk}?tab=sensors"
    Dir.mktmpdir do |folder|
      path = File.join(folder, "own.csv")
      File.write(path, "degrees_f;ohms\r\n0;80000\r\n50;-1\r\n100;6000\r\n")
      give("table-csv", path)
      expect(page).to have_css("[data-testid=preview]", text: "line 3")
      File.write(path, "degrees_f;ohms\r\n0;80000\r\n50;20000\r\n100;6000\r\n")
      give("table-csv", path)
      expect(page).to have_css("[data-testid=preview]", text: "3 rows, 0 to 100 °F")
      find("[data-testid=keep-table]").click
      expect(page).to have_css("[data-testid=table]", text: "own")
    end
  end
end
