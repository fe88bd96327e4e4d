# frozen_string_literal: true

require_relative "../../support/fed_by_hand"

# The defrost board alone, fed by hand: what it takes in, and what it says it waits for.
RSpec.describe Gorvant::DefrostBoard do
  usual = {
    defrost_interval_minutes: 60,
    coil_switch_closes_degrees_f: 30,
    coil_switch_opens_degrees_f: 60,
    defrost_limit_minutes: 10
  }
  running = %w[BOARD T1_IN DFT_IN]

  def board(counted = 60, **facts)
    rig = Gorvant::Composer.compose(name: "Board", facts: facts.transform_keys(&:to_s))
    FedByHand.new(described_class.new(rig, counted_seconds: counted * 60.0))
  end

  # Heating on an O type: Y live, O dead.
  def heating(one, at, works:, **more) = one.at(at, works: works, live: %w[outdoor.Y], coil: 20, outdoor: 30, **more)

  it "goes in when full, cold, fed and heating, and names each that is missing" do
    one = board(**usual)
    heating(one, 0, works: running)
    expect([one.out("defrost"), one.why("defrost")]).to eq([true, "defrost_due"])
    { running - %w[DFT_IN] => "a cold coil", running - %w[T1_IN] => "the compressor" }.each do |works, words|
      waiting = board(**usual)
      heating(waiting, 0, works: works)
      expect([waiting.out("defrost"), waiting.why("defrost")]).to eq([false, "defrost_waits"])
      expect(waiting.answer.reasons["defrost"].fields[:what]).to include(words.split.last)
    end
    cooling = board(**usual)
    cooling.at(0, works: running, live: %w[outdoor.Y outdoor.O], coil: 20, outdoor: 80)
    expect(cooling.out("defrost")).to be(false)
  end

  it "names the air-pressure switch, never the coil, where frost has not closed it, and ends nothing when it opens" do
    one = board(**usual, air_pressure_switch: true)
    heating(one, 0, works: running)
    expect([one.out("defrost"), one.answer.reasons["defrost"].fields[:what]]).to match([false, include("air")])
    expect(one.answer.reasons["defrost"].fields[:what]).not_to include("coil")
    heating(one, 60, works: [*running, "APS_IN"])
    expect(one.out("defrost")).to be(true)
    heating(one, 90, works: running)
    expect(one.out("defrost")).to be(true)
    heating(one, 120, works: running - %w[DFT_IN])
    expect([one.out("defrost"), one.why("defrost")]).to eq([false, "defrost_by_temperature"])
  end

  it "asks for no air-pressure switch that is not fitted" do
    one = board(**usual)
    heating(one, 0, works: running)
    expect(one.out("defrost")).to be(true)
  end

  it "gives its count up, or keeps it, when its supply goes, and says so when it comes to that" do
    { false => false, true => true }.each do |survives, still|
      one = board(59, **usual, clock_survives_power: survives)
      heating(one, 0, works: running)
      heating(one, 30, works: [])
      heating(one, 40, works: running)
      heating(one, 75, works: running)
      expect(one.out("defrost")).to be(still)
    end
    lit = board(**usual)
    heating(lit, 0, works: running)
    heating(lit, 10, works: [])
    expect([lit.out("defrost"), lit.why("defrost")]).to eq([false, "board_unfed"])
  end

  it "takes the coil's own thermistor without a switch between, and a failed one for nothing" do
    facts = {
      sensing: "thermistors",
      defrost_clock: "run_time",
      forced_entry: "held_pins",
      defrost_interval_minutes: 60,
      coil_sensor_starts_degrees_f: 32,
      coil_sensor_ends_degrees_f: 50
    }
    found =
      [31, 33].map do |coil|
        board(**facts)
          .tap { |one| one.at(0, works: %w[BOARD T1_IN], live: %w[outdoor.Y], coil: coil, outdoor: 30) }
          .out("defrost")
      end
    expect(found).to eq([true, false])
    failed = board(**facts)
    failed.at(
      0,
      works: %w[BOARD T1_IN],
      live: %w[outdoor.Y],
      coil: 20,
      outdoor: 30,
      inputs: {
        faults: [{ "kind" => "sensor_open", "at" => "COIL_T" }]
      }
    )
    expect([failed.out("defrost"), failed.answer.reasons["defrost"].fields[:what]]).to match([false, include("sensor")])
  end

  it "is let in by held pins on a warm coil, and out again at once" do
    one = board(0, **usual, forced_entry: "held_pins", forced_entry_hold_seconds: 6)
    warm = ->(at, bridge) do
      one.at(at, works: %w[BOARD T1_IN], live: %w[outdoor.Y], coil: 90, outdoor: 60, inputs: { bridge: bridge })
    end
    warm.call(0, true)
    expect(one.answer.wake_at).to eq(6.0)
    warm.call(6, true)
    expect([one.out("defrost"), one.why("defrost")]).to eq([true, "defrost_forced"])
    warm.call(6, true)
    expect([one.out("defrost"), one.why("defrost")]).to eq([false, "defrost_by_temperature"])
    warm.call(20, true)
    expect(one.out("defrost")).to be(false) # once a hold
  end
end
