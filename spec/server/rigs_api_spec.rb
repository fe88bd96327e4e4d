# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"
require "open3"

RSpec.describe "Rigs over the API", :server do
  include_context "with the API's contract"

  let(:rig_row) { db[:rigs].where(name: "Boathouse library, north").first }
  let(:rig_path) { "/api/rigs/#{rig_row[:id]}" }

  def fact(value, source = "diagram") = { "value" => value, "provenance" => { "source" => source } }
  def compose(facts, **more) = send_json(:post, "/api/compositions", { name: "Kiln room", facts: facts }.merge(more))

  it "turns answers into a rig file and its drawing, and keeps nothing" do
    expect { compose({ "changeover" => fact("B"), "compressor_stages" => fact(2) }, call: "heat_2") }.not_to(
      change { db[:rigs].count }
    )
    expect(answer["asked"]).to include("stage_2")
    expect(answer["preview"]["scene"]["stations"].map { |station| station["id"] }).to include("Y2S", "outdoor.B")
    expect(Gorvant::Formats::RigJson.read(answer["rig"])["changeover"]).to eq("B")
  end

  it "falls back to off where the call makes no sense for the rig" do
    compose({}, call: "cool_2")
    expect(answer).to include("call" => "off")
  end

  {
    "an answer that is no choice" => [
      { "changeover" => { "value" => "X", "provenance" => { "source" => "diagram" } } },
      "/facts/changeover/value"
    ],
    "an unknown question" => [
      { "color" => { "value" => "red", "provenance" => { "source" => "diagram" } } },
      "/facts/color"
    ],
    "an answer without its source" => [{ "changeover" => { "value" => "B" } }, "/facts/changeover"]
  }.each do |name, (facts, field)|
    it "refuses #{name}" do
      compose(facts)
      expect([last_response.status, answer["errors"].map { |error| error["field"] }]).to eq([422, [field]])
    end
  end

  it "keeps hand-made landings when an answer changes" do
    fetch rig_path
    base = answer["content"]
    base["cables"][0]["conductors"].find { |one| one["id"] == "green" }["color"] = "pale green"
    compose(base["facts"].merge("backup" => fact("none")), base: base)
    indoor = answer["rig"]["cables"][0]["conductors"]
    expect(indoor.find { |one| one["id"] == "green" }["color"]).to eq("pale green")
    expect(indoor.map { |one| one["id"] }).not_to include("white")
    expect(answer["rig"]["jumpers"]).to eq([])
  end

  it "adds revisions, tells what each changed, and leaves earlier visits on theirs" do
    fetch rig_path
    file = answer["content"]
    file["facts"]["fuse_amps"]["value"] = 5
    send_json(:post, "#{rig_path}/revisions", { version: answer["version"], rig: file })
    expect([last_response.status, answer["revision"]]).to eq([201, 2])
    fetch "#{rig_path}/revisions"
    newest = answer["revisions"].first
    expect(newest["differences"]).to eq(
      [
        {
          "field" => "/facts/fuse_amps",
          "title" => "Low-voltage fuse",
          "before" => "3 A (measured)",
          "after" => "5 A (measured)"
        }
      ]
    )
    fetch "/api/visits/#{visit_id}"
    expect(answer["rig_revision"]).to eq(1)
  end

  it "gives a second editor both versions instead of overwriting the first" do
    fetch rig_path
    file = answer["content"]
    2.times { |i| send_json(:post, "#{rig_path}/revisions", { version: 1, rig: file.merge("note" => "editor #{i}") }) }
    expect([last_response.status, answer["current"]["content"]["note"], answer["given"]["content"]["note"]]).to eq(
      [409, "editor 0", "editor 1"]
    )
  end

  it "offers each rig its own faults" do
    codes =
      db[:rigs]
        .where(name: ["Boathouse library, north", "Quince Street bakery, shop"])
        .select_order_map(:id)
        .map do |id|
          fetch("/api/rigs/#{id}/faults")
          answer["faults"].map { |one| one["fault"]["at"] }.flatten
        end
    expect(codes.map { |all| [all.include?("HTR"), all.include?("Y2S")] }).to contain_exactly(
      [true, false],
      [false, true]
    )
  end

  it "offers every fault with its words, and traces each as it offers it" do
    fetch "#{rig_path}/faults"
    offers = answer["faults"]
    expect(offers.size).to be > 250
    expect(offers).to all(include("title", "is", "shows", "proof"))
    offers
      .sample(6, random: Random.new(5))
      .each do |offer|
        send_json(:post, "#{rig_path}/trace", { condition: { call: "heat", faults: [offer["fault"]] } })
        expect(answer["faults"]).to eq([offer["title"]])
        expect(answer["changes"]).to include("loads", "nodes")
      end
  end

  it "answers ohms with the power off, in circuit and alone" do
    ask = {
      condition: {
        call: "off"
      },
      from_node: "outdoor.CC.1",
      to_node: "outdoor.CC.2",
      instrument: "high_impedance",
      function: "ohms"
    }
    send_json(:post, "#{rig_path}/measurement", ask.merge(isolated: true))
    expect(answer).to include("ohms" => 12.0, "links" => ["CC"])
    send_json(:post, "#{rig_path}/measurement", ask.merge(from_node: "air_handler.R", to_node: "air_handler.C"))
    expect(answer["says"]).to include("secondary")
    send_json(:post, "#{rig_path}/measurement", ask.merge(from_node: "wall.cable_a.brown"))
    expect(answer["ohms"]).to be_nil
  end

  it "gives a deck that ngspice runs unchanged, what-if and all" do
    send_json(:post, "#{rig_path}/spice", { condition: { call: "cool", faults: [{ kind: "open", at: "CC" }] } })
    expect(last_response.headers["content-type"]).to start_with("text/plain")
    output, = Open3.capture2e("ngspice", "-b", "/dev/stdin", stdin_data: last_response.body)
    expect(output.scan(/^n\d+ = /).size).to be > 80
  end

  it "refuses a condition that this rig cannot have, field by field" do
    {
      { call: "heat", faults: [{ kind: "landed", at: "cable_a.blue@wall", to: "wall.Q" }] } => "/condition/faults/0/to",
      { call: "heat", faults: [{ kind: "set_up", at: "changeover", value: "B" }] } => "/condition/faults/0/at",
      { call: "heat", faults: [{ kind: "coil_shorted", at: "LPS" }] } => "/condition/faults/0/at",
      {
        call: "heat",
        faults: [{ kind: "high_resistance", at: "cable_a.red@wall", ohms: -1 }]
      } =>
        "/condition/faults/0/ohms",
      { call: "heat", faults: Array.new(81) { { kind: "open", at: "CC" } } } => "/condition/faults",
      { call: "heat", outputs: ["Y9"] } => "/condition/outputs",
      { call: "heat", board: { mood: true } } => "/condition/board/mood",
      { call: "heat", supplies: { outdoor: "off" } } => "/condition/supplies/outdoor",
      { call: "heat", switches: { LPS: "ajar" } } => "/condition/switches/LPS"
    }.each do |condition, field|
      send_json(:post, "#{rig_path}/trace", { condition: condition })
      expect([last_response.status, answer["errors"].map { |error| error["field"] }]).to eq([422, [field]])
    end
  end
end
