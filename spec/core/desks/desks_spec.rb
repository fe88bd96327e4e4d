# frozen_string_literal: true

require_relative "../../support/core"

# How each page of a visit stands: nobody looked, so far, all looked at, and something wrong.
RSpec.describe Gorvant::Desks do
  def record(**fields) = Gorvant::VisitRecord.new(rig: rig, **fields)
  def found(given, on = rig) = Gorvant::AsFound.parse(given, on)
  def mark(id, **fields) = described_class.mark(id, record(**fields))
  def landing(terminal) =
    { "cable" => "cable_a", "conductor" => "orange", "place" => "wall", "lands_on" => terminal, "lies" => "landed" }

  it "has a folder for every page that is built, and a page for every folder" do
    folders =
      Dir[File.expand_path("../../../core/lib/gorvant/desks/*/", __dir__)]
        .select { |path| File.directory?(path) }
        .map { |path| File.basename(path) }
    expect(described_class.all.compact.keys).to match_array(folders)
    expect(described_class.all.values.compact).to all(respond_to(:standing))
    expect(described_class.all.keys).to eq(Gorvant::Catalogue.desks.keys)
  end

  it "marks what nobody looked at, and what is not built, as that" do
    plain = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
    marks = described_class.marks(Gorvant::VisitRecord.new(rig: plain))
    expect(marks).to eq(Gorvant::Catalogue.desks.keys.to_h { |id| [id, "untouched"] })
  end

  # [desk, what was taken down, mark]
  all_points = -> { Gorvant::Catalogue.safety.keys }
  [
    ["intake", { told: true }, "so_far"],
    ["intake", { safety: %w[meter_proven] }, "so_far"],
    ["intake", { told: true, safety: :all }, "agrees"],
    ["trace", { agreeing_calls: %w[heat] }, "so_far"],
    ["trace", { agreeing_calls: :all }, "agrees"],
    ["trace", { agreeing_calls: :all, disagreeing: 1 }, "disagrees"],
    ["trace", { agreeing_calls: %w[heat_9] }, "untouched"],
    ["wiring", { landing: "O" }, "so_far"],
    ["wiring", { landing: "G" }, "disagrees"],
    ["thermostat", { settings: { "system_setup" => "heat_pump" } }, "so_far"],
    ["thermostat", { settings: { "system_setup" => "conventional" } }, "disagrees"],
    [
      "defrost",
      { defrost: { "coil_switch" => { "points" => [{ "degrees_f" => 20, "state" => "closed" }] } } },
      "so_far"
    ],
    ["defrost", { defrost: { "coil_switch" => { "points" => [] } } }, "untouched"],
    ["defrost", { defrost: { "test" => { "marks" => { "bridge_on" => 0, "fan_off" => 14 } } } }, "so_far"]
  ].each do |id, given, mark|
    it "#{id} with #{given} is #{mark}" do
      fields = given.except(:landing, :settings)
      fields[:safety] = all_points.call if fields[:safety] == :all
      fields[:agreeing_calls] = Gorvant::Outputs.calls(rig) if fields[:agreeing_calls] == :all
      fields[:kept] = { "wiring" => { "landings" => [landing(given[:landing])] } } if given[:landing]
      fields[:kept] = { "thermostat" => { "settings" => given[:settings] } } if given[:settings]
      fields[:kept] = { "defrost" => fields.delete(:defrost) } if given[:defrost]
      expect(mark(id, **fields)).to eq(mark)
    end
  end

  it "says of what is fitted how much was read, and all-clear only when nothing is assumed" do
    plain = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
    some = plain.set({ "fuse_amps" => 5 }, "measured")
    every = plain.set(plain.assumed.to_h { |key| [key, plain[key]] }, "measured")
    every = every.set(every.assumed.to_h { |key| [key, every[key]] }, "measured") while every.assumed.any?
    marks = [plain, some, every].map { |one| described_class.mark("fitted", Gorvant::VisitRecord.new(rig: one)) }
    expect(marks).to eq(%w[untouched so_far agrees])
    expect(Gorvant::Desks::Fitted.standing(Gorvant::VisitRecord.new(rig: some)).says).to include("1 facts read")
  end
end
