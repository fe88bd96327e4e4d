# frozen_string_literal: true

require_relative "../../support/core"

RSpec.describe Gorvant::Merge do
  base = Gorvant::Composer.compose(name: "Bramble mill", facts: {})
  measured = ->(value, note = nil) do
    Gorvant::Fact.new(value: value, provenance: Gorvant::Provenance.new(source: "measured", note: note))
  end
  fact = ->(rig, key, value, note = nil) { rig.with(facts: rig.facts.merge(key => measured.call(value, note))) }
  jumper = ->(id, from, to) do
    Gorvant::Jumper.new(
      id: id,
      place: "air_handler",
      from: from,
      to: to,
      provenance: Gorvant::Provenance.new(source: "measured")
    )
  end
  recolored =
    lambda do |rig, id, color|
      rig.with(
        cables:
          rig.cables.map do |cable|
            if cable.id == "cable_b"
              cable.with(conductors: cable.conductors.map { |one| one.id == id ? one.with(color: color) : one })
            else
              cable
            end
          end
      )
    end

  # what => [theirs, mine, what both touched, checks of the rig]
  {
    "two facts" => [
      fact.call(base, "transformer_va", 60),
      fact.call(base, "fuse_amps", 5),
      [],
      ->(rig) { [rig[:transformer_va], rig[:fuse_amps]] == [60, 5] }
    ],
    "one fact, said the same" => [
      fact.call(base, "fuse_amps", 5, "read"),
      fact.call(base, "fuse_amps", 5, "told"),
      [],
      ->(rig) { rig[:fuse_amps] == 5 }
    ],
    "one fact, said otherwise" => [
      fact.call(base, "fuse_amps", 5),
      fact.call(base, "fuse_amps", 3),
      ["Low-voltage fuse"],
      ->(rig) { rig[:fuse_amps] == 3 }
    ],
    "two conductors of one cable" => [
      recolored.call(base, "blue", "black"),
      recolored.call(base, "yellow", "gray"),
      [],
      lambda do |rig|
        rig
          .cables
          .find { |cable| cable.id == "cable_b" }
          .conductors
          .to_h { |one| [one.id, one.color] }
          .values_at("blue", "yellow") == %w[black gray]
      end
    ],
    "a jumper of each" => [
      base.with(jumpers: base.jumpers + [jumper.call("a", "W", "Y")]),
      base.with(jumpers: base.jumpers + [jumper.call("b", "Y", "G")]),
      [],
      ->(rig) { rig.jumpers.map(&:id).last(2) == %w[a b] }
    ],
    "a jumper taken out by one" => [
      base.with(jumpers: []),
      fact.call(base, "fuse_amps", 5),
      [],
      ->(rig) { rig.jumpers.empty? && rig[:fuse_amps] == 5 }
    ],
    "two notes" => [base.with(note: "theirs"), base.with(note: "mine"), ["Note"], ->(rig) { rig.note == "mine" }],
    "a name and a note" => [
      base.with(name: "Theirs"),
      base.with(note: "mine"),
      [],
      ->(rig) { [rig.name, rig.note] == %w[Theirs mine] }
    ],
    "nothing of mine" => [fact.call(base, "fuse_amps", 5), base, [], ->(rig) { rig[:fuse_amps] == 5 }]
  }.each do |what, (theirs, mine, both, check)|
    it "puts #{what} together" do
      merge = described_class.new(base, theirs, mine)
      expect(merge.both.map(&:title)).to eq(both)
      expect(merge.clean?).to be(both.empty?)
      expect(check.call(merge.rig)).to be(true)
    end
  end

  it "of what does not touch comes out the same whichever of the two is mine, and of one change alone is that change" do
    random = Random.new(4)
    said = {
      "transformer_va" => 60,
      "fuse_amps" => 5,
      "float_switch" => "y",
      "air_pressure_switch" => true,
      "crankcase_heater" => true,
      "start_kit" => true
    }
    expect(said.select { |key, value| base[key] == value }).to eq({})
    20.times do
      theirs, mine =
        said
          .keys
          .shuffle(random: random)
          .each_slice(3)
          .map { |some| some.inject(base) { |rig, key| fact.call(rig, key, said.fetch(key)) } }
      there, back = described_class.new(base, theirs, mine), described_class.new(base, mine, theirs)
      expect(there.rig&.facts).to eq(back.rig&.facts)
      expect(described_class.new(base, theirs, base).rig).to eq(theirs)
      expect(described_class.new(base, base, mine).rig).to eq(mine)
    end
  end

  it "has no rig where the two do not go together" do
    apart = Gorvant::Composer.compose(name: "Bramble mill", facts: { "changeover_terminal" => "separate" })
    joined = Gorvant::Composer.compose(name: "Bramble mill", facts: { "changeover_terminal" => "single" })
    gone =
      described_class.new(
        apart,
        joined,
        apart.with(jumpers: apart.jumpers + [jumper.call("a", "Y", "B").with(place: "wall")])
      )
    expect([gone.rig, gone.clean?]).to eq([nil, false])
  end
end
