# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::KnownGood do
  fitted = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  read = ->(
    value,
    from: "outdoor.C",
    to: "outdoor.Y",
    call: "heat",
    verdict: "agrees",
    function: "volts_ac",
    place: nil
  ) do
    points =
      (
        if function == "volts_ac"
          { from_node: from, to_node: to, instrument: "high_impedance" }
        else
          { place: place, instrument: "clamp" }
        end
      )
    Gorvant::VisitRead.new(
      id: [value, to, place].join,
      observation:
        Gorvant::Observation.new(function: function, amount: Gorvant::Amount.new(low: value, high: value), **points),
      condition: Gorvant::Condition.new(call: call),
      at: "2026-11-29T09:00:00Z",
      verdict: verdict
    )
  end
  supply = ->(value) { read.call(value, to: "outdoor.R") }
  amps = ->(value) { read.call(value, function: "amps_ac", place: "OFM") }
  record = ->(*reads, outdoor: 40.0) { Gorvant::VisitRecord.new(rig: fitted, reads: reads, outdoor_degrees_f: outdoor) }
  came = ->(before, now) do
    kept = JSON.parse(JSON.generate(described_class.of(before, on: "2026-03-03")))
    described_class.compare(kept, now).map(&:came)
  end

  # [then, now, what comes of each]
  {
    "as before" => [
      record.call(supply.call(24.6), read.call(24.4)),
      record.call(supply.call(24.6), read.call(24.4)),
      %w[unlike same]
    ],
    "all of it lower, with the house" => [
      record.call(supply.call(26.0), read.call(25.8)),
      record.call(supply.call(22.0), read.call(21.8)),
      %w[unlike same]
    ],
    "a drop that was not there" => [
      record.call(supply.call(24.6), read.call(24.4)),
      record.call(supply.call(24.6), read.call(21.0)),
      %w[unlike moved]
    ],
    "no supply read then" => [
      record.call(read.call(24.4)),
      record.call(supply.call(24.6), read.call(21.0)),
      %w[unlike]
    ],
    "no supply read now" => [record.call(supply.call(24.6), read.call(24.4)), record.call(read.call(21.0)), %w[unlike]],
    "another call" => [
      record.call(supply.call(24.6), read.call(24.4)),
      record.call(supply.call(24.6), read.call(0.1, call: "cool")),
      %w[unlike]
    ],
    "line voltage" => [
      record.call(read.call(241.0, from: "outdoor.CC.T1", to: "outdoor.CC.T2")),
      record.call(read.call(200.0, from: "outdoor.CC.T1", to: "outdoor.CC.T2")),
      %w[unlike]
    ],
    "amps in like weather" => [record.call(amps.call(1.2)), record.call(amps.call(1.22), outdoor: 50.0), %w[same]],
    "more amps in like weather" => [record.call(amps.call(1.2)), record.call(amps.call(1.6), outdoor: 50.0), %w[moved]],
    "amps in other weather" => [record.call(amps.call(1.2)), record.call(amps.call(1.6), outdoor: 50.1), %w[unlike]],
    "amps in weather that nobody read" => [
      record.call(amps.call(1.2), outdoor: nil),
      record.call(amps.call(1.6)),
      %w[unlike]
    ]
  }.each { |what, (before, now, all)| it("calls #{what} #{all}") { expect(came.call(before, now)).to eq(all) } }

  it "keeps nothing that disagreed, and nothing where nothing was read" do
    expect(described_class.of(record.call(read.call(0.1, verdict: "disagrees")), on: "2026-03-03")).to be_nil
    expect(described_class.of(record.call, on: "2026-03-03")).to be_nil
  end

  it "moves at the edge of what the meters leave open, and not before" do
    before = record.call(supply.call(24.0), read.call(24.0))
    values = (0..60).map { |i| 24.0 - (i * 0.05) }
    moved = values.map { |value| came.call(before, record.call(supply.call(24.0), read.call(value))).last == "moved" }
    first = values[moved.index(true)]
    expect(moved).to eq(moved.sort_by { |one| one ? 1 : 0 })
    expect(first).to be_between(22.0, 23.0)
  end
end
