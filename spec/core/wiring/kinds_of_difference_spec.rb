# frozen_string_literal: true

require_relative "../../support/core"

# Each way in which a wiring can differ, with its words, its faults and the move that puts it right; and the order of
# the moves.
RSpec.describe Gorvant::WiringCheck do
  let(:usual) do
    Gorvant::Composer.compose(
      name: "Differs",
      facts: {
        **Bench::APART.transform_keys(&:to_s),
        "changeover_terminal" => "single"
      }
    )
  end

  def landing(conductor, place, terminal, cable: "cable_a", **more)
    { "cable" => cable, "conductor" => conductor, "place" => place, "lands_on" => terminal }.merge(
      more.transform_keys(&:to_s)
    )
  end

  def check(*landings, settings: {}, jumpers: []) =
    described_class.new(
      usual,
      Gorvant::AsFound.parse({ "landings" => landings, "settings" => settings, "jumpers" => jumpers }, usual)
    )
  def told(one) = one.told.map { |told| [told.finding.code, told.finding.severity, told.moves] }

  it "tells a wire that is off its terminal, what that costs, and to land it" do
    one = check(landing("green", "air_handler", nil))
    expect(told(one)).to eq([["landing_missing", "fault", ["At the air handler land the green of cable A on G"]]])
    expect(one.effects.reject(&:works).map(&:trial)).to include("fan", "heat", "cool")
    expect(one.correction).to have_attributes(works: true, moves: ["At the air handler land the green of cable A on G"])
  end

  it "tells a conductor that the rig does not know by where it runs, one finding for both of its ends" do
    one = check(landing("violet", "wall", "G", color: "violet"), landing("violet", "air_handler", "W", color: "violet"))
    expect(one.told.map { |found| found.finding.code }).to eq(["conductor_extra"])
    expect(one.effects.reject(&:works).map(&:trial)).to include("fan")
    half = check(landing("violet", "wall", "G", color: "violet"))
    expect([half.told.map { |found| found.finding.code }, half.works?]).to eq([[], true])
  end

  it "tells a spare that stands on a terminal, and what it does there" do
    boathouse = rig("boathouse_north")
    found = ->(*ends) { described_class.new(boathouse, Gorvant::AsFound.parse({ "landings" => ends }, boathouse)) }
    one = found.call(landing("brown", "wall", "G"))
    expect(one.told.map { |each| each.finding.code }).to eq(["spare_landed"])
    expect(one.works?).to be(true) # its other end is tied to nothing
    both = found.call(landing("brown", "wall", "G"), landing("brown", "air_handler", "W"))
    expect(both.told.map { |each| each.finding.code }).to all(eq("spare_landed"))
    expect(both.effects.reject(&:works).map(&:trial)).to include("fan")
  end

  it "calls an end bare a danger though every call works, and a capped one nothing" do
    bare, capped = %w[bare capped].map { |lies| check(landing("violet", "wall", nil, lies: lies, color: "violet")) }
    expect(told(bare).map { |code, severity, _moves| [code, severity] }).to eq([%w[end_bare warning]])
    expect([bare.works?, told(capped)]).to eq([true, []])
  end

  it "puts a setting right before a wire where either would do, and one move before two" do
    both = check(landing("orange", "wall", "G"), settings: { "changeover_setup" => "B" })
    expect(both.correction.moves.first).to include("Set O/B")
    expect(both.correction.moves.size).to eq(2)
    crossed = check(landing("yellow", "air_handler", "G"), landing("green", "air_handler", "Y"))
    expect(crossed.told.size).to eq(1)
    expect(crossed.correction.moves.size).to eq(2)
  end

  it "tells the same of a landing in whatever order its parts were noted" do
    parts = [
      landing("orange", "wall", "G"),
      landing("white", "outdoor", nil, cable: "cable_b"),
      landing("green", "air_handler", nil)
    ]
    all =
      parts.permutation.map do |order|
        check(*order).then do |one|
          [told(one).sort, one.correction.moves.sort, one.effects.to_h { |effect| [effect.trial, effect.says] }]
        end
      end
    expect(all.uniq.size).to eq(1)
  end

  it "does not forget what else was noted when one answer is taken back" do
    settings = { "changeover_setup" => "B", "system_setup" => "heat_pump" }
    found = Gorvant::AsFound.parse({ "landings" => [landing("orange", "wall", "G")], "settings" => settings }, usual)
    again = Gorvant::AsFound.parse(found.to_json_hash, usual)
    expect(again).to eq(found)
    without = found.with(settings: found.settings.except("changeover_setup"))
    expect([without.landings, without.settings]).to eq([found.landings, { "system_setup" => "heat_pump" }])
  end
end
