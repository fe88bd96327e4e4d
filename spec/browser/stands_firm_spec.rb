# frozen_string_literal: true

require_relative "../support/browser"

# Two who change the same rig, a server that is away for a while, a list longer than a page.
RSpec.describe "What stands firm under the hand", :browser, type: :feature do
  def rig_id =
    db[:visits].join(:rig_revisions, id: :rig_revision_id).where(Sequel[:visits][:id] => visit_id).get(:rig_id)
  def answer(fact, value) = find(%([data-fact="#{fact}"] [data-value="#{value}"])).click

  # Somebody else changes a fact of the rig, from another visit.
  def meanwhile(key, value)
    viewer = Gorvant::Server::Viewer.local_owner(db)
    rigs = Gorvant::Server::Rigs.new(db, viewer)
    row = rigs.find(rig_id)
    rigs.append(row[:id], row[:number], rigs.value(row).set({ key => value }, "measured"))
  end

  def kept =
    db[:rig_revisions].where(rig_id: rig_id).reverse(:number).get(:content)["facts"].transform_values do |fact|
      fact["value"]
    end

  it "keeps both changes of a rig where they do not touch, and asks whose word stands where they do" do
    visit "/visits/#{visit_id}/fitted"
    find("[data-testid=group-outdoor]").click
    answer "start_kit", "true"
    meanwhile "transformer_va", 60
    find("[data-testid=save-rig]").click
    expect(page).to have_css("[role=status]", text: "Kept as revision 3")
    expect(kept).to include("start_kit" => true, "transformer_va" => 60)

    answer "start_kit", "false"
    meanwhile "start_kit", true
    answer "crankcase_heater", "true"
    meanwhile "crankcase_heater", false
    find("[data-testid=save-rig]").click
    within("[data-testid=meanwhile]") do
      expect(page).to have_css("tbody tr", count: 2)
      expect(page).to have_text("Start relay and capacitor yes (measured) no")
      expect(complaints).to eq([])
      find("[data-testid=later]").click
    end
    expect(page).to have_no_css("[data-testid=meanwhile]")
    expect(kept).to include("start_kit" => true)
    find("[data-testid=save-rig]").click
    find("[data-testid=mine]").click
    expect(page).to have_css("[role=status]", text: "Kept as revision 6")
    expect(kept).to include("start_kit" => false, "crankcase_heater" => true, "transformer_va" => 60)
  end

  it "says that the server is away, keeps what is typed, and goes on by itself when it is back", :one_process do
    visit "/visits/#{visit_id}/intake"
    complaint = find("[data-testid=complaint]")
    allow(Gorvant::Server::Visits).to receive(:new).and_raise(Sequel::PoolTimeout)
    complaint.fill_in(with: "Hums, then stops").send_keys(:tab)
    expect(page).to have_css("[data-testid=waiting]", text: "Asking again by itself")
    expect(complaint.value).to eq("Hums, then stops")
    allow(Gorvant::Server::Visits).to receive(:new).and_call_original
    expect(page).to have_no_css("[data-testid=waiting]", wait: 10)
    expect(page).to have_no_css("[role=alert]")
    visit "/visits/#{visit_id}/intake"
    expect(find("[data-testid=complaint]").value).to eq("Hums, then stops")
  end

  it "shows the day sheet's first page at once, and the earlier visits when asked" do
    like = db[:visits].where(id: visit_id).first
    rows =
      Array.new(60) do |i|
        like.merge(id: uuid, visit_on: Date.new(2026, 10, 1) + (i % 20), complaint: "Look #{i}", demo: false)
      end
    %i[symptoms safety as_found bench setting_labels found_marks defrost].each do |name|
      rows.each { |row| row[name] = Sequel.pg_jsonb(row[name]) }
    end
    db[:visits].multi_insert(rows)
    visit "/"
    expect(page).to have_css("[data-testid=visit]", count: 50)
    find("[data-testid=earlier-visits]").click
    expect(page).to have_css("[data-testid=visit]", count: 71)
    expect(page).to have_no_css("[data-testid=earlier-visits]")
    expect(all(".leaf .date b").size).to eq(all(".leaf").size)
  end
end
