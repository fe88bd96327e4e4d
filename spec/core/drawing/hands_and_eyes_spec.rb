# frozen_string_literal: true

require_relative "../../support/core"

# What a drawing says without a word: contacts as they stand, factory colors, the maker's codes, and nothing that is not
# fitted.
RSpec.describe Gorvant::Views do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Eyes", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def scene(view, trace, **options) = described_class.scene(view, trace, { load: "CC", opened: ["all"] }.merge(options))
  def strokes(scene, id) =
    scene
      .stations
      .find { |station| station.id.include?(id) }
      &.then { |station| station.respond_to?(:strokes) ? station.strokes : nil }

  it "draws a contact on the ladder open or closed as it stands, and all as at rest when that is asked" do
    open, closed = %w[heat defrost].map { |call| scene("ladder", trace(call)) }
    board = open.stations.map(&:id).grep(/DFR/)
    expect(board).not_to be_empty
    differ = board.count { |id| strokes(open, id) != strokes(closed, id) }
    expect(differ).to be_positive
    rest = scene("ladder", trace("defrost"), at_rest: true)
    expect(board.map { |id| strokes(rest, id) }).to eq(
      board.map { |id| strokes(scene("ladder", trace("heat"), at_rest: true), id) }
    )
  end

  it "draws a switch in its own kind of line as it stands" do
    shut, open = [{}, { "HPS" => "open" }].map { |switches| scene("ladder", trace("heat", switches: switches)) }
    expect(strokes(shut, "HPS")).not_to eq(strokes(open, "HPS"))
  end

  it "colors a factory wire of the connections as its rig says, and leaves the others plain" do
    colored = rig_with.with(factory_colors: { "outdoor.CC.1" => "brown" })
    colors = ->(rig) do
      scene("connections", trace("heat", on: rig)).links.select { |link| link.line == "factory" }.filter_map(&:color)
    end
    expect(colors.call(rig_with)).to eq([])
    expect(colors.call(colored).uniq).to eq(["brown"])
  end

  it "names a factory wire's color in one loop" do
    colored = rig_with.with(factory_colors: { "outdoor.CC.1" => "brown" })
    texts = ->(rig) { scene("focus", trace("heat", on: rig)).labels.map(&:text) }
    expect(texts.call(colored) - texts.call(rig_with)).to include(match(/BN|brown/))
  end

  describe Gorvant::Legend do
    it "has each part of the rig once, by the maker's code where there is one, and what is not fitted last" do
      rig = rig_with(float_switch: "y", outdoor_thermostat: true).with(maker_codes: { "CC" => "K7" })
      entries = described_class.entries(trace("heat", on: rig))
      fitted, absent = entries.partition(&:fitted)
      codes = fitted.map(&:code)
      expect(codes).to include("K7", "FLS", "ODT").and(satisfy { |list| !list.include?("CC") })
      expect(codes.uniq).to eq(codes)
      expect(absent.map(&:code)).to include("FRS", "DIS")
      expect(entries.drop_while(&:fitted).map(&:fitted)).to all(be(false))
    end

    it "says how each stands now and at rest: a safety open, a contact pulled in" do
      entry = ->(trace, code) { described_class.entries(trace).find { |one| one.code == code } }
      open = entry.call(trace("heat", on: rig_with, switches: { "HPS" => "open" }), "HPS")
      expect([open.rest, open.now].map { |word| word.to_s[/open|closed/] }).to eq(%w[closed open])
      relay = %w[heat defrost].map { |call| entry.call(trace(call, on: rig_with), "DFR").now }
      expect(relay.uniq.size).to eq(2)
    end

    it "has a title, a line of what it does and a symbol for every part that any option brings" do
      [
        {},
        { backup: "gas", compressor_stages: 2, board_family: "larch" },
        {
          float_switch: "r",
          freeze_stat: true,
          door_switch: true,
          fan_cycling_switch: true,
          air_pressure_switch: true,
          start_kit: true
        }
      ].each do |facts|
        described_class
          .entries(trace("heat", on: rig_with(**facts)))
          .select(&:fitted)
          .each do |one|
            expect([one.title, one.does]).to all(match(/\w/)), one.code
            expect(one.strokes).not_to be_empty, one.code
          end
      end
    end
  end
end
