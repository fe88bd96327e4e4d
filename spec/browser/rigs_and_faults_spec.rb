# frozen_string_literal: true

require_relative "../support/browser"

RSpec.describe "Rigs of every sort", :browser, type: :feature do
  def answer(fact, value) = find(%([data-fact="#{fact}"] [data-value="#{value}"])).click
  def place(name) = find("[data-testid=group-#{name}]").click

  def import(content)
    file = Tempfile.create(%w[rig .json]).tap { |own| own.write(content) }
    file.close
    give("rig-file", file.path)
  end

  it "composes a two-stage B-type dual-fuel rig, breaks its common at the splice, and reads where an edited file is wrong" do
    visit "/rigs"
    click_on "Compose a rig"
    find("[data-testid=rig-name]").fill_in(with: "Rope walk studio").send_keys(:tab)
    place "indoor"
    answer "backup", "gas"
    place "outdoor"
    answer "changeover", "B"
    answer "compressor_stages", "2"
    answer "outdoor_thermostat", "true"
    expect(page).to have_css('[data-station="Y2S"]')
    expect(page).to have_css('[data-station="ODT"]')
    find("[data-testid=undo]").click
    expect(page).to have_no_css('[data-station="ODT"]')
    find("[data-testid=redo]").click
    expect(page).to have_css('[data-station="ODT"]')
    find("[data-testid=save-rig]").click
    expect(page).to have_css("h1", text: "What is fitted")

    row = db[:rig_revisions].where(rig_id: db[:rigs].where(name: "Rope walk studio").get(:id)).first
    file = row[:content].to_hash
    file["cables"][1]["conductors"].find { |one| one["id"] == "blue" }["splices"] = [
      { "id" => "attic", "color" => "black" }
    ]
    file["name"] = "Rope walk studio, spliced"
    visit "/rigs"
    import JSON.generate(file)
    find("[data-testid=rig]", text: "spliced").click_on("Trace")
    find("[data-testid=call-heat_2]").click
    expect(page).to have_css('[data-station="Y2S"]')
    find("summary", text: "What if").click
    find("[data-testid=fault-search]").fill_in(with: "attic open")
    find("[data-testid=fault-offer]", match: :first).click
    expect(page).to have_css("[data-testid=changes]", text: "Runs otherwise: COMP, OFM")
    expect(page).to have_css(".findings", text: "No way home to C")

    file["cables"][1]["conductors"][0]["to"] = "RR"
    file["facts"]["backup"]["value"] = "coal"
    visit "/rigs"
    import JSON.generate(file)
    expect(page).to have_css("[role=alert]", text: "Backup heat unknown choice 'coal'")
  end

  it "says at the question itself that two points cross, keeps nothing of it, and goes on once they are put right" do
    points = ->(which, degrees) do
      find(%([data-fact="coil_switch_#{which}_degrees_f"] input)).fill_in(with: degrees).send_keys(:tab)
    end
    visit "/rigs"
    click_on "Compose a rig"
    find("[data-testid=rig-name]").fill_in(with: "Net loft").send_keys(:tab)
    place "outdoor"
    points.call("closes", "45")
    points.call("opens", "41")
    within('[data-fact="coil_switch_opens_degrees_f"]') do
      expect(page).to have_css("[role=alert]", text: "has to lie above 45 °F (Coil switch closes), not at 41 °F")
      expect(find("input").value).to eq("41")
    end
    expect(page).to have_no_css('[data-fact="coil_switch_closes_degrees_f"] [role=alert]')
    expect(page).to have_css("[data-testid=save-rig][disabled]")
    points.call("opens", "60")
    expect(page).to have_no_css("[role=alert]")
    find("[data-testid=save-rig]").click
    expect(page).to have_css("h1", text: "What is fitted")
    kept = db[:rig_revisions].where(rig_id: db[:rigs].where(name: "Net loft").get(:id)).get(:content).to_hash
    expect(kept["facts"].transform_values { |fact| fact["value"] }).to include(
      "coil_switch_closes_degrees_f" => 45,
      "coil_switch_opens_degrees_f" => 60
    )
  end

  it "keeps a revision for each change, tells what it changed, and refuses one made on an old version" do
    visit "/rigs"
    find("[data-testid=rig] a", text: "Boathouse library, north").click
    expect(page).to have_css("h1", text: "What is fitted")
    place "outdoor"
    answer "contactor_poles", "1"
    find("[data-testid=save-rig]").click
    expect(page).to have_css("[role=status]", text: "revision 2")
    find(".revisions summary", text: "1 changed").click
    expect(page).to have_css(
      ".revisions li",
      text: "Contactor poles not read: taken as one (assumed) → one; the other leg stays live (diagram)"
    )
    db[:rigs].where(name: "Boathouse library, north").update(version: 9)
    answer "contactor_poles", "2"
    find("[data-testid=save-rig]").click
    expect(page).to have_css("[role=alert]", text: "changed meanwhile")
  end

  it "offers the faults of a tapped conductor, and marks what they change" do
    visit trace_path("?call=heat")
    expect(page).to have_css("[data-station]", minimum: 30)
    find("summary", text: "What if").click
    page.execute_script(
      "document.querySelector('[data-wire=\"cable_b.yellow\"]')" \
        ".dispatchEvent(new MouseEvent('click', { bubbles: true }))"
    )
    find("[data-testid=fault-offer]", text: /\Ayellow of cable B open\z/).click
    expect(page).to have_css("[data-testid=changes]", text: "COMP")
    expect(page).to have_css(".delta", minimum: 3)
    click_on "Take away", match: :first
    expect(page).to have_no_css(".delta")
    find("[data-testid=supply-outdoor]").click
    expect(page).to have_css("[data-testid=changes]", text: "Runs otherwise: COMP, OFM.")
  end

  it "works out in the background which faults read the same, and tells" do
    worker = Thread.new { sleep 0.1 until Gorvant::Server::Worker.new(db).run_one }
    visit trace_path("?call=heat&faults=#{CGI.escape(JSON.generate([{ kind: "stuck_closed", at: "DFR.valve" }]))}")
    click_on "Which faults read the same?"
    expect(page).to have_css("[data-testid=alike] li", text: "O at the thermostat stuck closed", wait: 30)
  ensure
    worker.kill
  end

  it "reads ohms with the caution, alone and in circuit, and a ghost on either meter" do
    visit trace_path("?call=off&black=outdoor.CC.2&red=outdoor.CC.1&hop=no")
    find("[data-testid=function-ohms]").click
    expect(page).to have_css("[data-testid=ohms]", text: "12Ω")
    expect(page).to have_text("Ohms only with the power off")
    find("[data-testid=measured]").fill_in(with: "11 to 13")
    find("[data-testid=keep]").click
    expect(page).to have_css("[data-testid=verdict].agrees", text: "11 to 13 Ω is like its typical winding")
    visit trace_path("?call=heat&black=wall.C&red=wall.cable_a.brown")
    expect(page).to have_css("[data-testid=reason]", text: "ghost")
    pick("instrument", "3 kΩ low-Z")
    expect(page).to have_css("[data-testid=expected]", text: /\A0\.0/)
  end

  %w[light dark].each do |theme|
    it "has nothing for axe to complain of with a fault supposed, in #{theme}" do
      visit "/settings"
      page.execute_script("localStorage.setItem('gorvant.theme', arguments[0])", theme)
      visit trace_path("?call=heat&faults=#{CGI.escape(JSON.generate([{ kind: "open", at: "cable_b.blue" }]))}")
      expect(page).to have_css("[data-station]", minimum: 30)
      expect(complaints).to eq([])
    end
  end
end
