# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::MeterDisplay do
  let(:random) { Random.new(3) }

  def expected(volts, klass: "about_24", low: volts, high: volts) =
    Gorvant::Expected.new(volts_ac: volts, low_volts_ac: low, high_volts_ac: high, klass: klass, floating: false)

  it "settles from nothing to what is there, and says when it has" do
    shown = [0.1, 0.5, 1.1, 1.2, 5.0].map { |seconds| described_class.of(expected(24.0), seconds, random) }
    expect(shown.map(&:stable)).to eq([false, false, false, true, true])
    expect(shown.map(&:value).first(3)).to eq(shown.map(&:value).first(3).sort)
    expect(shown.first.value).to be < 12
    expect(shown.last.value).to be_within(0.1).of(24.0)
  end

  it "shows as many digits as its range has" do
    { 0.4 => 3, 5.99 => 3, 6.0 => 2, 24.6 => 2, 119.0 => 1, 240.0 => 1, 601.0 => 0 }.each do |volts, decimals|
      expect(described_class.decimals(volts)).to eq(decimals), volts.to_s
    end
  end

  it "never settles on what is unsteady, and shows nothing where nothing ties two points together" do
    chatter = Array.new(20) { described_class.of(expected(12.0, klass: "unsteady", low: 2.0, high: 22.0), 9, random) }
    expect(chatter.map(&:stable).uniq).to eq([false])
    expect(chatter.map(&:value).minmax).to match([be < 8, be > 16])
    apart =
      Gorvant::Expected.new(
        volts_ac: nil,
        low_volts_ac: nil,
        high_volts_ac: nil,
        klass: "undetermined",
        floating: false
      )
    expect(described_class.of(apart, 9, random).to_h).to eq(value: nil, stable: false)
  end
end
