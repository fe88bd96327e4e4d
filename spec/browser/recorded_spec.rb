# frozen_string_literal: true

require "tempfile"
require_relative "../support/browser"

# A week of a logger's CSV, dropped on a unit; and what another setting would cost.
RSpec.describe "Recorded defrosts", :browser, type: :feature do
  include_context "with a worker"

  let(:desk) { "/visits/#{visit_id}/defrost" }

  def csv(lines)
    file = Tempfile.new(%w[record .csv])
    file.write(lines)
    file.close
    (@files ||= []) << file
    file.path
  end

  def made_up(**options)
    rig = Gorvant::Formats::RigJson.read(JSON.parse(File.read(File.join(Bench::DEMO, "boathouse_north.json"))))
    profile = Gorvant::ClockProfile.of(rig).with(interval_seconds: 5400.0)
    Gorvant::Formats::MadeUpLog.new(profile: profile, changeover: rig.changeover, every: 60, seed: 9, **options)
  end

  it "leads from a file through its columns to the interval that the board runs on, and counts it for the visit" do
    hold("defrost", visit_id, {})
    visit "#{desk}?tab=recorded"
    give("log-file", csv(made_up(comma: true, faults: ["fan_runs_in_defrost"]).text(30 * 3600)))
    within("[data-testid=log-mapping]") do
      expect(page).to have_css("[data-testid=map-order]", text: "day.month.year")
      expect(page).to have_css("[data-testid=map-coil]", text: "Coil °F")
    end
    expect(complaints).to eq([])
    find("[data-testid=read-log]").click
    expect(page).to have_css(".verdict.wrong", text: "It runs on 90 min, not on 60", wait: 30)
    expect(page).to have_css(".verdict.wrong", text: "The outdoor fan runs in defrost")
    expect(page).to have_css("[data-testid=log-picture] canvas")
    expect(complaints).to eq([])

    first("[data-testid=recorded-defrosts] tbody tr", text: /temperature|time/).click
    expect(page).to have_css("[data-testid=beside]", text: "Running since the one before")
    find("[data-testid=nearer]").click
    expect(page).to have_css("[data-testid=all-of-it]:not(:disabled)")

    # The same for who does not see it, row by row; what is on as the record's own threshold has it.
    find("[data-testid=as-numbers] .el-collapse-item__header").click
    expect(page).to have_css(
      "[data-testid=log-numbers] [role=row]",
      text: /\d\d:\d\d.*\d\.\d.*\b(on|off)\b/m,
      minimum: 5
    )
    expect(complaints).to eq([])

    find("[data-testid=count-record]").click
    expect(page).to have_css("[data-testid=count-record].is-checked")
    kept = -> do
      db[:visit_desks].where(visit_id: visit_id, desk: "defrost").get(:content).to_h.dig("recorded", "verdicts").to_a
    end
    page.document.synchronize(8) { raise Capybara::ElementNotFound unless kept.call.any? }
    expect(kept.call.map { |one| one["code"] }).to include("recorded_fan_runs", "recorded_interval_other")
  end

  it "refuses a file with three bad lines by their numbers, and doubts columns that are the wrong way round" do
    lines = made_up.text(3 * 3600).lines
    lines[5] = lines[5].sub(/,[\d.]+/, ",warm")
    lines[9] = "x\n"
    lines[20] = "#{lines[20].chomp},1\n"
    visit "#{desk}?tab=recorded"
    give("log-file", csv(lines.join))
    find("[data-testid=read-log]").click
    within("[data-testid=log-refused]", wait: 20) do
      expect(all("li").map(&:text)).to match([/lines 6 'warm'/, /lines 10 .*1 columns/, /lines 21 .*12 columns/])
    end
    find("[data-testid=remove-log]").click
    find(".el-popconfirm .el-button--primary").click
    expect(page).to have_no_css("[data-testid=logs] li", text: "record")

    swapped = made_up.text(20 * 3600).sub("Outdoor °F,Coil °F", "Coil °F,Outdoor °F")
    give("log-file", csv(swapped))
    find("[data-testid=read-log]").click
    expect(page).to have_css("[data-testid=log-doubt]", text: /wrong way round|looks like a coil/, wait: 30)
  end

  it "plans a year for a site's own bins, and fits a thumb" do
    resize(390, 844)
    visit "#{desk}?tab=planner"
    pick("climate", "The site’s own table")
    give("climate-file", csv("Month,Temp F,Humidity,Hours\n1,2.5,55,300\n1,12.5,55,300\n"))
    expect(page).to have_css("[data-testid=climate-file]", text: ".csv")
    find("[data-testid=plan]").click
    expect(page).to have_css("[data-testid=plan-says]", text: "nothing to melt", wait: 60)
    expect(page).to have_css("[data-testid=plan-settings] thead th.take", count: 1)
    expect(complaints).to eq([])
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
  end
end
