# frozen_string_literal: true

require_relative "../../support/core"

# Moist air, and what it leaves on a coil.
RSpec.describe Gorvant::FrostCoil do
  air = Gorvant::Psychrometrics

  # Published saturation pressures, Pa: over ice below freezing, over water above.
  {
    -40 => 12.84,
    -30 => 38.01,
    -20 => 103.26,
    -10 => 259.90,
    0 => 611.2,
    10 => 1228.1,
    20 => 2338.8,
    30 => 4245.5,
    40 => 7381.4,
    50 => 12_344.0
  }.each do |celsius, pascals|
    it "saturates at #{pascals} Pa at #{celsius} °C" do
      expect(air.saturation_pa(celsius)).to be_within(pascals * 0.005).of(pascals)
    end
  end

  it "takes moisture differences at a coil 12 °F below the air as the field knows them" do
    { 0 => 0.38, 10 => 0.55, 28 => 0.96, 35 => 1.14, 43 => 1.35 }.each do |degrees, grams|
      celsius = ->(fahrenheit) { (fahrenheit - 32) / 1.8 }
      more = air.humidity_ratio(celsius[degrees], 85) - air.saturated_ratio(celsius[degrees - 12])
      expect(more * 1000).to be_within(0.05).of(grams)
    end
  end

  def weather(degrees, humidity, **more) =
    Gorvant::FrostCoil::Weather.new(degrees_f: degrees.to_f, humidity_percent: humidity.to_f, **more)

  # A coil after so many minutes of heating.
  def heated(weather, minutes: 30, numbers: described_class.numbers)
    coil = described_class.new(degrees_f: weather.degrees_f, numbers: numbers)
    (minutes * 6).times { coil.step(10, weather, stages: 1, cooling: false, fan: true) }
    coil
  end

  def defrost(coil, weather, seconds: 600, fan: false)
    (seconds / 10).times.map { coil.step(10, weather, stages: 1, cooling: true, fan: fan).degrees_f }
  end

  def kg_an_hour(weather) = heated(weather).then { |coil| coil.frost_kg_per_hour(weather) }
  def balance(coil) = coil.in_kg - coil.drained_kg - coil.frost_kg - coil.water_kg

  it "frosts fast about freezing, slowly in the dry cold, and never while its surface is above 32 °F" do
    fast, slow = kg_an_hour(weather(35, 85)), kg_an_hour(weather(10, 60))
    expect(fast).to be_between(1.5, 4)
    expect(slow).to be_between(0, 0.3)
    expect(heated(weather(50, 85), minutes: 120)).to have_attributes(frost_kg: 0.0, celsius: be > 0)
    expect(heated(weather(36, 30), minutes: 120).frost_kg).to eq(0.0) # below freezing, above its frost point
  end

  it "frosts faster in warmer air of equal relative humidity until the surface nears 32 °F, then not at all" do
    rates = [0, 10, 20, 28, 35].map { |degrees| kg_an_hour(weather(degrees, 85)) }
    expect(rates).to eq(rates.sort)
    expect(kg_an_hour(weather(46, 85))).to eq(0.0)
  end

  it "never frosts more in drier air, nor in warmer air that holds the same moisture" do
    damp = [95, 85, 75, 65, 55].map { |humidity| kg_an_hour(weather(30, humidity)) }
    expect(damp).to eq(damp.sort.reverse)
    ratio = air.humidity_ratio((26 - 32) / 1.8, 90)
    alike =
      [26, 30, 34, 38].map do |degrees|
        celsius = (degrees - 32) / 1.8
        kg_an_hour(weather(degrees, 90 * ratio / air.humidity_ratio(celsius, 90)))
      end
    expect(alike).to eq(alike.sort.reverse)
  end

  it "loses nothing: what came down has run off or is still there, whatever happens to it" do
    coil = described_class.new(degrees_f: 33.0)
    random = Random.new(7)
    4000.times do
      coil.step(
        10 + random.rand(50),
        weather(20 + random.rand(25), 40 + random.rand(60), wind_mph: random.rand(15), rain: random.rand < 0.1),
        stages: random.rand(3),
        cooling: random.rand < 0.2,
        fan: random.rand < 0.7
      )
    end
    expect(coil.in_kg).to be > 5
    expect(balance(coil)).to be_within(1e-6).of(0)
    expect([coil.frost_kg, coil.water_kg, coil.drained_kg]).to all(be >= 0)
  end

  it "melts in defrost at about freezing, then climbs; the fan or the wind keep it from its point" do
    calm = weather(15, 80)
    path = defrost(heated(calm, minutes: 60), calm)
    expect(path[6..10]).to all(be_between(31, 45)) # while there is frost
    expect(path.max).to be > 80
    expect(defrost(heated(calm, minutes: 60), weather(15, 80, wind_mph: 18)).max).to be < 60
    expect(defrost(heated(calm, minutes: 60), calm, fan: true).max).to be < 45
  end

  it "melts by itself in off-time above freezing, and not below" do
    rest = ->(coil, degrees) do
      360.times { coil.step(10, weather(degrees, 80), stages: 0, cooling: false, fan: false) }
    end
    warm, cold = heated(weather(33, 90), minutes: 60), heated(weather(33, 90), minutes: 60)
    before = warm.frost_kg
    rest.call(warm, 42)
    rest.call(cold, 25)
    expect(warm.frost_kg).to be < before * 0.7
    expect(cold.frost_kg).to be >= before - 0.01
  end

  it "runs warmer in damp air, for the heat that frost and dew bring, and colder in its second stage" do
    [28, 45].each do |degrees|
      damp, dry = heated(weather(degrees, 95), minutes: 10), heated(weather(degrees, 30), minutes: 10)
      expect(damp.degrees_f - dry.degrees_f).to be > 1
    end
    second = described_class.new(degrees_f: 28.0)
    60.times { second.step(10, weather(28, 60), stages: 2, cooling: false, fan: true) }
    expect(second.degrees_f).to be < heated(weather(28, 60), minutes: 10).degrees_f - 1
  end

  it "takes less from the air as it fills, and is stable at any step" do
    coil = described_class.new(degrees_f: 33.0)
    heats = Array.new(40) { coil.step(300, weather(33, 95), stages: 1, cooling: false, fan: true).heat_kw }
    expect(heats.last).to be < heats[1] * 0.9
    expect(coil.air_share).to be < 0.4
    expect(coil.degrees_f).to be_between(-60, 33)
  end
end
