# frozen_string_literal: true

require_relative "../support/server"

# What is thrown away is out of sight, can be had back, and goes for good when it is told to or after thirty days.
RSpec.describe "The bin", :server do
  after { ServerBench.alone }

  let(:visit) { db[:visits].where(id: visit_id).first }
  let(:site_id) { db[:units].where(id: visit[:unit_id]).get(:site_id) }

  before { db[:audit_trail].delete } # what others wrote into it is theirs

  def listed = fetch("/api/visits") && answer["visits"].map { |row| row["id"] }
  def binned = fetch("/api/bin") && answer["binned"].map { |row| [row["kind"], row["title"]] }
  def trail = db[:audit_trail].order(:id).select_map(%i[kind about])

  {
    "visits" => lambda(&:visit_id),
    "units" => ->(bench) { bench.visit[:unit_id] },
    "sites" => lambda(&:site_id)
  }.each do |kind, id_of|
    it "takes #{kind} out of sight with what belongs to them, and gives all of it back" do
      id = id_of.call(self)
      before = listed
      readings = db[:readings].where(visit_id: visit_id).count
      send_json(:post, "/api/#{kind}/#{id}/bin", {})
      expect(last_response.status).to eq(200)
      title = answer["title"]
      expect(listed).to eq(before - [visit_id])
      ["", "/readings", "/history", "/rig"].each do |part|
        fetch("/api/visits/#{visit_id}#{part}")
        expect(last_response.status).to eq(404), part
      end
      send_json(:patch, "/api/visits/#{visit_id}", version: visit[:version], complaint: "late")
      expect(last_response.status).to eq(404)
      expect(binned).to eq([[kind, title]])
      send_json(:post, "/api/bin/#{kind}/#{id}/restoration", {})
      expect([last_response.status, listed, binned]).to eq([200, before, []])
      expect(db[:readings].where(visit_id: visit_id).count).to eq(readings)
      expect(trail).to eq([["binned", title], ["restored", title]])
    end
  end

  it "deletes for good what is in it, readings and photos too, and nothing that is not" do
    send_json(:post, "/api/bin/visits/#{visit_id}/deletion", {})
    expect([last_response.status, answer["detail"]]).to match([422, /not in the bin/])
    photo = { id: uuid, visit_id: visit_id, of: "other", width: 1, height: 1, content: Sequel.blob("x") }
    db[:photos].insert(**photo, small: Sequel.blob("x"), **visit.slice(:crew_id, :created_by))
    others = db[:readings].exclude(visit_id: visit_id).count
    2.times { send_json(:post, "/api/visits/#{visit_id}/bin", {}) }
    send_json(:post, "/api/bin/visits/#{visit_id}/deletion", {})
    expect(last_response.status).to eq(200)
    gone = %i[readings photos visit_desks].map { |table| db[table].where(visit_id: visit_id).count }
    expect([gone, db[:visits].where(id: visit_id).count, db[:readings].count]).to eq([[0, 0, 0], 0, others])
    expect(trail.map(&:first)).to eq(%w[binned deleted])
  end

  it "says that it knows no such kind or record, whatever is odd about either" do
    ["rigs/#{uuid}", "nothing/x", "#{uuid}/x", "visits/x", "visits/#{uuid}"].each do |odd|
      %w[restoration deletion].each do |what|
        send_json(:post, "/api/bin/#{odd}/#{what}", {})
        expect([odd, last_response.status]).to eq([odd, 404])
      end
    end
  end

  it "is emptied of what has lain there thirty days, crew by crew, and of nothing younger" do
    other = db[:visits].exclude(id: visit_id).get(:id)
    day = 86_400
    db[:visits].where(id: visit_id).update(binned_at: Time.now - (31 * day))
    db[:visits].where(id: other).update(binned_at: Time.now - (29 * day))
    worker = Gorvant::Server::Database.connect(as: :worker)
    Gorvant::Server::Worker.new(worker).tidy
    expect(db[:visits].where(id: [visit_id, other].compact).select_map(:id)).to eq([other])
  ensure
    worker&.disconnect
    Sequel.synchronize { Sequel::DATABASES.delete(worker) }
  end

  it "gives back a site and a unit by whose names a visit is begun, and not the visits that were thrown away" do
    send_json(:post, "/api/visits/#{visit_id}/bin", {})
    send_json(:post, "/api/sites/#{site_id}/bin", {})
    fetch("/api/sites")
    expect(answer["sites"].map { |row| row["id"] }).not_to include(site_id)
    body = { id: uuid, site_name: "Boathouse library", unit_name: "North unit", visit_on: "2026-11-29" }
    send_json(:post, "/api/visits", body.merge(rig_id: db[:rigs].get(:id)))
    expect(last_response.status).to eq(201)
    expect(listed).to include(body[:id])
    expect(listed).not_to include(visit_id)
    expect(binned.map(&:first)).to eq(["visits"])
  end

  it "begins no visit at a unit that lies in it" do
    send_json(:post, "/api/units/#{visit[:unit_id]}/bin", {})
    body = { id: uuid, unit_id: visit[:unit_id], rig_id: db[:rigs].get(:id), visit_on: "2026-11-29" }
    send_json(:post, "/api/visits", body)
    expect([last_response.status, answer["errors"].first["field"]]).to eq([404, "/unit_id"])
  end

  it "takes what was read in a cellar meanwhile, once, with how far the device's clock was off" do
    send_json(:post, "/api/visits/#{visit_id}/bin", {})
    reading = {
      id: uuid,
      function: "volts_ac",
      from_node: "outdoor.C",
      to_node: "outdoor.Y",
      value: 24.1,
      instrument: "high_impedance",
      condition: {
        call: "heat"
      },
      taken_at: "2026-11-28T10:00:00Z",
      moment: {
        device_ahead_seconds: 180.5
      }
    }
    2.times { send_json(:post, "/api/visits/#{visit_id}/readings", reading) }
    expect([last_response.status, answer["verdict"]]).to eq([200, "agrees"])
    fetch("/api/visits/#{visit_id}/readings")
    expect(last_response.status).to eq(404)
    send_json(:post, "/api/bin/visits/#{visit_id}/restoration", {})
    fetch("/api/visits/#{visit_id}/readings")
    mine = answer["readings"].select { |one| one["id"] == reading[:id] }
    expect(mine.map { |one| one.values_at("taken_at", "moment") }).to eq(
      [["2026-11-28T10:00:00Z", { "device_ahead_seconds" => 180.5 }]]
    )
    other = reading.merge(id: uuid, moment: { device_ahead_seconds: 1e12 })
    send_json(:post, "/api/visits/#{visit_id}/readings", other)
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/moment/device_ahead_seconds"])
  end
end
