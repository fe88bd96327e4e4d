# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"
require "rexml/document"

RSpec.describe "Drawings and rungs over the API", :server do
  include_context "with the API's contract"

  let(:rig_path) { "/api/rigs/#{db[:rigs].where(name: "Boathouse library, north").get(:id)}" }
  let(:heat) { { call: "heat", switches: { DTS: "open" } } }

  %w[loops ladder connections focus].each do |view|
    it "draws #{view} as data and as SVG" do
      body = { condition: heat, view: view }.merge(view == "focus" ? { load: "CC" } : {})
      send_json(:post, "#{rig_path}/drawing", body)
      dts = answer["stations"].find { |station| station["part"] == "DTS" }
      expect(dts).to include("closed" => false, "broken" => true, "state" => "live", "far_state" => "dead")
      send_json(:post, "#{rig_path}/svg", body)
      expect(last_response.headers["content-type"]).to start_with("image/svg+xml")
      expect(REXML::Document.new(last_response.body).root.name).to eq("svg")
    end
  end

  it "puts a visit's standing readings over the loop that they were taken on" do
    send_json(:post, "/api/visits/#{visit_id}/drawing", { condition: { call: "heat" }, view: "focus", load: "CC" })
    taken = answer["labels"].select { |label| label["role"] == "taken" }.map { |label| label["text"] }
    expect(taken).to include(a_string_ending_with("="), a_string_ending_with("≠"))
  end

  # [path, body, field]
  [
    ["drawing", { condition: { call: "heat" }, view: "photo" }, "/view"],
    ["drawing", { condition: { call: "heat" }, view: "focus" }, "/load"],
    ["drawing", { condition: { call: "heat" }, view: "loops", opened: ["everything"] }, "/opened/0"],
    ["drawing", { condition: { call: "warm" }, view: "loops" }, "/condition/call"],
    ["drawing", { condition: { call: "heat" }, view: "focus", load: "Y2S" }, "/load"],
    ["svg", { condition: { call: "heat" }, view: "focus", load: "COMP.start" }, "/load"],
    ["trace", { condition: { call: "heat" }, drawing: { view: "focus", load: "LPS" } }, "/drawing/load"],
    [
      "measurement",
      { condition: { call: "heat" }, instrument: "high_impedance", from_node: "outdoor.C", to_node: "attic.Y" },
      "/to_node"
    ],
    ["way", { condition: { call: "heat" }, to_node: "outdoor.Y", from_node: "outdoor.nowhere" }, "/from_node"],
    ["way", { condition: { call: "heat" } }, "/to_node"]
  ].each do |path, body, field|
    it "refuses #{body.to_json[0, 70]}" do
      send_json(:post, "#{rig_path}/#{path}", body)
      expect([last_response.status, answer["errors"].map { |error| error["field"] }]).to eq([422, [field]])
    end
  end

  it "refuses a loop that the rig lacks" do
    send_json(:post, "#{rig_path}/drawing", { condition: { call: "heat" }, view: "focus", load: "Y2S" })
    expect([last_response.status, answer["detail"]]).to match([422, /Y2S/])
  end

  it "gives the legend of the rig in hand, and the way between two points" do
    send_json(:post, "#{rig_path}/legend", { condition: heat })
    expect(answer["entries"].find { |entry| entry["code"] == "DTS" }).to include("now" => "open", "rest" => "closed")
    send_json(:post, "#{rig_path}/way", { condition: heat, to_node: "outdoor.board.T1" })
    expect(answer).to include("found" => true, "says" => "Open at DTS.")
    send_json(:post, "#{rig_path}/way", { condition: heat, to_node: "outdoor.nowhere" })
    expect(last_response.status).to eq(422)
  end

  it "prints a rig as rungs, reads them back and compares them with the archetype and another rig, keeping nothing" do
    fetch "#{rig_path}/notation"
    text = answer["text"].sub("LPS > DTS > HPS", "LPS > HPS > DTS")
    other = db[:rigs].where(name: "Quince Street bakery, shop").get(:id)
    expect do
      send_json(
        :post,
        "/api/notations",
        { text: text, name: "Panel", call: "heat", view: "ladder", panel: true, against: "archetype" }
      )
    end.not_to(change { db[:rigs].count })
    changed = answer["comparison"]["rungs"].reject { |rung| rung["same"] }
    expect(changed.map { |rung| rung["code"] }).to eq(["CC"])
    expect(changed[0]["before_scene"]["stations"].map { |station| station["part"] }).to include("DTS")
    expect(answer["rig"]["facts"]["safeties"]).to include(
      "value" => %w[LPS HPS DTS],
      "provenance" => {
        "source" => "diagram"
      }
    )
    send_json(:post, "/api/notations", { text: text, name: "Panel", against: other })
    expect(answer["comparison"]["rungs"].count { |rung| !rung["same"] }).to be > 3
  end

  it "names line, column and word of what cannot be read" do
    send_json(:post, "/api/notations", { text: "R > wall.Y > LSP > (CC) > C", name: "Panel" })
    expect(last_response.status).to eq(422)
    expect(answer["errors"].first).to include(
      "field" => "/text",
      "line" => 1,
      "column" => 14,
      "word" => "LSP",
      "suggestion" => "LPS"
    )
    send_json(:post, "/api/notations", { text: "R > (BOARD) > C", name: "Panel", against: uuid })
    expect(last_response.status).to eq(404)
    send_json(:post, "/api/notations", { text: "x" * 50_000, name: "Panel" })
    expect([last_response.status, answer["errors"].map { |error| error["field"] }]).to eq([422, ["/text"]])
  end
end
