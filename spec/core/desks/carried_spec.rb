# frozen_string_literal: true

require_relative "../../support/core"

# What one visit hands on to the next, and how it counts there.
RSpec.describe Gorvant::Carried do
  fitted = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  wire = ->(conductor, place, terminal, **more) do
    {
      "cable" => "cable_a",
      "conductor" => conductor,
      "place" => place,
      "lands_on" => terminal,
      **more.transform_keys(&:to_s)
    }
  end
  record = ->(wiring: {}, settings: {}, put_back: {}, carried: {}) do
    Gorvant::VisitRecord.new(
      rig: fitted,
      kept: {
        "wiring" => wiring,
        "thermostat" => {
          "settings" => settings
        },
        "close_out" => {
          "put_back" => put_back
        }
      },
      carried: carried
    )
  end
  ticked = ->(of) { Gorvant::Desks.put_back(of).to_h { |line| [line.id, "back"] } }
  on = "2026-03-03"

  # A jumper of the outdoor strip.
  def jumper(from, to, found) = { "place" => "outdoor", "from" => from, "to" => to, "found" => found }

  # [what was found, what the next visit is told where nothing was ticked, and where all was]
  [
    [{ "landings" => [wire.call("orange", "wall", "G")] }, [%w[orange G]], [%w[orange OB]]],
    [{ "landings" => [wire.call("orange", "wall", "OB")] }, [%w[orange OB]], [%w[orange OB]]],
    [{ "landings" => [wire.call("yellow", "wall", nil, lies: "bare")] }, [["yellow", nil]], [%w[yellow Y]]],
    [
      { "landings" => [wire.call("orange", "wall", "Y"), wire.call("yellow", "wall", "OB")] },
      [%w[orange Y], %w[yellow OB]],
      [%w[orange OB], %w[yellow Y]]
    ]
  ].each do |wiring, left, mended|
    it "tells of #{wiring["landings"].map { |one| one.values_at("conductor", "lands_on") }}: #{left}, put right #{mended}" do
      ends = ->(of) { described_class.of(of, on: on)["landings"].map { |one| one.values_at("conductor", "lands_on") } }
      found = record.call(wiring: wiring)
      expect(ends.call(found)).to eq(left)
      expect(ends.call(record.call(wiring: wiring, put_back: ticked.call(found)))).to eq(mended)
    end
  end

  it "tells of a jumper that was taken off that it is off, and of one that stayed that it is on" do
    found = record.call(wiring: { "jumpers" => [jumper("R", "W2_out", true)] })
    told = ->(of) { described_class.of(of, on: on)["jumpers"].map { |one| one["found"] } }
    expect(told.call(found)).to eq([true])
    expect(
      told.call(record.call(wiring: { "jumpers" => [jumper("R", "W2_out", true)] }, put_back: ticked.call(found)))
    ).to eq([false])
  end

  # [setting, as found, as told where nothing was ticked, where all was; nil for not told]
  [
    ["stage_delay_minutes", 20, 20, 20],
    %w[system_setup conventional conventional heat_pump],
    ["compressor_lockout", "off_for_test", "off_for_test", nil],
    ["fast_heating", "error", "error", nil],
    %w[fast_heating off off off],
    ["sensor_offset_degrees_f", 2, 2, nil]
  ].each do |key, value, left, mended|
    it "tells of #{key} at #{value}: #{left.inspect}, put back #{mended.inspect}" do
      told = ->(of) { described_class.of(of, on: on).fetch("settings", {})[key] }
      found = record.call(settings: { key => value })
      expect(told.call(found)).to eq(left)
      expect(told.call(record.call(settings: { key => value }, put_back: ticked.call(found)))).to eq(mended)
    end
  end

  describe "at the next visit" do
    let(:carried) do
      described_class.of(
        record.call(
          wiring: {
            "landings" => [wire.call("orange", "wall", "G")]
          },
          settings: {
            "stage_delay_minutes" => 20
          }
        ),
        on: on
      )
    end

    it "counts in the circuit until somebody looks, and never as looked at" do
      today = record.call(carried: carried)
      found = today.as_found
      expect(found.landings.map { |one| [one.lands_on, one.seen, one.told] }).to eq([["G", false, on]])
      expect([found.looked?, found.read_settings, found.settings]).to eq([false, {}, { "stage_delay_minutes" => 20 }])
      expect(Gorvant::WiringCheck.new(fitted, found).works?).to be(false)
      expect(Gorvant::Desks.marks(today, %w[wiring thermostat]).values).to eq(%w[untouched untouched])
      expect(Gorvant::Desks::Thermostat.evidence(today)).to eq([])
      expect(found.to_json_hash.values_at("landings", "settings")).to eq([[], {}])
    end

    it "gives way to what is found today, end by end and setting by setting" do
      today =
        record.call(
          wiring: {
            "landings" => [wire.call("orange", "wall", "OB")]
          },
          settings: {
            "stage_delay_minutes" => 10
          },
          carried: carried
        )
      found = today.as_found
      expect(found.landings.map { |one| [one.lands_on, one.seen] }).to eq([["OB", true]])
      expect([found.settings, found.told_settings]).to eq([{ "stage_delay_minutes" => 10 }, []])
      other = record.call(wiring: { "landings" => [wire.call("yellow", "wall", "Y")] }, carried: carried).as_found
      expect(other.landings.map { |one| [one.conductor, one.seen] }).to contain_exactly(
        ["yellow", true],
        ["orange", false]
      )
    end

    it "is handed on with the day on which it was seen" do
      again = described_class.of(record.call(carried: carried), on: "2026-11-12")
      expect(again["landings"].map { |one| one["told"] }).to eq([on])
    end

    it "leaves out what today's unit has no place for, and leaves junk of today to be told" do
      gone =
        carried.merge(
          "landings" => [
            { "cable" => "gone", "conductor" => "red", "place" => "wall", "lands_on" => "R", "told" => on }
          ]
        )
      expect(record.call(carried: gone).as_found.landings).to eq([])
      [
        { "landings" => "x" },
        { "landings" => [3] },
        { "settings" => " " },
        { "jumpers" => [{ "from" => 3 }] }
      ].each { |junk| expect(described_class.under(junk, carried)).to eq(junk) }
    end
  end
end
