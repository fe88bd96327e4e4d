# frozen_string_literal: true

require_relative "../support/server"
require_relative "../support/contract"

RSpec.describe "Runs over the API", :server do
  include_context "with the API's contract"

  let(:path) { "/api/visits/#{visit_id}" }
  let(:script) { { start: { outdoor_degrees_f: 30 }, moves: [{ at_seconds: 5, what: "call", value: "heat" }] } }

  def ask(question, **more) =
    send_json(:post, "#{path}/#{question}", { script: script, duration_seconds: 7200 }.merge(more))

  it "runs a visit's rig over time, and every instant can be drawn" do
    ask("timeline")
    expect(answer["events"].map { |event| event["says"] }).to include(
      "Compressor on",
      "Board: defrost begins",
      "Valve moves to cooling"
    )
    expect(answer["refrigerant"].map { |one| one["hot"] }).to include("indoor", "outdoor")
    condition = answer["conditions"][answer["instants"].last[1]]
    send_json(:post, "#{path}/drawing", { condition: condition, view: "loops" })
    expect(last_response.status).to eq(200)
    send_json(:post, "#{path}/trace", { condition: condition })
    expect(answer["loads"].find { |load| load["code"] == "COMP" }["on"]).to be(true)
  end

  it "sends of a stretch what its width can show" do
    ask("timeline", duration_seconds: 86_400, from_seconds: 3600.0, to_seconds: 7200.0, width: 400)
    expect(answer.values_at("from_seconds", "to_seconds")).to eq([3600.0, 7200.0])
    expect(answer["signals"]).to all(
      satisfy { |signal| signal["steps"].size <= 801 && signal["steps"].all? { |at, _value| at.between?(3600, 7200) } }
    )
    expect(answer["curves"]).to all(
      satisfy { |curve| [curve["points"].first[0], curve["points"].last[0]] == [3600.0, 7200.0] }
    )
  end

  it "says why, and when it will be otherwise" do
    ask("why", signal: "HTR", at_seconds: 3610.0)
    expect(answer["links"].map { |link| link["rule_says"] }).to include("sequencer heating up")
    expect(answer["next_on"]).to include("signal" => "HTR", "in_seconds" => be_between(1, 60))
    ask("why", signal: "Q", at_seconds: 1.0)
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/signal"])
  end

  it "gives the run as VCD and as CSV" do
    ask("vcd")
    expect(last_response.body).to start_with("$comment")
    ask("events")
    expect(last_response.body.lines.first).to start_with("number,seconds,time")
  end

  it "gives it in a format that has come since, at the rig and at the visit, without being told of it" do
    stub_const(
      "Gorvant::Formats::Tally",
      Module.new do
        def self.dump(timeline) = timeline.events.map(&:signal).tally.map { |one| one.join(" ") }.join("\n")
      end
    )
    Gorvant::Formats::Tally.const_set(:OF_RUN, { path: "tally", type: "text/plain" })
    resource = Class.new(Gorvant::Server::Resource) { circuit_routes("/api/anything", :rigs) }
    answers = resource.routes["POST"].map { |pattern, *| pattern.match("/api/anything/one/tally") }
    expect(answers.compact.map { |match| match["id"] }).to eq(["one"])
    ask("vcd")
    expect([last_response.status, last_response.content_type]).to match([200, start_with("text/plain")])
  end

  it "reads temperatures from CSV, or names the line that is wrong" do
    send_json(:post, "/api/courses", { text: "minutes,outdoor\n0,35\n30,20\n" })
    expect(answer["moves"].last).to include("value" => 20.0, "over_seconds" => 1800.0)
    send_json(:post, "/api/courses", { text: "minutes,outdoor\n0,cold\n" })
    expect([last_response.status, answer["errors"].first["problem"]]).to match([422, /line 2/])
  end

  it "refuses times that go back, and durations that are none" do
    send_json(
      :post,
      "#{path}/timeline",
      {
        script: {
          moves: [{ at_seconds: 9, what: "call", value: "heat" }, { at_seconds: 3, what: "call", value: "off" }]
        },
        duration_seconds: 100
      }
    )
    expect([last_response.status, answer["errors"].first]).to match(
      [422, include("field" => "/script/moves/1/at_seconds", "problem" => /goes back/)]
    )
    ask("timeline", duration_seconds: -3)
    expect([last_response.status, answer["errors"].first["field"]]).to eq([422, "/duration_seconds"])
  end
end
