# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

# Two at once, the same thing sent again, a database that goes away: one winner, nothing lost, nothing told that is not
# so.
RSpec.describe "Standing firm", :server do
  include_context "with the API's contract"

  def visit = "/api/visits/#{visit_id}"
  def version = db[:visits].where(id: visit_id).get(:version)
  def rig_content = fetch("#{visit}/rig") && answer["content"]
  def fact(value, key = "transformer_va") = { key => { "value" => value, "provenance" => { "source" => "measured" } } }
  def with_fact(content, *facts) = content.merge("facts" => content["facts"].merge(*facts))

  # Each in a thread and a client of its own; [status] in order.
  def at_once(requests)
    gate = Queue.new
    cookie = ServerBench.cookie
    threads =
      requests.map do |method, path, body|
        Thread.new do
          client = Rack::MockRequest.new(app)
          gate.pop
          client.request(
            method,
            path,
            :input => JSON.generate(body),
            "CONTENT_TYPE" => "application/json",
            "HTTP_HOST" => "127.0.0.1",
            "HTTP_COOKIE" => cookie,
            "HTTP_X_CSRF_TOKEN" => ServerBench::TOKEN
          )
        end
      end
    requests.size.times { gate << true }
    threads.map(&:value)
  end

  def sibling
    send_json(
      :post,
      "/api/visits",
      id: uuid,
      unit_id: fetch(visit) && answer["unit_id"],
      as_visit_id: visit_id,
      visit_on: "2026-11-26"
    )
    answer.slice("id", "version", "rig_revision")
  end

  describe "what is fitted" do
    it "is not undone by an edit of an older revision from another visit: both are told, and what does not touch is put together" do
      other, content = sibling, rig_content
      send_json(:post, "/api/visits/#{other["id"]}/fitted", version: 1, revision: 1, rig: with_fact(content, fact(60)))
      expect(last_response.status).to eq(201)
      send_json(:post, "#{visit}/fitted", version: version, revision: 1, rig: with_fact(content, fact(5, "fuse_amps")))
      expect([last_response.status, answer["current_version"]]).to eq([409, 2])
      expect(answer["theirs"].map { |one| one["title"] }).to eq(["Transformer"])
      expect(answer["both"]).to eq([])
      expect(
        answer["merged"]["facts"].slice("transformer_va", "fuse_amps").transform_values { |one| one["value"] }
      ).to eq("transformer_va" => 60, "fuse_amps" => 5)
      send_json(:post, "#{visit}/fitted", version: version, revision: 2, rig: answer["merged"])
      expect([last_response.status, answer["rig_revision"]]).to eq([201, 3])
    end

    it "names what both touched, and lets neither win by itself" do
      other, content = sibling, rig_content
      send_json(:post, "/api/visits/#{other["id"]}/fitted", version: 1, revision: 1, rig: with_fact(content, fact(60)))
      send_json(:post, "#{visit}/fitted", version: version, revision: 1, rig: with_fact(content, fact(75)))
      expect([last_response.status, answer["merged"]]).to eq([409, nil])
      expect(answer["both"].map { |one| one.values_at("title", "before", "after") }).to eq(
        [["Transformer", "60 VA (measured)", "75 VA (measured)"]]
      )
      expect(
        answer.values_at("mine_stands", "theirs_stand").map { |rig| rig["facts"]["transformer_va"]["value"] }
      ).to eq([75, 60])
      send_json(:post, "#{visit}/fitted", version: version, revision: 9, rig: content)
      expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/revision"])
    end

    it "has one winner and conflicts for the rest when many change it at once, from the visit and from the library" do
      content, rig_id = rig_content, fetch(visit) && answer["rig_id"]
      now, rig_version = version, db[:rigs].where(id: rig_id).get(:version)
      fitted =
        Array.new(6) do |i|
          ["POST", "#{visit}/fitted", { version: now, revision: 1, rig: with_fact(content, fact(50 + i)) }]
        end
      revised =
        Array.new(6) do |i|
          ["POST", "/api/rigs/#{rig_id}/revisions", { version: rig_version, rig: with_fact(content, fact(60 + i)) }]
        end
      answers = at_once((fitted + revised).shuffle(random: Random.new(3)))
      expect(answers.map(&:status).tally).to eq(201 => 1, 409 => 11)
      expect(db[:rig_revisions].where(rig_id: rig_id).select_order_map(:number)).to eq([1, 2])
      fetch(visit)
    end
  end

  it "keeps a changed rig once when it is sent again, since its first answer was lost" do
    content, now = rig_content, version
    rig_id = fetch(visit) && answer["rig_id"]
    2.times { send_json(:post, "#{visit}/fitted", version: now, revision: 1, rig: with_fact(content, fact(60))) }
    expect([last_response.status, answer["rig_revision"], answer["version"]]).to eq([201, 2, now + 1])
    send_json(:post, "#{visit}/fitted", version: now, revision: 1, rig: with_fact(content, fact(75)))
    expect(last_response.status).to eq(409)
    at = db[:rigs].where(id: rig_id).get(:version)
    2.times { send_json(:post, "/api/rigs/#{rig_id}/revisions", version: at, rig: with_fact(content, fact(90))) }
    expect([last_response.status, answer["revision"]]).to eq([201, 3])
    send_json(:post, "/api/rigs/#{rig_id}/revisions", version: at, rig: with_fact(content, fact(91)))
    expect([last_response.status, db[:rig_revisions].where(rig_id: rig_id).count]).to eq([409, 3])
  end

  describe "one row" do
    it "is made of a site, a unit, a profile and a table by any number at once" do
      rig_id = db[:rigs].get(:id)
      visits =
        Array.new(6) do
          [
            "POST",
            "/api/visits",
            { id: uuid, site_name: "Reed mill", unit_name: "Loft unit", rig_id: rig_id, visit_on: "2026-11-26" }
          ]
        end
      profiles =
        Array.new(4) do
          ["POST", "/api/setting_profiles", { id: uuid, name: "Mill", labels: { changeover_setup: "4" } }]
        end
      tables =
        Array.new(4) do
          [
            "POST",
            "/api/sensor_tables",
            { id: uuid, name: "Mill", text: "degrees_f,ohms\n0,9000\n20,6000\n40,4000\n60,2500\n", keep: true }
          ]
        end
      answers = at_once(visits + profiles + tables)
      expect(answers.first(6).map(&:status)).to eq([201] * 6)
      expect([answers[6, 4], answers[10, 4]].map { |some| some.map(&:status).sort }).to eq([[201, 422, 422, 422]] * 2)
      expect(
        [
          db[:sites].where(name: "Reed mill").count,
          db[:units].where(name: "Loft unit", site_id: db[:sites].where(name: "Reed mill").select(:id)).count
        ]
      ).to eq([1, 1])
      expect([db[:setting_profiles].count, db[:sensor_tables].count]).to eq([1, 1])
      fetch(visit)
    end

    it "is made by a request sent again in another key order, in capitals, with 24 for 24.0; and not by another one" do
      id = uuid
      body = {
        id: id,
        from_node: "outdoor.C",
        to_node: "outdoor.Y",
        function: "volts_ac",
        value: 24,
        instrument: "high_impedance",
        condition: {
          call: "heat"
        },
        taken_at: "2026-11-26T10:00:00Z"
      }
      send_json(:post, "#{visit}/readings", body)
      expect(last_response.status).to eq(201)
      [body.to_a.reverse.to_h, body.merge(id: id.upcase), body.merge(value: 24.0)].each do |again|
        send_json(:post, "#{visit}/readings", again)
        expect(last_response.status).to eq(200)
      end
      send_json(:post, "#{visit}/readings", body.merge(value: 24.1))
      expect(last_response.status).to eq(409)
      expect(db[:readings].where(id: id).count).to eq(1)
    end

    it "changed twice by the same change, since its answer was lost, is as it is; by another it is a conflict" do
      now = version
      2.times { send_json(:patch, visit, version: now, complaint: "Hums") }
      expect([last_response.status, answer["version"]]).to eq([200, now + 1])
      desk = answer["desks"]["defrost"]["version"]
      2.times { keep_desk(visit, "defrost", { "moment" => { "call" => "heat" } }, version: desk) }
      expect([last_response.status, answer["desks"]["defrost"]["version"]]).to eq([200, desk + 1])
      send_json(:patch, visit, version: now, complaint: "Hums and stops")
      expect([last_response.status, answer["current"]["complaint"]]).to eq([409, "Hums"])
    end
  end

  describe "the list of visits" do
    it "comes page by page, each visit once, in one order, while others are made; and an odd place in it is refused" do
      unit = fetch(visit) && answer["unit_id"]
      revision_id = db[:visits].where(id: visit_id).get(:rig_revision_id)
      viewer = Gorvant::Server::Viewer.local_owner(db)
      rows =
        Array.new(120) do |i|
          {
            crew_id: viewer.crew_id,
            created_by: viewer.user_id,
            unit_id: unit,
            rig_revision_id: revision_id,
            request_digest: "x",
            visit_on: Date.new(2026, 9, 1) + (i % 40),
            id: uuid,
            symptoms: Sequel.pg_jsonb([])
          }
        end
      db[:visits].multi_insert(rows)
      seen, at, sizes = [], nil, []
      loop do
        fetch("/api/visits#{"?before=#{URI.encode_www_form_component(at)}" if at}")
        seen.concat(answer["visits"].map { |one| one.values_at("visit_on", "id") })
        sizes << answer["visits"].size
        # Newer than where the reader stands.
        db[:visits].insert(rows.first.merge(id: uuid, visit_on: Date.new(2026, 12, 1)))
        break unless (at = answer["next"])
      end
      expect(sizes).to eq([50, 50, 31])
      expect(seen.uniq.size).to eq(131)
      expect(seen.map(&:first)).to eq(seen.map(&:first).sort.reverse)
      ["x", "2026-99-99_2026-11-26T10:00:00.000000Z_#{uuid}", "2026-11-26_#{uuid}"].each do |odd|
        fetch("/api/visits?before=#{odd}")
        expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/before"])
      end
    end
  end

  { "nothing" => "", "spaces" => "   ", "what cannot be seen" => "\u200b\u2060 \u3164" }.each do |what, name|
    it "has no site, unit, profile or table that is called #{what}" do
      base = { id: uuid, site_name: "Mill", unit_name: "Loft", rig_id: db[:rigs].get(:id), visit_on: "2026-11-26" }
      [
        ["/api/visits", base.merge(site_name: name), "/site_name"],
        ["/api/visits", base.merge(unit_name: name), "/unit_name"],
        ["/api/setting_profiles", { id: uuid, name: name, labels: {} }, "/name"],
        ["/api/rigs", { id: uuid, rig: rig_file.merge("name" => name.empty? ? " " : name) }, "/rig/name"],
        ["/api/compositions", { name: name, facts: {} }, "/name"],
        ["/api/sensor_tables", { name: name, text: "degrees_f,ohms\n0,1\n" }, "/name"]
      ].each do |path, body, field|
        send_json(:post, path, body)
        expect([last_response.status, answer["errors"].map { |one| one["field"] }]).to eq([422, [field]])
      end
    end
  end
end
