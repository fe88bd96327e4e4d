# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::Trends do
  fitted = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  volts = ->(place, value, at: "09:00") do
    Gorvant::VisitRead.new(
      id: [place, value].join,
      observation:
        Gorvant::Observation.new(
          function: "volts_ac",
          instrument: "high_impedance",
          from_node: "#{place}.C",
          to_node: "#{place}.R",
          amount: Gorvant::Amount.new(low: value, high: value)
        ),
      condition: Gorvant::Condition.new(call: "heat"),
      at: "2026-11-29T#{at}:00Z"
    )
  end
  day = ->(on, *reads, defrost: {}) do
    described_class::Visit.new(
      on: on,
      record: Gorvant::VisitRecord.new(rig: fitted, reads: reads, kept: { "defrost" => defrost })
    )
  end
  series = ->(id, *days) { described_class.new(days).all.find { |one| one.id == id } }

  it "has R to C of each place by day, the last of a day, with what the meter leaves open" do
    found =
      series.call(
        "supply_outdoor",
        day.call("2026-03-03", volts.call("outdoor", 20.0), volts.call("outdoor", 24.0)),
        day.call("2026-11-12"),
        day.call("2026-11-23", volts.call("outdoor", 25.0))
      )
    expect(found.points.map { |point| point.values_at(:on, :value) }).to eq(
      [["2026-03-03", 24.0], ["2026-11-23", 25.0]]
    )
    expect(found.points.first.values_at(:low, :high)).to eq([23.56, 24.44])
    expect(series.call("supply_wall", day.call("2026-03-03", volts.call("outdoor", 24.0)))).to be_nil
  end

  it "takes the drop of one day alone, as wide as both meters leave it" do
    both = day.call("2026-03-03", volts.call("air_handler", 25.0), volts.call("outdoor", 24.0))
    apart = [
      day.call("2026-03-03", volts.call("air_handler", 25.0)),
      day.call("2026-03-04", volts.call("outdoor", 24.0))
    ]
    point = series.call("drop", both).points.first
    expect(point[:value]).to eq(1.0)
    expect(point[:high] - point[:low]).to be_within(0.01).of(0.9 + 0.88)
    expect(series.call("drop", *apart)).to be_nil
  end

  # [points of the coil switch, what is known of where it opens]
  {
    [[20, "closed"], [50, "closed"], [86, "open"]] => [50.0, 86.0],
    [[20, "closed"], [60, "open"]] => [20.0, 60.0],
    [[20, "closed"]] => nil,
    [[86, "open"]] => nil,
    [[70, "closed"], [40, "open"]] => nil
  }.each do |points, between|
    it "knows of a coil switch seen #{points}: #{between.inspect}" do
      seen = points.map { |degrees, state| { "degrees_f" => degrees, "state" => state } }
      found = series.call("coil_switch", day.call("2026-03-03", defrost: { "coil_switch" => { "points" => seen } }))
      expect(found && found.points.first.values_at(:low, :high)).to eq(between)
    end
  end

  it "has by how much a thermistor was off its own table, and nothing of one whose table is not there" do
    table = Gorvant::ThermistorTable.all.first
    seen = ->(id, *points) do
      day.call("2026-03-03", defrost: { "thermistor" => { "table_id" => id, "points" => points } })
    end
    right = { "degrees_f" => 40, "ohms" => table.ohms_at(40) }
    off = { "degrees_f" => 40, "ohms" => table.ohms_at(47) }
    found = series.call("sensor_error", seen.call(table.id, right, off))
    expect(found.points.first.values_at(:low, :value, :high)).to eq([5.0, 7.0, 9.0])
    expect(found.difference).to be(true)
    expect(series.call("sensor_error", seen.call(table.id, right)).points.first[:value]).to be_within(0.01).of(0.0)
    expect(series.call("sensor_error", seen.call("nobody's", off))).to be_nil
    expect(series.call("sensor_error", seen.call(table.id, { "degrees_f" => 40, "ohms" => "OL" }))).to be_nil
  end

  it "has how long a forced defrost lasted where both ends were marked" do
    test = ->(marks) { day.call("2026-03-03", defrost: { "test" => { "marks" => marks } }) }
    expect(series.call("defrost", test.call({ "fan_off" => 20.0, "fan_back" => 320.0 })).points.first[:value]).to eq(
      300.0
    )
    expect(series.call("defrost", test.call({ "fan_off" => 20.0 }))).to be_nil
    expect(described_class.new([]).all).to eq([])
  end
end
