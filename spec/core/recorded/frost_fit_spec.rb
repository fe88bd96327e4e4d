# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/log_trial"

# The frost model bent to a unit's own record.
RSpec.describe Gorvant::FrostFit do
  let(:profile) { Gorvant::ClockProfile.of(rig) }

  def record(hours: 20, **options)
    log =
      Gorvant::Formats::MadeUpLog.new(
        profile: profile,
        changeover: rig.changeover,
        every: 10,
        seed: 5,
        wind_mph: 3.0,
        **options
      )
    text = log.text(hours * 3600)
    head = Gorvant::Formats::FieldLogHead.guess(text.byteslice(0, 60_000))
    mapping = Gorvant::Formats::FieldLogMapping.guess(head)
    kept = []
    reader = Gorvant::Formats::FieldLogReader.new(mapping) { |hour| kept << hour }
    reader.file(1, head) << text
    told = reader.end_file.finish
    points = { closes: profile.starts_degrees_f, opens: profile.ends_degrees_f }
    common = { ids: mapping.ids, on_off: reader.on_off, interval_seconds: told.interval_seconds }
    story = Gorvant::RecordedCycles.of(kept, **common, **points)
    [kept, Gorvant::RecordedStory.from(JSON.parse(JSON.generate(story.to_json_hash)))]
  end

  def fitted(**options) = described_class.of(*record(**options))

  it "finds what the unit differs by, from its own record, and comes closer to it than the shipped coil" do
    { "surface_kw_per_k" => 0.8, "evaporator_kw" => 1.15, "heat_kw" => 0.85 }.each do |name, factor|
      found = fitted(scale: { name => factor })
      expect(found.refused).to be_nil
      expect(found.scale.fetch(name)).to be_within(factor * 0.08).of(factor)
      expect(found.residual_degrees_f).to be < [found.shipped_residual_degrees_f, 3.0].min
    end
  end

  it "leaves the shipped coil as it is for a unit like it" do
    expect(fitted.scale.values).to all(be_within(0.08).of(1.0))
  end

  it "is refused where the record cannot bear it: no coil, too short, a coil like no coil of this kind" do
    expect(fitted(columns: %w[outdoor fan amps])).to have_attributes(scale: {}, refused: /no column for coil/)
    expect(fitted(hours: 2)).to have_attributes(scale: {}, refused: /under 3 h|fewer than 2/)
    expect(fitted(faults: ["valve_stuck"])).to have_attributes(scale: {}, refused: /still off by/)
    expect(fitted(scale: { "surface_kw_per_k" => 0.2 })).to have_attributes(
      scale: {
      },
      refused: /out of bounds|does not bear/
    )
  end
end
