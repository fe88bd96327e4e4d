# frozen_string_literal: true

require_relative "../support/contract"
require "vips"

RSpec.describe "What a visit finds", :server do
  include_context "with the API's contract"

  let(:visit) { "/api/visits/#{visit_id}" }

  def version = fetch(visit) && answer["version"]
  def orange(terminal) =
    { "landings" => [{ "cable" => "cable_a", "conductor" => "orange", "place" => "wall", "lands_on" => terminal }] }

  it "keeps landings with the visit, marks its page, and tells what they do" do
    send_json(:post, "#{visit}/wiring", {})
    expect(answer).to include("works" => true, "findings" => [], "seen" => include("done" => 0))
    found = orange("B")
    send_json(:post, "#{visit}/wiring", as_found: found)
    expect(answer["findings"].map { |one| one["code"] }).to eq(["changeover_on_wrong_terminal"])
    expect(answer["correction"]).to include(
      "moves" => ["At the wall move the orange of cable A from B to O"],
      "works" => true
    )
    expect(answer["effects"].find { |one| one["trial"] == "cool" }["says"]).to include("reversing valve solenoid off")
    fetch(visit)
    expect([answer["marks"]["wiring"], answer["desks"]["wiring"]["version"]]).to eq(["untouched", 0])
    2.times { keep_desk(visit, "wiring", found, version: 0) }
    expect([last_response.status, answer["desks"]["wiring"]["version"]]).to eq([200, 1])
    expect(answer["marks"]).to include("wiring" => "disagrees", "thermostat" => "untouched")
    keep_desk(visit, "wiring", orange("O"), version: 0)
    expect([last_response.status, answer["current"]["landings"].first["lands_on"]]).to eq([409, "B"])
    send_json(:post, "#{visit}/wiring", {})
    expect(answer["as_found"]["landings"].first).to include("lands_on" => "B")
    faults = answer["faults"]
    send_json(:post, "#{visit}/trace", condition: { call: "cool", faults: faults })
    expect(answer["loads"].find { |load| load["code"] == "RVS" }["on"]).to be(false)
    keep_desk(visit, "wiring", orange("Z"))
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/landings/0/lands_on"])
  end

  it "gives the landings as a table and takes it back, or refuses it row by row" do
    fetch("#{visit}/landings")
    text = last_response.body
    expect(text.lines.first.strip).to eq("place,cable,conductor,color,lands_on")
    send_json(:post, "#{visit}/landings", text: "\uFEFF#{text.gsub(",", ";").gsub("\n", "\r\n")}")
    expect(answer).to include("refused" => [], "rows" => text.lines.size - 1)
    send_json(:post, "#{visit}/landings", text: text.sub(",R\n", ",Q7\n"))
    expect(answer).to match(
      "rows" => text.lines.size - 1,
      "as_found" => nil,
      "refused" => [include("line" => 2, "problem" => include("Q7"))]
    )
  end

  it "checks settings, runs the stages, and keeps ticks and labels" do
    send_json(:post, "#{visit}/settings", settings: { "system_setup" => "conventional", "balance_points" => true })
    expect(answer["findings"].map { |one| one["code"] }).to include("setting_system_setup", "balance_points_blind")
    expect(answer["items"].find { |one| one["key"] == "system_setup" }).to include(
      "verdict" => "disagrees",
      "should" => "air-source heat pump"
    )
    expect(answer["bench"].map { |line| line["id"] }).to include("heat-1", "cool-1", "emergency")
    script = {
      start: {
        set_point_degrees_f: 70,
        room_degrees_f: 66,
        outdoor_degrees_f: 30
      },
      moves: [{ at_seconds: 0, what: "mode", value: "heat" }]
    }
    send_json(:post, "#{visit}/staging", script: script, duration_seconds: 3600, at_seconds: 300)
    expect(answer["stages"].find { |stage| stage["output"] == "THERMOSTAT.W2" }).to include(
      "on_at" => 600.0,
      "waited" => include("stage delay of 10 min")
    )
    expect(answer["waiting"].first).to include("seconds" => 600.0)
    send_json(:patch, visit, version: version, safety: ["meter_proven"], set_point_degrees_f: 71)
    expect(answer).to include("safety" => ["meter_proven"], "set_point_degrees_f" => 71.0)
    kept = { "bench" => { "heat-1" => %w[Y G] }, "labels" => { "changeover_setup" => "12" } }
    keep_desk(visit, "thermostat", kept)
    expect(answer["desks"]["thermostat"]["content"]).to eq(kept)
    [{ safety: ["luck"] }, { set_point_degrees_f: 500 }].each do |bad|
      send_json(:patch, visit, version: version, **bad)
      expect(last_response.status).to eq(422)
    end
    {
      "/bench" => {
        bench: {
          "heat-1" => "Y"
        }
      },
      "/labels" => {
        labels: {
          "depth" => "3"
        }
      },
      "/settings/depth" => {
        settings: {
          "depth" => 3
        }
      },
      "/wires" => {
        wires: []
      }
    }.each do |field, bad|
      keep_desk(visit, "thermostat", bad)
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, field])
    end
    fetch(visit)
    expect(answer["desks"]["thermostat"]).to include("version" => 1, "content" => kept, "by" => "Local owner")
  end

  it "lets two people work on two desks at once, and keeps a conflict to the desk that has one" do
    keep_desk(visit, "wiring", orange("B"), version: 0)
    keep_desk(visit, "thermostat", { settings: { "system_setup" => "heat_pump" } }, version: 0)
    keep_desk(visit, "defrost", { moment: { call: "heat" } })
    send_json(:patch, visit, version: version, complaint: "Hums")
    expect([last_response.status, answer["desks"].transform_values { |one| one["version"] }]).to match(
      [200, include("wiring" => 1, "thermostat" => 1)]
    )
    expect(answer["marks"]).to include("wiring" => "disagrees", "thermostat" => "so_far")
    send_json(:post, "#{visit}/wiring", {})
    expect(answer["as_found"]).to include("settings" => { "system_setup" => "heat_pump" })
    %w[find attic].each do |desk|
      send_json(:put, "#{visit}/desks/#{desk}", version: 0, content: {})
      expect(last_response.status).to eq(404)
    end
  end

  it "marks the thermostat's page anew when the customer's set point changes" do
    keep_desk(visit, "thermostat", { settings: { heat_limit_degrees_f: 72 } })
    send_json(:patch, visit, version: version, set_point_degrees_f: 70)
    expect(answer["marks"]["thermostat"]).to eq("so_far")
    send_json(:patch, visit, version: version, set_point_degrees_f: 75)
    expect(answer["marks"]["thermostat"]).to eq("disagrees")
  end

  it "keeps a maker's setting numbers by name, once" do
    body = {
      id: uuid,
      name: "Wall model with the round dial",
      labels: {
        "changeover_setup" => "12",
        "stage_delay_minutes" => "7 b"
      }
    }
    2.times { send_json(:post, "/api/setting_profiles", body) }
    expect(last_response.status).to eq(200)
    send_json(:post, "/api/setting_profiles", body.merge(id: uuid))
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/name"])
    fetch("/api/setting_profiles")
    expect(answer["profiles"].map { |one| one["labels"] }).to eq(
      [{ "changeover_setup" => "12", "stage_delay_minutes" => "7 b" }]
    )
    send_json(:post, "/api/setting_profiles/#{body[:id]}/deletion", "")
    expect(last_response.status).to eq(200)
  end

  it "takes a changed rig as a revision of its own, refuses a target that cannot work, and shows the unit's history" do
    rig_id = fetch(visit) && answer["rig_id"]
    content = fetch("/api/rigs/#{rig_id}") && answer["content"]
    facts = content["facts"].merge("transformer_va" => { "value" => 60, "provenance" => { "source" => "measured" } })
    send_json(:post, "#{visit}/fitted", revision: revision, version: version, rig: content.merge("facts" => facts))
    expect(last_response.status).to eq(201)
    expect(answer["rig_revision"]).to eq(2)
    crossed = {
      "balance_points" => true,
      "outdoor_sensor" => true,
      "compressor_balance_degrees_f" => 52,
      "auxiliary_balance_degrees_f" => 46
    }
    wrong =
      facts.merge(crossed.transform_values { |value| { "value" => value, "provenance" => { "source" => "told" } } })
    send_json(:post, "#{visit}/fitted", revision: revision, version: version, rig: content.merge("facts" => wrong))
    expect([last_response.status, answer["detail"]]).to match([422, include("between 46 and 52 °F nothing may heat")])
    unit = fetch(visit) && answer["unit_id"]
    send_json(:post, "/api/visits", id: uuid, unit_id: unit, as_visit_id: visit_id, visit_on: "2026-11-25")
    expect(answer["rig_revision"]).to eq(2)
    fetch("#{visit}/history")
    expect(answer["visits"].map { |one| one["visit_on"] }).to eq(%w[2026-11-25 2026-11-23])
  end

  describe "photos" do
    def picture(bytes, query = {})
      @sent = ""
      path = "#{visit}/photos?#{URI.encode_www_form({ photo_id: uuid }.merge(query))}"
      post(path, bytes, "CONTENT_TYPE" => "image/jpeg", "HTTP_HOST" => "127.0.0.1")
    end

    # A picture that says where it was taken.
    def located =
      Vips::Image
        .black(2400, 1800)
        .copy
        .then do |image|
          image.mutate { |one| one.set_type!(GObject::GSTR_TYPE, "exif-ifd3-GPSLatitudeRef", "N") }.jpegsave_buffer
        end

    it "shrinks a picture and leaves the place behind" do
      expect(Vips::Image.new_from_buffer(located, "").get_fields.grep(/GPS/)).not_to be_empty
      picture(located, of: "board_setting", fact: "defrost_interval_minutes", note: "selector")
      expect(answer).to include(
        "width" => 1600,
        "height" => 1200,
        "fact_key" => "defrost_interval_minutes",
        "of" => "board_setting"
      )
      id = answer["id"]
      fetch("/api/photos/#{id}")
      kept = Vips::Image.new_from_buffer(last_response.body, "")
      expect(kept.get_fields.grep(/exif|GPS|xmp/i)).to eq([])
      fetch("/api/photos/#{id}/small")
      expect(Vips::Image.new_from_buffer(last_response.body, "").width).to eq(320)
      fetch("#{visit}/photos")
      expect(answer["photos"].size).to eq(1)
    end

    def noise(width = 400, height = 300) =
      Vips::Image
        .gaussnoise(width, height)
        .cast(:uchar)
        .bandjoin([Vips::Image.black(width, height)] * 2)
        .copy(interpretation: :srgb)

    it "takes what phones make: JPEG, PNG, WebP and HEIC" do
      [
        noise.jpegsave_buffer(interlace: true),
        noise.pngsave_buffer,
        noise.webpsave_buffer,
        noise.heifsave_buffer
      ].each do |bytes|
        picture(bytes)
        expect(last_response.status).to eq(201)
      end
    end

    it "refuses one that is cut off, in whichever kind, and one of too many points, in words" do
      [
        noise.jpegsave_buffer,
        noise.jpegsave_buffer(interlace: true),
        noise.pngsave_buffer,
        noise.webpsave_buffer
      ].each do |bytes|
        picture(bytes.byteslice(0, bytes.bytesize * 6 / 10))
        expect([last_response.status, answer["detail"]]).to match([422, include("cannot be read to its end")])
      end
      picture(Vips::Image.black(8_000, 6_400).pngsave_buffer)
      expect([last_response.status, answer["detail"]]).to match([422, include("at most 50 million")])
    end

    it "ends the reading of one that takes too much memory, and says on a HEIC what to do on the phone" do
      stub_const("Gorvant::Server::Pictures::MOST_MEMORY_BYTES", 40 * 1024 * 1024)
      picture(noise.jpegsave_buffer)
      expect([last_response.status, answer["detail"]]).to match([422, include("more memory or time")])
      picture(noise.heifsave_buffer)
      expect([last_response.status, answer["detail"]]).to match([422, include("most compatible")])
    end

    it "keeps sixty of a visit and no more, however many come at once; and one sent again is no more" do
      shrunk = { content: "x", small: "x", width: 1, height: 1 }
      allow(Gorvant::Server::Pictures).to receive(:shrink).and_return(shrunk)
      viewer = Gorvant::Server::Viewer.local_owner(db)
      keep =
        lambda do |id|
          Gorvant::Server::Photos.new(db, viewer).create(
            id,
            "d",
            { visit_id: visit_id, of: "other", note: "", **shrunk }
          )
          :kept
        rescue Gorvant::Server::Refused
          :refused
        end
      ids = Array.new(55) { uuid }
      expect(ids.map(&keep).uniq).to eq([:kept])
      expect(Array.new(10) { Thread.new { keep.call(uuid) } }.map(&:value).tally).to eq(kept: 5, refused: 5)
      expect(keep.call(ids.first)).to eq(:kept)
      expect(db[:photos].where(visit_id: visit_id).count).to eq(60)
      fetch("#{visit}/photos")
    end

    {
      "a page that calls itself a picture" => "<html>",
      "a picture cut short" => "\xFF\xD8\xFF\xE0".b + ("x" * 50),
      "nothing" => "",
      "a script in a picture's clothes" => "GIF89a<script>"
    }.each do |what, bytes|
      it "refuses #{what}" do
        picture(bytes)
        expect(last_response.status).to eq(422)
        fetch("#{visit}/photos")
        expect(answer["photos"]).to eq([])
      end
    end
  end
end
