# frozen_string_literal: true

require_relative "../support/browser"
require_relative "../support/killed_worker"

RSpec.describe "Find, before all of it is worked out", :browser, type: :feature do
  it "asks for a reading in the complaint's call, calls nothing sure, and gives way to the whole" do
    worker = Gorvant::Server::Worker.new(db)
    id = db[:visits].join(:units, id: :unit_id).where(Sequel[:units][:name] => "North unit").get(Sequel[:visits][:id])
    # A weather that no other example has: what the server in this process has laid out outlives the tables.
    visits = Gorvant::Server::Visits.new(db, ServerBench.viewer)
    visits.change(id, visits.find(id)[:version], outdoor_degrees_f: 31.5)
    resize(390, 844)
    visit "/visits/#{id}/find"
    expect(page).to have_css("[data-testid=working-out]")
    KilledWorker.after_first_look(self, worker, db)
    expect(page).to have_css(
      "[data-testid=first-look]",
      text: /First look: the likeliest \d+ of \d+ causes, as they show in Heat/
    )
    expect(find("[data-testid=outcome]")["data-outcome"]).to eq("open")
    expect(page).to have_css("[data-testid=next-test]").and have_no_css("[data-testid=working-out]")
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    expect(complaints).to eq([])
    worker.run_one
    expect(page).to have_no_css("[data-testid=first-look]", wait: 10)
    expect(page).to have_css("[data-testid=next-test]").and have_no_css(".next [disabled]")
  end
end
