# frozen_string_literal: true

RSpec.describe Gorvant::Agreement do
  def expected(volts, low, high, klass, floating: false)
    Gorvant::Expected.new(volts_ac: volts, low_volts_ac: low, high_volts_ac: high, klass: klass, floating: floating)
  end

  live = [24.6, 22.3, 26.9, "about_24"]
  {
    "a reading inside its interval" => [live, 24.3, "agrees", "about_24"],
    "a sagging feed" => [[24.0, 22.0, 26.0, "about_24"], 19.0, "disagrees", "between"],
    "nothing where nothing should be" => [[0.0, 0.0, 0.2, "about_0"], 0.1, "agrees", "about_0"],
    "the right class but outside what the parts allow" => [live, 22.1, "disagrees", "about_24"],
    "a feed where nothing should be" => [[0.0, 0.0, 0.2, "about_0"], 24.0, "disagrees", "about_24"],
    "anything where two supplies meet" => [[nil, nil, nil, "undetermined"], 60.0, "undetermined", "between"]
  }.each do |name, (given, measured, verdict, klass)|
    it "judges #{name}" do
      judgement = described_class.judge(expected(*given), measured)
      expect([judgement.verdict, judgement.measured_klass]).to eq([verdict, klass])
    end
  end

  it "says how far a reading is off" do
    expect(described_class.judge(expected(24.0, 22.0, 26.0, "about_24"), 19.0).says).to include(
      "5.0 V under the 24.0 V expected"
    )
  end

  it "calls 5 V on a floating conductor a ghost and no feed, but 24 V there a feed" do
    floating = expected(12.0, 0.0, 22.4, "ghost", floating: true)
    expect(described_class.judge(floating, 5.0)).to have_attributes(
      verdict: "agrees",
      measured_klass: "ghost",
      says: /ghost, not a feed/
    )
    expect(described_class.judge(floating, 24.0)).to have_attributes(verdict: "disagrees", measured_klass: "about_24")
  end

  it "asks for a second look near the edge of a class" do
    expect(described_class.judge(expected(*live), 22.4)).to have_attributes(near_edge: true, says: /edge/)
  end

  it "shows nothing at all between two points of one conductor that floats, on either instrument" do
    lifted = trace("heat", faults: [{ "kind" => "open", "at" => "cable_b.orange" }])
    %w[high_impedance low_impedance].each do |instrument|
      reading, = lifted.reading("air_handler.O", "air_handler.cable_a.orange", instrument)
      expect([reading.volts_ac, reading.low_volts_ac, reading.klass, reading.floating]).to eq(
        [0.0, 0.0, "about_0", true]
      )
      expect(reading.high_volts_ac).to be < 1
    end
  end
end
