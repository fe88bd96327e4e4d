# frozen_string_literal: true

require_relative "../../support/core"

# Nothing looked at is not "works": an all-clear names what it leans on, and holds so far until all of that is read.
RSpec.describe Gorvant::Standing do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Standing", facts: Bench::APART.merge(facts).transform_keys(&:to_s))

  describe "of wiring" do
    let(:rig) { rig_with }
    let(:ends) do
      rig.cables.flat_map do |cable|
        cable.conductors.flat_map do |conductor|
          [[cable.from, conductor.from], [cable.to, conductor.to]].map do |place, terminal|
            {
              "cable" => cable.id,
              "conductor" => conductor.id,
              "place" => place,
              "lands_on" => terminal,
              "color" => conductor.color
            }
          end
        end
      end
    end
    let(:settings) do
      Gorvant::Target.rig(rig).then { |right| Gorvant::Target.fitting(rig).keys.to_h { |key| [key, right[key]] } }
    end
    let(:jumpers) do
      Gorvant::AsFound.parse({}, rig).then { |found| Gorvant::WiringCheck.new(rig, found).standing.taken }
    end

    def standing(**found) =
      Gorvant::WiringCheck.new(rig, Gorvant::AsFound.parse(found.transform_keys(&:to_s), rig)).standing

    it "is untouched with nothing looked at, so far with some, and says how many ends it takes as drawn" do
      expect(standing.mark).to eq("untouched")
      expect(standing(landings: ends.first(1))).to have_attributes(mark: "so_far", looked_at: ["conductor ends: 1"])
      expect(standing(landings: ends.first(1)).taken.first).to include((ends.size - 1).to_s)
    end

    it "agrees only when every end, jumper and set-up that it leans on was looked at" do
      all_but_one = standing(landings: ends.drop(1), settings: settings)
      expect(all_but_one.mark).to eq("so_far")
      jumper = { "place" => "wall", "from" => "W2", "to" => "E", "found" => true }
      complete = standing(landings: ends, settings: settings, jumpers: [jumper])
      expect([complete.mark, complete.taken]).to eq(["agrees", []])
      expect(standing(landings: ends, settings: settings).mark).to eq("so_far")
      expect(standing(landings: ends, jumpers: [jumper]).mark).to eq("so_far")
    end

    it "disagrees with one end wrong, however little else was looked at" do
      expect(
        standing(
          landings: [{ "cable" => "cable_a", "conductor" => "yellow", "place" => "wall", "lands_on" => "G" }]
        ).mark
      ).to eq("disagrees")
    end
  end

  it "of settings: untouched, so far, agrees, disagrees" do
    rig = rig_with
    right = Gorvant::Target.rig(rig)
    keys = Gorvant::SettingsCheck.new(rig, Gorvant::AsFound.parse({}, rig), set_point_degrees_f: 70.0).items.map(&:key)
    marks =
      [
        {},
        { "system_setup" => "heat_pump" },
        keys.to_h { |key| [key, right[key]] },
        { "system_setup" => "conventional" }
      ].map do |settings|
        Gorvant::SettingsCheck
          .new(rig, Gorvant::AsFound.parse({ "settings" => settings }, rig), set_point_degrees_f: 70.0)
          .standing
          .mark
      end
    expect(marks).to eq(%w[untouched so_far agrees disagrees])
  end

  describe Gorvant::SafetyPoints do
    let(:rig) { rig_with }
    let(:all) { described_class.of(rig) }

    it "stands so far until the last point is seen to, and never agrees untold" do
      found = ->(told, seen) { described_class.standing(rig, told: told, seen: seen).mark }
      expect(
        [
          found.call(false, []),
          found.call(true, []),
          found.call(true, all.drop(1)),
          found.call(false, all),
          found.call(true, all)
        ]
      ).to eq(%w[untouched so_far so_far so_far agrees])
    end

    it "asks about gas only where gas is fitted" do
      extra = described_class.of(rig_with(backup: "gas")) - all
      expect(extra).not_to be_empty
      expect(described_class.standing(rig, told: true, seen: extra).looked_at).to eq(["what the customer says"])
    end
  end
end
