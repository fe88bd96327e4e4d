# frozen_string_literal: true

require_relative "../../support/finding"

# What an earlier hand left: a transformer on its tap for 240 V where the supply is 208, so that 24 V are 20.8 all over
# and always.
RSpec.describe Gorvant::Diagnosis::Hypotheses do
  def find(facts = {}, source = "assumed")
    @find ||= {}
    composed = Gorvant::Composer.compose(name: "Low", facts: facts, source: source)
    @find[[facts, source]] ||= Finding.new(Finding.library("low #{facts} #{source}", composed, 34.0))
  end

  def secondary(volts, call = "off") = [call, "volts_ac", %w[air_handler.R air_handler.C], volts]
  def legs(volts) = ["off", "volts_ac", %w[air_handler.L1 air_handler.L2], volts]
  def belief(finder, id) = finder.beliefs[finder.library.index(id)]
  def ids(find) = find.library.hypotheses.map(&:id)

  let(:plain) { find }

  # [readings, what is first]
  {
    "as low with nothing on as with all on" => [[20.8, 21.6], "low_supply", 0.85],
    "right with nothing on, low with all on" => [[21.6, 24.5], "transformer_weak:TRAN", 0.5],
    "right with nothing on, by the edge of low with all on" => [[21.9, 24.5], "transformer_weak:TRAN", 0.15]
  }.each do |name, (values, id, least)|
    it "tells it from a weak transformer: #{name}" do
      told = plain.finder([], secondary(values.first, "heat"), secondary(values.last))
      expect([plain.top(told), belief(told, id)]).to match([id, be > least])
    end
  end

  it "accuses no supply of a unit whose 24 V are well, and takes 22 V for a line that is a little low" do
    well = belief(plain.finder([]), "low_supply")
    expect(belief(plain.finder([], secondary(24.6)), "low_supply")).to be < well
    { 22.4 => 0.4, 22.8 => 0.1, 23.2 => 0.1 }.each do |volts, most|
      told = plain.finder([], secondary(volts), secondary(volts - 0.6, "heat"))
      expect(belief(told, "low_supply")).to be < most, volts.to_s
    end
  end

  it "weighs what stands between the legs, softly where either supply may be it" do
    known =
      [210.0, 222.0, 226.0, 241.0].map { |volts| belief(plain.finder([], secondary(21.3), legs(volts)), "low_supply") }
    expect(known.each_cons(2)).to all(satisfy { |higher, lower| higher > lower })
    expect([known.first, known.last]).to match([be > 0.8, be < 0.15])
  end

  it "has the supply looked up before the primary is moved, at the air handler, with the word of line voltage" do
    told = plain.finder([], secondary(20.8, "heat"), secondary(21.6))
    test = plain.library.tests.find { |one| one.place == "supply_volts" }
    expect([test.at, test.cautions]).to eq(["air_handler", %w[line_voltage]])
    expect(plain.first(told.top).proof).to include("locked out")
    read = ->(value) do
      plain.finder([], secondary(20.8, "heat"), secondary(21.6), ["off", "looked_up", "supply_volts", value])
    end
    expect([belief(read.call(208), "low_supply"), belief(read.call(240), "low_supply")]).to match([be > 0.98, be < 0.6])
  end

  it "is thought of only where it can be: not of a supply that was read, not of a furnace's transformer on 120 V" do
    other = { supply_volts: 208, transformer_tap: 208 }.transform_keys(&:to_s)
    units = {
      find => %w[low_supply],
      find({ "supply_volts" => 240 }, "measured") => [],
      find({ "backup" => "gas" }) => [],
      find(other) => %w[high_tap],
      find({ "supply_volts" => 208 }) => [] # on its tap for 240 V as noted: 20.8 V is what it shows
    }
    units.each { |one, known| expect(ids(one) & %w[low_supply high_tap]).to eq(known) }
    tap = find(other)
    told = tap.finder([], secondary(20.8, "heat"), secondary(21.6))
    expect([tap.top(told), belief(told, "high_tap")]).to match(["high_tap", be > 0.85])
  end
end
