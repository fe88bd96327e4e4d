# frozen_string_literal: true

require_relative "../../support/core"

# A run's coil: the frost model ahead of time, as straight lines between its steps.
RSpec.describe Gorvant::FrostPath do
  let(:clean_weather) do
    ->(degrees_f) { Gorvant::FrostCoil::Weather.new(degrees_f: degrees_f, humidity_percent: 85.0) }
  end

  def under(air, **more) = described_class::Under.new(stages: 1, cooling: false, fan: true, air: air, **more)
  def still(degrees_f) = Gorvant::Quantity.still(degrees_f)

  # The model itself by steps of a second.
  def by_seconds(under, seconds, frost_kg: 0.0, degrees_f: 30.0)
    coil = Gorvant::FrostCoil.new(degrees_f: degrees_f, frost_kg: frost_kg)
    (0...seconds).each do |second|
      weather = clean_weather.call(under.air.at(second + 0.5))
      coil.step(1.0, weather, stages: under.stages, cooling: under.cooling, fan: under.fan)
    end
    coil
  end

  def path(under, frost_kg: 0.0, degrees_f: 30.0)
    coil = Gorvant::FrostCoil.new(degrees_f: degrees_f, frost_kg: frost_kg)
    described_class.new(coil, 0.0, under, clean_weather, {})
  end

  # Heating, standing in thaw, a defrost with ice, one with the fan on, air that gets colder: long and short steps.
  {
    "heating" => [{}, 0.0, 30.0],
    "cooling" => [{ cooling: true }, 0.0, 88.0],
    "standing" => [{ stages: 0, fan: false }, 1.0, 40.0],
    "a defrost" => [{ cooling: true, fan: false }, 2.0, 35.0],
    "a defrost into the wind of the fan" => [{ cooling: true }, 2.0, 25.0]
  }.each do |name, (how, frost_kg, air)|
    it "goes as steps of a second would: #{name}" do
      way = path(under(still(air), **how), frost_kg: frost_kg, degrees_f: air)
      [30, 95, 240, 700, 2400].each do |second|
        true_one = by_seconds(under(still(air), **how), second, frost_kg: frost_kg, degrees_f: air)
        courses = way.courses
        expect(courses["coil"].at(second)).to be_within(2.5).of(true_one.degrees_f)
        expect(courses["frost"].at(second)).to be_within(0.1).of(true_one.frost_kg)
        expect(courses["air"].at(second)).to be_within(2.5).of(true_one.air_share * 100)
      end
    end
  end

  it "follows air that changes, and a coil that is held somewhere keeps frosting there" do
    falling = Gorvant::Quantity.new(value: 45.0, at_seconds: 0.0, target: 15.0, rate: 30.0 / 3600)
    expect(path(under(falling)).courses["coil"].at(3000)).to be_within(2.0).of(
      by_seconds(under(falling), 3000).degrees_f
    )
    held = path(under(still(30.0), held: still(18.0))).courses
    expect([held["coil"].at(10), held["coil"].at(3000)]).to all(be_within(0.01).of(18.0))
    expect(held["frost"].at(3000)).to be > 0.5
  end

  it "hands on a coil in mid-step that goes on as it would have gone" do
    way = path(under(still(33.0)))
    cut = described_class.new(way.coil_at(1234.5), 1234.5, under(still(33.0)), clean_weather, {})
    [1300, 2000, 4000].each do |second|
      expect(cut.courses["coil"].at(second)).to be_within(0.5).of(way.courses["coil"].at(second))
      expect(cut.courses["frost"].at(second)).to be_within(0.02).of(way.courses["frost"].at(second))
    end
    expect([way.leads?(1234.5, under(still(33.0))), way.leads?(1234.5, under(still(34.0)))]).to eq([true, false])
  end

  describe Gorvant::Course do
    # Against a search by small steps, over lines that rise, fall and stand.
    it "tells when a value is first passed, or that it is not" do
      random = Random.new(7)
      40.times do
        points = Array.new(6) { |i| [i * 10.0, [-5, 0, 3, 3, 8, 20].sample(random: random).to_f] }
        course = described_class.new(points)
        from, threshold = random.rand(0.0..45.0), random.rand(-6.0..21.0)
        above = course.at(from) > threshold
        found = (from..60.0).step(0.01).find { |second| (course.at(second) > threshold) != above }
        reached = course.reaches(threshold, from)
        expect(reached.nil?).to be(found.nil?)
        next unless reached

        expect(reached).to be_within(0.02).of(found)
        expect(course.at(reached) > threshold).to be(!above)
      end
    end

    it "stands at its last value, and gives the bends on the way" do
      course = described_class.new([[5.0, 1.0], [10.0, 2.0], [20.0, 0.0]])
      expect([course.at(0), course.at(7.5), course.at(99), course.target]).to eq([1.0, 1.5, 0.0, 0.0])
      expect(course.corners(20.0)).to eq([[5.0, 1.0], [10.0, 2.0]])
      expect(course.reaches(0.5, 99.0)).to be_nil
    end
  end
end
