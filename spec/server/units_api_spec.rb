# frozen_string_literal: true

require "open3"
require "vips"
require_relative "../support/server"
require_relative "../support/contract"

# A unit over its visits, what one visit hands on to the next, and its label.
RSpec.describe "Units", :server do
  include_context "with the API's contract"

  let(:unit_id) { db[:visits].where(id: visit_id).get(:unit_id) }
  let(:unit) { "/api/units/#{unit_id}" }
  let(:visit) { "/api/visits/#{visit_id}" }

  # A later visit to the same unit, begun from the one before.
  def begin_next(from: visit_id, on: "2026-12-01")
    id = uuid
    send_json(:post, "/api/visits", id: id, unit_id: unit_id, as_visit_id: from, visit_on: on)
    expect(last_response.status).to eq(201)
    id
  end

  def landing(conductor, place, terminal) =
    { cable: "cable_a", conductor: conductor, place: place, lands_on: terminal, lies: "landed" }

  it "keeps the year that a unit was installed beside its notes, or takes it back; no year that cannot be" do
    send_json(:patch, unit, version: 1, notes: "loft key")
    send_json(:patch, unit, version: 2, installed_year: 2014)
    expect(answer.values_at("notes", "installed_year", "version")).to eq(["loft key", 2014, 3])
    send_json(:patch, unit, version: 2, installed_year: 2013)
    expect([last_response.status, answer["current"]]).to eq([409, { "installed_year" => 2014 }])
    [1949, Date.today.year + 1, "old", 2014.5].each do |year|
      send_json(:patch, unit, version: 3, installed_year: year)
      expect([last_response.status, answer["errors"].map { |one| one["field"] }]).to eq([422, ["/installed_year"]])
    end
    send_json(:patch, unit, version: 3, installed_year: nil)
    fetch(unit)
    expect(answer.values_at("notes", "installed_year")).to eq(["loft key", nil])
  end

  describe "what a visit hands on" do
    before do
      keep_desk(
        visit,
        "wiring",
        { landings: [landing("orange", "wall", "G"), landing("yellow", "wall", "Y")], jumpers: [] }
      )
      keep_desk(
        visit,
        "thermostat",
        { settings: { system_setup: "conventional", fast_heating: "error", stage_delay_minutes: 20 } }
      )
    end

    def assumed_by_find(of)
      row = Gorvant::Server::Visits.new(db, ServerBench.viewer).find(of)
      finders = Gorvant::Server::Finders.new(nil, nil)
      finders.situation(row).told
    end

    def line(part) =
      fetch("#{visit}/close-out") && answer["put_back"].map { |one| one["id"] }.find { |id| id.include?(part) }
    def ends(of) =
      send_json(:post, "/api/visits/#{of}/wiring", {}) &&
        answer["ends"].to_h { |one| [one.values_at("conductor", "place").join("@"), one] }
    def settings(of) =
      send_json(:post, "/api/visits/#{of}/settings", {}) && answer["items"].to_h { |one| [one["key"], one] }

    it "counts as told until somebody looks, and never as looked at" do
      after = begin_next
      fetch("/api/visits/#{after}")
      expect(answer.values_at("carried_on")).to eq(["2026-11-23"])
      expect(answer["marks"].values_at("wiring", "thermostat")).to eq(%w[untouched untouched])
      expect(answer["desks"].values_at("wiring", "thermostat").map { |desk| desk["content"] }).to eq([{}, {}])
      told = ends(after)["orange@wall"]
      expect(told.values_at("lands_on", "seen", "told")).to eq(["G", false, "2026-11-23"])
      expect(answer["seen"]["done"]).to eq(0)
      expect(answer["works"]).to be(false)
      expect(answer["findings"].flat_map { |one| one["assumed"] }).to include(
        "told by the visit of 2026-11-23, not looked at today"
      )
      expect(answer["standing"]["mark"]).to eq("untouched")
      expect(assumed_by_find(after)).to include(/visit of 2026-11-23 told/).and include(/an earlier visit told them/)
      expect(settings(after)["stage_delay_minutes"].values_at("found", "source", "verdict")).to eq(
        [20, "told_before", "assumed"]
      )
      keep_desk("/api/visits/#{after}", "wiring", { landings: [landing("orange", "wall", "O")], jumpers: [] })
      seen = ends(after)["orange@wall"]
      expect(seen.values_at("lands_on", "seen", "told")).to eq(["O", true, nil])
      keep_desk("/api/visits/#{after}", "thermostat", { settings: { stage_delay_minutes: 10 } })
      expect(settings(after)["stage_delay_minutes"].values_at("found", "source")).to eq([10, "measured"])
    end

    it "is as it was put right, where that was ticked, and leaves out what was only set for a test" do
      ticked = [line("wiring.wrong"), line("setting.system_setup"), line("setting.fast_heating")]
      keep_desk(visit, "close_out", { put_back: ticked.to_h { |id| [id, "back"] } })
      after = begin_next
      expect(ends(after)["orange@wall"].values_at("lands_on", "told")).to eq(%w[O 2026-11-23])
      all = settings(after)
      expect(all["system_setup"].values_at("found", "source")).to eq(%w[heat_pump told_before])
      expect(all["fast_heating"]["source"]).not_to eq("told_before")
      expect(all["stage_delay_minutes"]["found"]).to eq(20)
    end

    it "goes on to the visit after the next with the day on which it was seen, and to no other unit" do
      third = begin_next(from: begin_next, on: "2026-12-02")
      expect(ends(third)["orange@wall"]["told"]).to eq("2026-11-23")
      other = db[:units].exclude(id: unit_id).get(:id)
      send_json(:post, "/api/visits", id: uuid, unit_id: other, as_visit_id: visit_id, visit_on: "2026-12-01")
      expect([last_response.status, answer["carried_on"]]).to eq([201, nil])
    end

    it "is dropped where what is fitted has no place for it any more" do
      after = begin_next
      fetch("/api/visits/#{after}")
      version, revision = answer.values_at("version", "rig_revision")
      fetch("/api/visits/#{after}/rig")
      rig = answer["content"]
      rig["cables"].first["conductors"].reject! { |conductor| conductor["id"] == "orange" }
      db[:visits].where(id: after).update(
        carried:
          Sequel.pg_jsonb(
            {
              "on" => "2026-11-23",
              "landings" => [
                {
                  "cable" => "gone",
                  "conductor" => "red",
                  "place" => "wall",
                  "lands_on" => "R",
                  "told" => "2026-11-23"
                }
              ]
            }
          )
      )
      send_json(:post, "/api/visits/#{after}/wiring", {})
      expect(last_response.status).to eq(200)
      expect([version, revision]).to all(be_positive)
    end
  end

  it "has its visits, what changed, what was found, and trends with their intervals" do
    keep_desk(visit, "thermostat", { settings: { stage_delay_minutes: 20 } })
    after = begin_next
    keep_desk("/api/visits/#{after}", "thermostat", { settings: { stage_delay_minutes: 30 } })
    fetch(unit)
    expect(last_response.status).to eq(200)
    expect(answer["visits"].map { |one| one["id"] }).to eq([after, visit_id])
    expect(answer["settings"].map { |one| one.values_at("on", "was", "is") }).to eq(
      [["2026-12-01", "20 min", "30 min"], ["2026-11-23", nil, "20 min"]]
    )
    supply = answer["trends"].find { |one| one["id"] == "supply_outdoor" }
    point = supply["points"].first
    expect(point["low"]).to be < 24.6
    expect(point.values_at("value", "high")).to match([24.6, be > 24.6])
    coil = answer["trends"].find { |one| one["id"] == "coil_switch" }["points"].first
    expect(coil.values_at("low", "value", "high")).to eq([50.0, nil, 86.0])
    expect(answer["trends"].map { |one| one["id"] }).not_to include("drop")
  end

  it "keeps notes for the next one, on the version that was seen" do
    [unit, "/api/sites/#{db[:units].where(id: unit_id).get(:site_id)}"].each do |path|
      send_json(:patch, path, version: 1, notes: "Breaker is behind the shelf.")
      expect([last_response.status, answer["version"]]).to eq([200, 2])
      send_json(:patch, path, version: 1, notes: "Ask for the key.")
      expect([last_response.status, answer["current"]["notes"]]).to eq([409, "Breaker is behind the shelf."])
      fetch(path)
      expect(answer["notes"]).to eq("Breaker is behind the shelf.")
    end
    expect(answer["units"].map { |one| one.values_at("name", "visits", "open") }).to eq([["North unit", 1, 1]])
  end

  Gorvant::Server::Reports::Label::SIZES.each_key do |size|
    it "prints a label of #{size} with its name, number and how it is set up, on one page" do
      send_json(:post, "#{unit}/label-pdf", size: size)
      expect([last_response.status, last_response.content_type]).to eq([200, "application/pdf"])
      text, = Open3.capture2("pdftotext", "-", "-", stdin_data: last_response.body, binmode: true)
      said = text.force_encoding("UTF-8").gsub(/\s+/, " ")
      expect(said).to include(
        "Boathouse library, North unit",
        unit_id[0, 8],
        "Reversing valve",
        "not read",
        "2026-11-23"
      )
      expect(text.count("\f")).to eq(1)
    end
  end

  describe "the square on its label" do
    def label(address, size)
      Gorvant::Server::Reports::Label.new(
        site: "Boathouse library",
        unit: "North unit",
        number: "1",
        crew: "C",
        lines: [],
        last_on: "2026-11-29",
        address: address,
        size: size
      ).render
    end

    # What a camera reads at 200 dots an inch; nil where there is nothing to read.
    def read_by_camera(pdf)
      picture, = Open3.capture2("pdftoppm", "-r", "200", "-singlefile", "-png", stdin_data: pdf, binmode: true)
      pixels = Vips::Image.new_from_buffer(picture, "").colourspace(:srgb).bandjoin(255).cast(:uchar)
      sizes = [pixels.width, pixels.height].map(&:to_s)
      script = File.expand_path("../support/read_square.mjs", __dir__)
      said, status = Open3.capture2("node", script, *sizes, stdin_data: pixels.write_to_memory, binmode: true)
      expect(status).to be_success
      said.empty? ? nil : said
    end

    Gorvant::Server::Reports::Label::SIZES.each_key do |size|
      it "leads to the unit by a camera where others reach this server, and is not there elsewhere: #{size}" do
        fetch(unit)
        address = "https://gorvant.example/units/#{unit_id}"
        expect(read_by_camera(label(address, size))).to eq(address)
        expect(read_by_camera(label(nil, size))).to be_nil
      end
    end

    it "has an address only where the server has one" do
      fetch(unit)
      expect(Gorvant::Server::Opening.new(public_url: "").public_address("/units/1")).to be_nil
      expect(Gorvant::Server::Opening.new(public_url: "https://a.example/").public_address("/units/1")).to eq(
        "https://a.example/units/1"
      )
    end
  end

  describe "known good" do
    let(:clinic) { db[:visits].where(visit_on: "2026-03-03").get(:id) }
    let(:later) do
      same_unit = { unit_id: db[:visits].where(id: clinic).select(:unit_id) }
      db[:visits].where(same_unit).where(visit_on: "2026-11-12").get(:id)
    end

    def known_good(of) = fetch("/api/visits/#{of}/known-good") && answer

    it "is kept of a closed visit that left no fault, and the next one shows what has moved since" do
      expect(known_good(later).values_at("on", "lines")).to eq([nil, []])
      send_json(:post, "/api/visits/#{later}/known-good", "")
      expect([last_response.status, answer["detail"]]).to match([422, /closed visit/])
      send_json(:post, "/api/visits/#{clinic}/known-good", "")
      expect([last_response.status, answer["on"]]).to eq([200, "2026-03-03"])
      db[:readings].where(visit_id: later, to_node: "outdoor.O").update(
        to_node: "outdoor.Y",
        value: 19.0,
        verdict: "agrees"
      )
      lines = known_good(later)["lines"]
      expect(lines.map { |one| one["came"] }).to include("moved").and include("unlike")
      expect(lines.find { |one| one["came"] == "moved" }["says"]).to include("outdoor Y")
      expect(known_good(clinic)["lines"]).to eq([])
    end
  end

  it "puts the crew's mark on its papers, written anew, and takes it off again" do
    fetch("/api/crew/mark")
    expect(last_response.status).to eq(404)
    plain = send_json(:post, "/api/visits/#{visit_id}/report-pdf", {}) && last_response.body.bytesize
    @sent = Vips::Image.black(300, 90, bands: 3).pngsave_buffer
    post("/api/crew/mark", @sent, "CONTENT_TYPE" => "image/png", "HTTP_HOST" => "127.0.0.1")
    expect(last_response.status).to eq(201)
    fetch("/api/crew/mark")
    expect([last_response.content_type, last_response.body.b[0, 3]]).to eq(["image/jpeg", "\xFF\xD8\xFF".b])
    send_json(:post, "/api/visits/#{visit_id}/report-pdf", {})
    expect(last_response.body.bytesize).to be > plain
    @sent = "no picture"
    post("/api/crew/mark", @sent, "CONTENT_TYPE" => "image/png", "HTTP_HOST" => "127.0.0.1")
    expect(last_response.status).to eq(422)
    send_json(:post, "/api/crew/mark/removal", "")
    fetch("/api/crew/mark")
    expect(last_response.status).to eq(404)
  ensure
    db[:crews].update(mark: nil)
  end
end
