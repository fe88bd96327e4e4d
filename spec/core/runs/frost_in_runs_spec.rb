# frozen_string_literal: true

require_relative "../../support/core"

# What frost does to a unit that runs: boards that ask for it, defrosts that take as long as there is ice.
RSpec.describe Gorvant::Run do
  def run(facts, hours, moves: [], **start)
    rig = Gorvant::Composer.compose(name: "Frost", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
    call = { "at_seconds" => 5, "what" => "call", "value" => "heat" }
    script = { "start" => start.transform_keys(&:to_s), "moves" => [call, *moves] }
    described_class.of(rig, Gorvant::Script.parse(script, hours * 3600))
  end

  def defrosts(timeline)
    timeline.signal("defrost").steps.each_cons(2).filter_map { |(from, on), (to, _)| to - from if on }
  end

  def at(timeline, curve, seconds)
    points = timeline.curves.find { |one| one.id == curve }.points
    after = points.index { |second, _value| second > seconds } || (points.size - 1)
    (from, value), (to, following) = points[after - 1], points[after]
    to == from ? following : value + ((following - value) * (seconds - from) / (to - from))
  end

  let(:clock) { { defrost_interval_minutes: 60, coil_switch_closes_degrees_f: 30, coil_switch_opens_degrees_f: 70 } }
  let(:demand) { { defrost_clock: "demand", sensing: "thermistors" } }
  let(:humid) { { outdoor_degrees_f: 34, humidity_percent: 90 } }
  let(:dry) { { outdoor_degrees_f: 34, humidity_percent: 35 } }

  it "takes the longer over a defrost the more has frozen, and a timer defrosts with nothing on the coil all the same" do
    wet, bare = [humid, dry].map { |air| defrosts(run(clock, 3, **air)) }
    expect([wet.size, bare.size]).to all(be >= 2)
    expect(wet.min).to be > bare.max * 2
  end

  it "warms the coil by hot gas too, where that is how it defrosts, and not where its solenoid is open" do
    facts = { board_family: "withy", **clock, defrost_limit_minutes: 14 }
    rules = ->(**broken) do
      fault = { "at_seconds" => 5, "what" => "fault", "of" => { "kind" => "open", "at" => "HGS" }, "value" => "begins" }
      ended = run(facts, 1.5, moves: broken[:open] ? [fault] : [], **humid).events
      ended.select { |event| event.signal == "defrost" && event.value == false && event.rule }.map(&:rule)
    end
    expect([rules.call, rules.call(open: true)]).to eq([["defrost_by_temperature"], ["defrost_by_time"]])
  end

  it "lets an air-pressure switch start it with ice and not without, and open as the fan stops" do
    facts = clock.merge(air_pressure_switch: true)
    wet = run(facts, 3, **humid)
    begun = wet.events.find { |event| event.signal == "defrost" && event.value == true }
    expect(at(wet, "frost", begun.seconds)).to be > 2.0
    expect(begun.rule_says).to include("frost blocks the air")
    closed = wet.events.find { |event| event.signal == "APS" && event.value == true }
    opened = wet.events.find { |event| event.signal == "APS" && event.value == false && event.id > closed.id }
    expect([closed.rule, opened.rule, opened.seconds]).to eq(["air_blocked", "air_stands", begun.seconds])
    expect(defrosts(run(facts, 3, **dry))).to eq([])
  end

  it "has a hand on the air-pressure switch say the last word" do
    held = { "at_seconds" => 5, "what" => "switch", "of" => "APS" }
    facts = clock.merge(air_pressure_switch: true)
    expect(defrosts(run(facts, 2, moves: [held.merge("value" => "closed")], **dry)).size).to be >= 1
    expect(defrosts(run(facts, 3, moves: [held.merge("value" => "open")], **humid))).to eq([])
  end

  it "lets a demand board start by frost in wet cold, by its longest interval in dry, and never on a coil over 32" do
    rules = ->(air) { run(demand, 5, **air).events.select { |one| one.signal == "defrost" && one.value }.map(&:rule) }
    expect(rules.call(humid)).to all(eq("defrost_demanded")).and(have_attributes(size: be >= 3))
    expect(rules.call(dry)).to eq(["defrost_backstop"])
    expect(rules.call(outdoor_degrees_f: 50, humidity_percent: 90)).to eq([])
  end

  it "has frost among what a first look shows where the board asks for it, and lanes of what is fitted alone" do
    plain, air, asks = [clock, clock.merge(air_pressure_switch: true), demand].map { |facts| run(facts, 0.1, **humid) }
    expect([plain, air, asks].map { |one| one.first_curves.include?("frost") }).to eq([false, true, true])
    expect([plain, air].map { |one| one.first_lanes.include?("APS") }).to eq([false, true])
    expect(air.first_lanes - air.signals.map(&:id)).to eq([])
  end

  it "begins with the frost of the minutes that were counted, or with what is given" do
    before = ->(**start) { at(run(clock, 0.1, **humid, **start), "frost", 0) }
    expect(before.call).to eq(0)
    expect(before.call(defrost_counted_minutes: 50)).to be_within(0.2).of(at(run(clock, 1, **humid), "frost", 3000))
    expect(before.call(defrost_counted_minutes: 50, frost_kg: 4.5)).to eq(4.5)
  end

  it "keeps a typed coil where it is typed with frost growing on it, and goes on from there once it is let go" do
    free = { "at_seconds" => 1800, "what" => "coil", "value" => "free" }
    timeline = run(clock.merge(defrost_interval_minutes: 90), 1, moves: [free], coil_degrees_f: 12, **humid)
    expect([at(timeline, "coil", 600), at(timeline, "coil", 1800)]).to all(be_within(0.05).of(12))
    expect(at(timeline, "frost", 1800)).to be > at(timeline, "frost", 600)
    expect(at(timeline, "coil", 1801)).to be_between(12, 14)
    expect(at(timeline, "coil", 1950)).to be > 18
  end

  {
    { "humidity_percent" => 0 } => ["/script/start/humidity_percent", "1 to 100 percent"],
    { "wind_mph" => "strong" } => ["/script/start/wind_mph", "0 to 60 mph"],
    { "frost_kg" => -1 } => ["/script/start/frost_kg", "0 to 20 kg"],
    { "rain" => "yes" } => ["/script/start/rain", "true or false"]
  }.each do |start, (field, right)|
    it "refuses #{start}" do
      expect { Gorvant::Script.parse({ "start" => start }, 60) }.to raise_error(Gorvant::BadScript) { |error|
        expect([error.field, error.message]).to match([field, include(right)])
      }
    end
  end
end
