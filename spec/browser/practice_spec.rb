# frozen_string_literal: true

require_relative "../support/browser"
require_relative "../support/practice_trial"

RSpec.describe "Practice", :browser, type: :feature do
  include_context "with a worker"

  after { ServerBench.alone }

  # A bench whose truth the example knows.
  def hide(id)
    library = PracticeTrial.library(rig, 34.0)
    row = db[:rigs].join(:rig_revisions, rig_id: :id).select(Sequel[:rigs][:id]).first
    drill = PracticeTrial.hidden(library, [id])
    Gorvant::Server::Drills.new(db, ServerBench.viewer).keep(SecureRandom.uuid, {}, drill, row).first[:id]
  end

  def begin_bench(id)
    drill = hide(id)
    try = SecureRandom.uuid
    as(ServerBench.viewer.user_id)
    send_json(:post, "/api/practice/tries", id: try, drill_id: drill)
    visit "/practice/tries/#{try}"
    expect(page).to have_css("[data-testid=bench]", text: "No heat")
  end

  # Out of a long list, by typing.
  def choose(field, title)
    find("[data-testid=#{field}] .el-select__wrapper").click
    find("[data-testid=#{field}] input").send_keys(title)
    find(".el-select-dropdown__item", exact_text: title).click
    expect(page).to have_css("[data-testid=#{field}]", text: title)
  end

  it "leads a learner from the complaint by readings to the part, the debrief and what is due" do
    begin_bench("stuck_open:HPS")
    expect(page).to have_css("[data-testid=bench-clock]", text: "0:00")
    expect(page).to have_no_css("svg .station.live")
    tap_station("HPS") # both probes across it
    find("body").send_keys("r")
    expect(page).to have_css("[data-testid=bench-log] li:first-child", text: /before HPS – after HPS\s*2[45]\.\d V/)
    find("body").send_keys("l")
    find("[data-testid=look-liquid_side]").click
    expect(page).to have_css("[data-testid=bench-log] li:first-child", text: "inside")
    expect(page).to have_css("[data-testid=bench-clock]", text: "0:14")
    expect(page).to have_css("[data-testid=bench-tape-says]", text: "inside")
    find("body").send_keys("[")
    expect(page).to have_css("[data-testid=bench-tape-says]", text: /before HPS – after HPS\s*2[45]\.\d V/)
    tap_station("CC") # one's own probes again; an act gone back to is read where the panel shows it
    find("body").send_keys("]", "[")
    find("body").send_keys("m", "r")
    expect(page).to have_css("[data-testid=bench-log] li", text: "before HPS – after HPS", count: 2)
    tap_station("HPS")

    # What must not be done is stopped, and said why.
    find("[data-testid=hand-wires]").click
    find("[data-testid=jumper]").click
    expect(page).to have_css("[data-testid=bench-log] .stopped", text: "That jumper leaves out HPS")
    expect(complaints).to eq([])

    # Left half-way, it is there when one comes back.
    visit "/practice"
    find("[data-testid=go-on]", text: "No heat").click
    find("[data-testid=decide]").click
    choose("kind-0", "does not close")
    choose("at-0", "HPS")
    find("[data-testid=settle]").click
    within("[data-testid=debrief]", wait: 40) do
      expect(page).to have_css("h1", text: "HPS stuck open")
      expect(page).to have_text("1 acts that had to be stopped")
      expect(all("[data-testid=debrief-step]").size).to eq(4)
      expect(page).to have_text("bits")
    end
    expect(complaints).to eq([])
    click_on("Back to Practice")
    expect(page).to have_css("[data-testid=subject-sequence]", text: /shaky|sure/)
    expect(page).to have_css("[data-testid=subject-sequence]", text: "again in 1 d")
  end

  it "asks one thing after another in every other form, by thumb, and tells why" do
    resize(390, 844)
    visit "/practice"
    pick("rig", "Boathouse library, north")
    {
      "predict" => -> do
        all("[data-testid^=load-][data-testid$=-yes]").each(&:click)
        3.times { |i| pick("points-#{i}", "about 24") }
      end,
      "trace" => -> { find_all("[data-testid=station]").size.times { first("[data-testid=station]").click } }
    }.each do |form, reply|
      visit "/practice"
      find("[data-testid=subject-sequence]").click
      find("[data-testid=form-#{form}]").click
      expect(page).to have_css("[data-testid=quiz]")
      expect(page).to have_css("[data-testid=answer]:disabled")
      reply.call
      find("[data-testid=answer]").click
      expect(page).to have_css("[data-testid=judged] li")
      expect(page).to have_css("[data-testid=trap]") if form == "predict"
      expect(page).to have_css("[data-testid=next-question]")
    end
    visit "/practice"
    find("[data-testid=subject-initiation]").click
    find("[data-testid=form-timing]").click
    2.times do
      find("[data-testid=minutes] input").fill_in(with: "60")
      find("[data-testid=answer]").click
      find("[data-testid=next-question]").click
    end
    find("[data-testid=never]").click
    find("[data-testid=answer]").click
    expect(page).to have_css("[data-testid=marks]", text: "of 100")
    expect(complaints).to eq([])
  end

  it "draws a bench from a rig of the library, which an instructor hands out; its results come back" do
    visit "/practice"
    pick("rig", "Boathouse library, north")
    pick("level", "2 · one part, setting or switch")
    find("[data-testid=subject-safeties]").click
    find("[data-testid=form-find]").click
    expect(page).to have_css("[data-testid=bench]", wait: 60)
    find("[data-testid=decide]").click
    choose("kind-0", "nothing is wrong with it")
    choose("at-0", "Nothing wrong now")
    find("[data-testid=settle]").click
    expect(page).to have_css("[data-testid=debrief] .marks", text: "0", wait: 40)

    visit "/practice"
    find("[data-testid=practice-courses]").click
    expect(page).to have_css("[data-testid=course]", text: "First week") # of the demo data
    find("[data-testid=new-course]").click
    find("[data-testid=course-name]").fill_in(with: "Larkmere safeties")
    expect(page).to have_css("[data-testid=keep-course]:disabled")
    pick("course-rig", "Boathouse library, north")
    pick("course-subject", "Safeties")
    pick("course-level", "2 · one part, setting or switch")
    find("[data-testid=add-drill]").click
    expect(page).to have_css("[data-testid=course-drills] li", text: "Find it: Safeties", wait: 40)
    find("[data-testid=keep-course]").click
    within("[data-testid=course]", text: "Larkmere safeties") { expect(page).to have_text("for everybody") }

    browse_as(ServerBench.person("Tilda Roe", "apprentice"))
    visit "/practice"
    find("[data-testid=practice-courses]").click
    expect(page).to have_no_css("[data-testid=new-course]")
    within("[data-testid=course]", text: "Larkmere safeties") { find("[data-testid=begin-drill]").click }
    expect(page).to have_css("[data-testid=bench]")
    browse_as(ServerBench.viewer.user_id)
    visit "/practice"
    find("[data-testid=practice-courses]").click
    expect(page).to have_css("[data-testid=course-result]", text: "Tilda Roe")
    expect(page).to have_no_css("[data-testid=learners]") # begun is nothing that one stands by
    db[:drill_tries].exclude(course_id: nil).update(state: "done", marks: 86, done_at: Time.now)
    refresh
    find("[data-testid=practice-courses]").click
    expect(page).to have_css("[data-testid=learners]", text: /Safeties.*Tilda Roe\s*sure\s*86\s*1 done/m)
    expect(complaints).to eq([])
  end
end
