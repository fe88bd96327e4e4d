# frozen_string_literal: true

require_relative "../../support/random_rigs"

RSpec.describe Gorvant::Notation do
  def parse(text) = described_class.parse(text, name: "Panel")

  # What the notation can say of a rig.
  def said(rig)
    conductors =
      rig.cables.map do |cable|
        [
          cable.id,
          cable.from,
          cable.to,
          cable.gauge_awg,
          cable.length_feet.to_f,
          cable.conductors.map { |one| wire(one) }.sort
        ]
      end
    [
      Gorvant::Catalogue.facts.keys.to_h { |key| [key, rig[key]] },
      conductors,
      rig.jumpers.map { |jumper| [jumper.place, [jumper.from, jumper.to].sort] }.sort
    ]
  end

  def wire(one) =
    [one.color, one.from, one.to, one.spare, one.splices.map { |splice| [splice.id, splice.color] }].inspect

  def problems(text)
    parse(text)
    []
  rescue Gorvant::BadNotation => e
    e.problems
  end

  # The usual rig with one conductor otherwise.
  def edited(cable_id, conductor_id, jumpers: [], **change)
    usual = Gorvant::Composer.compose(name: "Panel", facts: Bench::APART.transform_keys(&:to_s))
    cables =
      usual.cables.map do |cable|
        if cable.id == cable_id
          cable.with(conductors: cable.conductors.map { |one| one.id == conductor_id ? one.with(**change) : one })
        else
          cable
        end
      end
    Gorvant::Rig.build(**usual.to_h, cables: cables, jumpers: usual.jumpers + jumpers)
  end

  jumper = -> do
    Gorvant::Jumper.new(
      id: "left",
      place: "outdoor",
      from: "R",
      to: "Y",
      provenance: Gorvant::Provenance.new(source: "told")
    )
  end
  odd = {
    "a conductor on the wrong terminal" => -> { edited("cable_a", "yellow", to: "G") },
    "red on Y outdoors" => -> { edited("cable_b", "red", to: "Y") },
    "a spare capped at one end" => -> { edited("cable_a", "green", to: nil, spare: true) },
    "a spare capped at both" => -> { edited("cable_a", "green", from: nil, to: nil, spare: true) },
    "a splice with a change of color" => -> do
      edited("cable_b", "yellow", splices: [Gorvant::Splice.new(id: "attic", color: "white")])
    end,
    "C on B" => -> { edited("cable_a", "blue", from: "B") },
    "a jumper left on R and Y" => -> { edited("cable_a", "red", jumpers: [jumper.call]) },
    "two conductors side by side" =>
      lambda do
        usual = Gorvant::Composer.compose(name: "Panel", facts: Bench::APART.transform_keys(&:to_s))
        double = Gorvant::Conductor.new(id: "black", color: "black", from: "Y", to: "Y")
        Gorvant::Rig.build(
          **usual.to_h,
          cables:
            usual.cables.map do |cable|
              cable.id == "cable_a" ? cable.with(conductors: cable.conductors + [double]) : cable
            end
        )
      end
  }
  demo = Dir[File.expand_path("../../../db/demo/rigs/*.json", __dir__)].map { |path| File.basename(path, ".json") }
  everything =
    odd.merge(
      demo.to_h { |name| [name, -> { rig(name) }] },
      (1..60).to_h { |seed| ["random rig #{seed}", lambda { RandomRigs.rig(seed) }] }
    )
  everything.each do |name, fitted|
    it "prints and reads back #{name} without loss" do
      one = instance_exec(&fitted)
      text = described_class.print(one)
      back = parse(text)
      expect(said(back)).to eq(said(one))
      expect(described_class.print(back)).to eq(text)
    end
  end

  it "reads a cable's length in meters, and keeps it in feet" do
    text = described_class.print(rig).sub(/(cable_a: .*AWG), [\d.]+ ft/, '\1, 12.8 m')
    expect(parse(text).cables.find { |cable| cable.id == "cable_a" }.length_feet).to eq(42.0)
    expect { parse(text.sub("12.8 m", "12.8 mi")) }.to raise_error(Gorvant::BadNotation, /is no cable/)
  end

  it "makes a rig of seven rungs from a paper ladder, and leaves the rest to the archetype" do
    rig = parse(<<~RUNGS)
      R > wall.G > air_handler.G > (IFR) > C
      R > wall.Y [yellow] > ah.Y [yellow /attic/ white] > outdoor.Y > LPS > HPS > DTS > M > T1 > (CC) > C
      R > wall.O > indoor.O > outdoor.O > (RVS) > C   # as the sticker says
        | R > DFR/no > outdoor.O
      R > wall.aux > air_handler.W1 > (SEQ) > C
        | R > wall.E > wall.W2
        | R > DFR/no > outdoor.W2out > air_handler.W
      R > DFT > (DFT_IN) > C
      R > (BOARD) > C
      R > DEFROST > (DFR) > C
    RUNGS
    expect(rig[:safeties]).to eq(%w[LPS HPS DTS])
    expect(rig.facts.keys).to include("safeties", "run_time_tap", "valve_feed", "emergency_path")
    expect(rig.facts["safeties"].provenance.source).to eq("diagram")
    expect(rig.assumed).to include("transformer_va", "contactor_poles")
    yellow = rig.cables.last.conductors.find { |one| one.from == "Y" }
    expect([yellow.color, yellow.splices.map(&:color)]).to eq(["yellow", ["white"]])
    expect(running(trace("heat", on: rig))).to include("COMP", "OFM", "BLOWER")
  end

  # [text, line, column, word, part of the sentence, suggestion]
  [
    ["R > wall.G > (IFR) > C\nR > outdor.Y > (CC) > C", 2, 5, "outdor.Y", "no word of a rung", "outdoor.Y"],
    ["R > wall.Y > LSP > (CC) > C", 1, 14, "LSP", "nearest is LPS", "LPS"],
    ["R > wall.Y (CC) > C", 1, 12, "(CC) > C", "a '>' belongs between two words", nil],
    ["R > > (CC)", 1, 5, ">", "missing", nil],
    ["R > C", 1, 5, "C", "dead short", nil],
    ["R > wall.Y > (CC", 1, 14, "(CC", "no closing parenthesis", "(CC)"],
    ["R > wall.Y [yellow > (CC) > C", 1, 12, "[", "no closing bracket", nil],
    ["R > wall.Y [] > air_handler.Y > outdoor.Y > (CC) > C", 1, 12, "[]", "says no color", nil],
    ["R > wall.Y > outdoor.Y > M > (CC) > C", 1, 14, "outdoor.Y", "no cable runs from wall to outdoor", nil],
    ["R > wall.G > air_handler.G > (IFR) > (CC) > C", 1, 38, "(CC)", "second load", nil],
    ["wall.G > air_handler.G > (IFR) > C", 1, 1, "wall.G", "a rung begins at R", "R"],
    ["| R > wall.E > wall.W2", 1, 1, "|", "no rung above", nil],
    [
      "R > wall.O > air_handler.O > outdoor.B > (RVS) > C",
      1,
      30,
      "outdoor.B",
      "says reversing valve: heating (B)",
      nil
    ],
    ["R > wall.Y > air_handler.Y > outdoor.Y > LPS > LPS > M > (CC) > C", 1, 58, "(CC)", "2 times", nil],
    ["with bakup none", 1, 6, "bakup", "nearest is backup", "backup"],
    ["with transformer_va many", 1, 21, "many", "a number from 10 to 200", nil],
    ["with demand_below_air_degrees_f 0: 9, 20 11", 1, 33, "0: 9, 20 11", "has to be a pair", nil],
    ["cable_a: wall to attic", 1, 1, "cable_a: wall to attic", "is no cable", nil],
    ["R > wall.Y > air_handler.Y > outdoor.Y > DFT > M > (CC) > C", 1, 42, "DFT", "cannot follow outdoor.Y here", "M"]
  ].each do |text, line, column, word, says, suggestion|
    it "points at #{word.inspect} in #{text.lines.last.strip[0, 44].inspect}" do
      expect(problems(text).first).to include(
        "line" => line,
        "column" => column,
        "word" => word,
        "problem" => include(says),
        "suggestion" => suggestion
      )
    end
  end

  it "answers a thousand mutilated texts with a rig or with a place and a reason" do
    whole = (1..10).map { |seed| described_class.print(RandomRigs.rig(seed)) }
    outcomes = (1..1000).map { |seed| problems(mutilated(whole[seed % whole.size], Random.new(seed))) }
    expect(outcomes.flatten).to all(include("line" => be_positive, "column" => be_positive, "problem" => match(/\S/)))
    expect(outcomes.count(&:empty?)).to be_between(20, 500)
  end

  def mutilated(text, random)
    random
      .rand(1..4)
      .times
      .inject(text.dup) do |so_far, _time|
        at = random.rand([so_far.size, 1].max)
        case random.rand(5)
        when 0
          so_far[0, at] + so_far[(at + 1)..].to_s
        when 1
          so_far.insert(
            at,
            [">", "|", "[", "]", "(", ")", "\n", " ", "/", ":", "#", "é", "\u0000", "with ", "R > "].sample(
              random: random
            )
          )
        when 2
          so_far.lines.shuffle(random: random).drop(1).join
        when 3
          so_far
            .split(/(?<=\s)/)
            .then do |words|
              words.empty? ? so_far : so_far.sub(words.sample(random: random), words.sample(random: random))
            end
        else
          so_far[0, at]
        end
      end
  end

  describe Gorvant::RungComparison do
    it "says what differs, rung by rung, in the words of the trade" do
      panel = Gorvant::Composer.compose(name: "Panel", facts: { "safeties" => %w[LPS HPS DTS], "w2_out_run" => false })
      rungs =
        described_class.of(panel, Gorvant::Composer.archetype_of(panel), names: %w[panel archetype]).reject(&:same)
      expect(rungs.map(&:code)).to eq(%w[CC SEQ])
      expect(rungs[0]).to have_attributes(says: ["DTS only on the panel"], marked: ["DTS"])
      expect(rungs[1].says).to eq(["archetype also feeds it by DFR/no > outdoor.W2_out > air_handler.W"])
    end

    it "tells a rung that only one of them has, and finds nothing between equals" do
      gas = Gorvant::Composer.compose(name: "Gas", facts: { "backup" => "gas" })
      none = Gorvant::Composer.compose(name: "None", facts: { "backup" => "none" })
      expect(described_class.of(gas, none).reject(&:same).map { |rung| [rung.code, rung.says] }).to eq(
        [["GAS", ["only on the first"]]]
      )
      expect(described_class.of(gas, gas)).to all(have_attributes(same: true, says: []))
    end
  end
end
