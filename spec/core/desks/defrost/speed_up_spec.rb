# frozen_string_literal: true

require_relative "../../../support/forced_tests"

# What a stopwatch tells of the interval, at the speed-up.
RSpec.describe Gorvant::SpeedUp do
  include ForcedTests

  it "expects 7.5, 15, 22.5 and 30 s at ×240, and less of a clock that had counted" do
    expect([30, 60, 90, 120].map { |interval| described_class.expected_seconds(interval, 240) }).to eq(
      [7.5, 15.0, 22.5, 30.0]
    )
    expect(described_class.expected_seconds(60, 240, counted_minutes: 25)).to eq(8.75)
    expect([30, 60, 90, 120].map { |interval| described_class.expected_seconds(interval, 256).round(1) }).to eq(
      [7.0, 14.1, 21.1, 28.1]
    )
  end

  it "tells which intervals a stopwatch allows" do
    seen =
      described_class.fits(22, factor: 240).to_h { |fit| [fit.interval_minutes, [fit.verdict, fit.counted_minutes]] }
    expect(seen).to eq(
      30 => ["excluded", 0.0],
      60 => ["excluded", 0.0],
      90 => ["near_zero", 2.0],
      120 => ["counted", 32.0]
    )
    expect(described_class.minutes_left(22, 240)).to eq(88)
    expect(described_class.possible(described_class.fits(22, factor: 240, fresh: true)).map(&:interval_minutes)).to eq(
      [90]
    )
    expect(described_class.possible(described_class.fits(40, factor: 240))).to eq([])
  end
end
