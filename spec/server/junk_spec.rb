# frozen_string_literal: true

require_relative "../support/server"

# What nobody should send: a good body with something in it turned to junk. Whatever comes, the answer is one of ours:
# never a 500, a refusal in problem details that says something, and a visit that is still there.
RSpec.describe "Junk in a body", :server do
  def visit = "/api/visits/#{visit_id}"

  # The visit's own: another rig may lack what the bodies name.
  def rig_path
    rigs = db[:visits].join(:rig_revisions, id: :rig_revision_id).where(Sequel[:visits][:id] => visit_id)
    "/api/rigs/#{rigs.get(:rig_id)}"
  end

  def version = db[:visits].where(id: visit_id).get(:version)

  def condition
    {
      "call" => "heat",
      "switches" => {
        "DTS" => "open"
      },
      "supplies" => {
        "outdoor" => true
      },
      "faults" => [{ "kind" => "open", "at" => "DTS" }],
      "board" => {
        "defrost" => true
      }
    }
  end

  def found
    {
      "landings" => [
        {
          "cable" => "cable_a",
          "conductor" => "orange",
          "place" => "wall",
          "lands_on" => "G",
          "lies" => "landed",
          "color" => "red"
        }
      ],
      "jumpers" => [],
      "settings" => {
        "changeover_setup" => "B"
      }
    }
  end

  def script
    {
      "start" => {
        "outdoor_degrees_f" => 30,
        "house" => false
      },
      "moves" => [
        { "at_seconds" => 5, "what" => "call", "value" => "heat" },
        { "at_seconds" => 9, "what" => "coil", "value" => 20, "over_seconds" => 5 }
      ]
    }
  end

  def test_record
    {
      "marks" => {
        "bridge_on" => 2,
        "fan_off" => 16
      },
      "answers" => {
        "fan" => true
      },
      "readings" => {
        "fan_amps" => 0.1
      },
      "tally" => {
        "bridge" => "off"
      },
      "counted_minutes" => 3,
      "fresh" => false
    }
  end

  # { what => [method, path, body] }, each taken as it stands.
  def good
    {
      "trace" => [:post, "#{visit}/trace", { condition: condition }],
      "measurement" => [
        :post,
        "#{visit}/measurement",
        { condition: condition, from_node: "outdoor.C", to_node: "outdoor.Y", instrument: "high_impedance" }
      ],
      "reading" => [
        :post,
        "#{visit}/readings",
        {
          id: uuid,
          condition: condition,
          from_node: "outdoor.C",
          to_node: "outdoor.Y",
          instrument: "high_impedance",
          function: "volts_ac",
          value: 24.1,
          taken_at: "2026-11-24T10:00:00Z"
        }
      ],
      "drawing" => [:post, "#{visit}/drawing", { condition: condition, view: "ladder" }],
      "way" => [:post, "#{visit}/way", { condition: condition, from_node: "outdoor.C", to_node: "outdoor.Y" }],
      "timeline" => [:post, "#{visit}/timeline", { script: script, duration_seconds: 60 }],
      "why" => [:post, "#{visit}/why", { script: script, duration_seconds: 60, signal: "CC", at_seconds: 30 }],
      "visit" => [:patch, visit, { version: version, complaint: "Cold" }],
      "wiring_desk" => [:put, "#{visit}/desks/wiring", { version: 0, content: found.slice("landings", "jumpers") }],
      "thermostat_desk" => [
        :put,
        "#{visit}/desks/thermostat",
        {
          version: 0,
          content: {
            "settings" => {
              "stage_delay_minutes" => 12
            },
            "bench" => {
              "heat-1" => %w[Y G],
              "cool-1" => {
                "not_run" => "cold"
              }
            },
            "labels" => {
              "changeover_setup" => "12"
            }
          }
        }
      ],
      "defrost_desk" => [
        :put,
        "#{visit}/desks/defrost",
        {
          version: db[:visit_desks].where(visit_id: visit_id, desk: "defrost").get(:version) || 0,
          content: {
            "moment" => {
              "call" => "heat",
              "coil_degrees_f" => 24
            },
            "test" => test_record
          }
        }
      ],
      "wiring" => [:post, "#{visit}/wiring", { as_found: found }],
      "landings" => [
        :post,
        "#{visit}/landings",
        { text: "place,cable,conductor,color,lands_on\nwall,cable_a,orange,,G\n" }
      ],
      "settings" => [:post, "#{visit}/settings", { settings: { "changeover_setup" => "B" } }],
      "staging" => [:post, "#{visit}/staging", { script: script, duration_seconds: 600 }],
      "outlook" => [
        :post,
        "#{visit}/defrost/outlook",
        { call: "heat", coil_degrees_f: 24, counted_minutes: 20, outdoor_degrees_f: 34 }
      ],
      "schools" => [
        :post,
        "#{visit}/defrost/schools",
        { history: { "minutes" => 100, "fed" => "0-40, 50-", "cold" => "always" }, seen: [60] }
      ],
      "forced test" => [:post, "#{visit}/defrost/forced_test", { test: test_record }],
      "coil switch" => [
        :post,
        "#{visit}/defrost/coil_switch",
        { closes_degrees_f: 28, opens_degrees_f: 68, points: [{ degrees_f: 20, state: "closed" }] }
      ],
      "thermistor" => [
        :post,
        "#{visit}/defrost/thermistor",
        {
          table_id: Gorvant::ThermistorTable.all.first.id,
          points: [{ degrees_f: 40, ohms: 20_000 }],
          pair: {
            coil_degrees_f: 40,
            air_degrees_f: 41
          }
        }
      ],
      "sensor table" => [
        :post,
        "/api/sensor_tables",
        { name: "Mill", text: "degrees_f,ohms\n0,9000\n20,6000\n40,4000\n60,2500\n", tolerance_degrees_f: 2 }
      ],
      "setting profile" => [
        :post,
        "/api/setting_profiles",
        { id: uuid, name: "Mill", labels: { "changeover_setup" => "4" } }
      ],
      "composition" => [
        :post,
        "/api/compositions",
        {
          name: "Mill",
          facts: {
            "changeover" => {
              "value" => "B",
              "provenance" => {
                "source" => "measured"
              }
            }
          },
          call: "heat"
        }
      ],
      "rig" => [:post, "/api/rigs", { id: uuid, rig: rig_file }],
      "notation" => [
        :post,
        "/api/notations",
        { name: "Mill", text: "R > wall.Y > air_handler.Y > outdoor.Y > LPS > (CC) > C" }
      ],
      "temperatures" => [:post, "/api/courses", { text: "seconds,outdoor\n0,30\n60,31\n" }],
      "deck" => [:post, "#{rig_path}/spice", { condition: condition }]
    }
  end

  let(:junk) do
    [
      nil,
      true,
      -1,
      0,
      1e300,
      10**30,
      "",
      " ",
      "x" * 5000,
      "\u202Eabc",
      "wall.Y",
      "2026-99-99",
      [],
      {},
      [[]],
      [nil],
      { "a" => {} },
      ["x"] * 500,
      "=1+1",
      "'; DROP TABLE visits; --"
    ]
  end

  # Every place in a body, as a list of keys.
  def places(body, so_far = [])
    inner =
      case body
      when Hash
        body.flat_map { |key, value| places(value, so_far + [key]) }
      when Array
        body.each_with_index.flat_map { |value, i| places(value, so_far + [i]) }
      else
        []
      end
    [so_far, *inner]
  end

  def with_junk(body, place, odd)
    return odd if place.empty?

    copy = body.dup
    copy[place.first] = with_junk(body[place.first], place.drop(1), odd)
    copy
  end

  it "takes every body as it stands" do
    refused =
      good.filter_map do |what, (method, path, body)|
        send_json(method, path, body)
        "#{what}: #{last_response.body[0, 400]}" unless last_response.successful?
      end
    expect(refused.join("\n")).to eq("")
  end

  [
    "trace",
    "measurement",
    "reading",
    "drawing",
    "way",
    "timeline",
    "why",
    "visit",
    "wiring",
    "landings",
    "settings",
    "staging",
    "outlook",
    "schools",
    "coil switch",
    "thermistor",
    "sensor table",
    "setting profile",
    "composition",
    "rig",
    "notation",
    "temperatures",
    "deck",
    "forced test"
  ].each do |what|
    it "of #{what} is refused in words, or does no harm" do
      random = Random.new(what.sum)
      method, path, body = JSON.parse(JSON.generate(good.fetch(what))).then { |verb, *rest| [verb.to_sym, *rest] }
      places(body)
        .drop(1)
        .product(junk)
        .sample(25, random: random)
        .each do |place, odd|
          body = body.merge("version" => version) if body.key?("version")
          send_json(method, path, with_junk(body, place, odd))
          about = "#{place.join("/")} = #{odd.inspect[0, 60]}: #{last_response.status} #{last_response.body[0, 300]}"
          expect(last_response.status).to be < 500, about
          next if last_response.successful?

          expect(last_response.headers["content-type"]).to include("application/problem+json"), about
          expect([answer["title"], answer["detail"]].compact.join).not_to be_empty
        end
      fetch(visit)
      expect(last_response.status).to eq(200)
    end
  end
end
