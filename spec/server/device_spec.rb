# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/device"
require_relative "../support/random_rigs"

RSpec.describe "a device without signal", :server do
  let(:device) { DeviceBench.up }

  # What the pages would keep of a visit, and what comes along for the engine.
  def take(visit)
    fetch("/api/visits/#{visit}")
    row = answer
    fetch("/api/visits/#{visit}/readings")
    readings = answer.fetch("readings")
    fetch("/api/visits/#{visit}/photos")
    photos = answer.fetch("photos")
    fetch("/api/visits/#{visit}/along")
    device.hold(row, readings, answer, photos)
    [row, readings, answer]
  end

  # What the server says to a question; a close-out without its closings, which no device makes.
  def server(visit, method, under, body)
    path = "/api/visits/#{visit}#{"/#{under}" unless under.empty?}"
    asks = -> { method == "GET" ? fetch(path) : send_json(:post, path, body) }
    asks.call
    asks.call if last_response.status == 202 && Gorvant::Server::Worker.new(db).run_one
    expect(last_response.status).to eq(200), "#{method} #{under}: #{last_response.body[0, 200]}"
    under == "close-out" ? answer.except("closings", "addenda") : answer
  end

  def signatures(visit)
    row = Gorvant::Server::Visits.new(db, ServerBench.viewer).alone(visit)
    computed = Gorvant::Server::Computed.new(db)
    finders = Gorvant::Server::Finders.new(computed, nil)
    work =
      Gorvant::Server::Signatures.new(
        {
          "rig" => Gorvant::Formats::RigJson.dump(Gorvant::Server::Warm.rig(row)),
          "as_found" => row[:desks].as_found,
          "outdoor_degrees_f" => row[:outdoor_degrees_f]
        }
      )
    key = Gorvant::Server::Signatures.key(row[:digest], finders.situation(row))
    computed.put("signatures", key, JSON.generate(work.answer(Array.new(work.total) { |i| work.step(i) })))
  end

  it "says of every visit what the server says, word for word" do
    visits = db[:visits].order(:visit_on, :id).select_map(:id)
    expect(visits.size).to be > 5
    visits.each do |visit|
      row, = take(visit)
      calls = server(visit, "POST", "trace", { "condition" => { "call" => "off" } }).fetch("calls")
      test = row.dig("desks", "defrost", "content", "test") || {}
      DeviceBench
        .questions(calls.values_at(0, -2), test)
        .each do |method, under, body|
          expect(device.ask(method, under, body)).to eq(server(visit, method, under, body)), "#{visit} #{under} #{body}"
        end
    end
  end

  it "says in °C what the server says in it" do
    take(visit_id)
    header("X-Units", "C")
    [
      ["POST", "settings", {}],
      ["POST", "defrost/outlook", { "call" => "heat" }],
      ["POST", "saying", { "text" => "supply air 33" }],
      ["GET", "close-out", nil]
    ].each { |one| expect(device.ask(*one, units: "C")).to eq(server(visit_id, *one)), one.inspect }
    way = device.ask("POST", "saying", { "text" => "supply air 33" }, units: "C")["ways"].first
    expect([way.dig("given", "value"), way["reads"]]).to eq([91.4, "33 °C"])
  ensure
    header("X-Units", nil)
  end

  context "when it is turned on" do
    let(:device) { DeviceBench.new }

    after { device.close }

    it "finds by the signatures that came along, and nothing without them or where the unit is another by now" do
      _row, _readings, along = take(visit_id)
      expect(along.fetch("signatures")).to be_nil
      expect(device.ask("POST", "find", {})).to be_nil

      signatures(visit_id)
      row, readings, along = take(visit_id)
      [
        ["find", { "mode" => "cheapest" }],
        ["find", { "stands" => "wall", "mode" => "fewest" }],
        ["road-map", {}]
      ].each { |under, body| expect(device.ask("POST", under, body)).to eq(server(visit_id, "POST", under, body)) }

      landed = {
        "cable" => "cable_b",
        "conductor" => "orange",
        "place" => "outdoor",
        "lands_on" => nil,
        "lies" => "capped"
      }
      wiring = { "version" => 9, "by" => "x", "at" => "2026-11-28T10:00:00Z", "content" => { "landings" => [landed] } }
      device.hold(row.merge("desks" => row["desks"].merge("wiring" => wiring)), readings, along)
      expect(device.ask("POST", "find", {})).to be_nil
      expect(device.ask("POST", "wiring", {}).dig("standing", "mark")).to eq("disagrees")
    end
  end

  # What waits on the device is judged there as it will be judged when it has arrived.
  it "holds a reading that waits against the circuit as the server will" do
    row, readings, along = take(visit_id)
    heat = { "call" => "heat", "switches" => {} }
    outdoor = { "function" => "volts_ac", "from_node" => "outdoor.C", "to_node" => "outdoor.Y" }
    given =
      [
        { **outdoor, "value" => 24, "instrument" => "high_impedance", "condition" => heat },
        {
          **outdoor,
          "value" => 3.2,
          "value_high" => 9,
          "about" => true,
          "instrument" => "low_impedance",
          "condition" => heat
        },
        {
          "function" => "ohms",
          "from_node" => "outdoor.C",
          "to_node" => "outdoor.Y",
          "open" => true,
          "isolated" => true,
          "instrument" => "ohmmeter",
          "condition" => heat
        },
        { "function" => "seen", "place" => "outdoor_fan", "choice" => "stands", "condition" => { "call" => "heat" } }
      ].map.with_index { |one, i| { "id" => uuid, "taken_at" => "2026-11-28T10:0#{i}:00.250Z", "note" => "", **one } }
    waits =
      given.map do |one|
        blank =
          readings
            .first
            .transform_values { nil }
            .merge("rig_revision_id" => "", "circuit" => "reference", "moment" => {})
        blank.merge(
          "about" => false,
          "open" => false,
          "isolated" => false,
          "visit_id" => row["id"],
          "received_at" => "2026-11-28T11:00:00Z",
          "taken_by" => "Local owner",
          **one
        )
      end
    device.hold(row, readings + waits, along)
    here = device.ask("GET", "readings", nil).fetch("readings")
    mark = device.ask("GET", "", nil)

    given.each do |one|
      send_json(:post, "/api/visits/#{visit_id}/readings", one)
      expect(last_response.status).to eq(201), last_response.body
    end
    there = server(visit_id, "GET", "readings", nil).fetch("readings")
    expect(here.map { |one| one.except("received_at") }).to eq(there.map { |one| one.except("received_at") })
    expect(mark).to eq(server(visit_id, "GET", "", nil))
  end

  it "puts the report of a visit together as it stands, and leaves a closing's own to the server" do
    signatures(visit_id)
    photo = uuid
    require "vips"
    picture = Vips::Image.black(60, 40).jpegsave_buffer
    header("CONTENT_TYPE", "image/jpeg")
    post("/api/visits/#{visit_id}/photos?photo_id=#{photo}&of=splice", picture, "HTTP_HOST" => "127.0.0.1")
    header("CONTENT_TYPE", nil)
    kept = {
      "cause" => "find",
      "done" => "New board.",
      "plain" => "It works.",
      "photos" => [photo],
      "leave_out" => ["readings"]
    }
    keep_desk("/api/visits/#{visit_id}", "close_out", kept)
    expect(last_response.status).to eq(200), last_response.body
    take(visit_id)
    here = device.ask("POST", "report", {})
    expect(here).to eq(server(visit_id, "POST", "report", {}))
    expect(here).to include("draft" => true, "leave_out" => ["readings"], "crew" => "Larkmere crew")
    expect(JSON.generate(here)).to include(photo)
    expect(device.ask("POST", "report", { "number" => 1 })).to be_nil
  end

  it "says why the core does not take a question, and stays up" do
    take(visit_id)
    expect(device.ask("POST", "trace", { "condition" => { "call" => "nap" } }).fetch("problem")).to include("nap")
    expect(device.ask("POST", "planner", {})).to be_nil
    expect(device.ask("POST", "trace", { "condition" => { "call" => "off" } })).to include("calls")
  end

  it "is packed in an order in which each file finds what it needs" do
    require_relative "../../bin/lib/pack_engine"
    pack = PackEngine.content
    expect(pack["files"].map(&:first)).to include("core/lib/gorvant.rb", "server/answers/device/device.rb")
    expect(pack["files"].map(&:last).grep(/^require_relative/)).to eq([])
    loader = File.read(File.join(DeviceBench::ROOT, "server/answers/device/load.rb"))
    Dir.mktmpdir do |folder|
      File.write(File.join(folder, "pack.json"), JSON.generate(pack))
      File.write(File.join(folder, "load.rb"), loader.gsub("/pack.json", File.join(folder, "pack.json")))
      says = "p DEVICE.class, Gorvant::Catalogue.calls.frozen?, $LOADED_FEATURES.grep(/psych/).size"
      clean = %w[RUBYOPT RUBYLIB BUNDLE_GEMFILE].to_h { |name| [name, nil] }
      out, = Open3.capture2e(clean, RbConfig.ruby, "--disable-gems", "-e", "load '#{folder}/load.rb'; #{says}")
      expect(out.lines.map(&:strip)).to eq(%w[Gorvant::Server::Device true 0])
    end
  end
end
