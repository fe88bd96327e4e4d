# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/random_rigs"

# What a wiring as found does, by the circuit.
RSpec.describe Gorvant::WiringCheck do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Bench", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def landing(cable, conductor, place, terminal, **more) =
    { "cable" => cable, "conductor" => conductor, "place" => place, "lands_on" => terminal }.merge(
      more.transform_keys(&:to_s)
    )
  def check(rig, landings = [], settings: {}, jumpers: []) =
    described_class.new(
      rig,
      Gorvant::AsFound.parse({ "landings" => landings, "settings" => settings, "jumpers" => jumpers }, rig)
    )
  def codes(check) = check.told.map { |told| told.finding.code }
  def says(check) = check.effects.to_h { |effect| [effect.trial, effect.says] }
  def orange_on_b = landing("cable_a", "orange", "wall", "B")

  it "finds nothing in random rigs wired as they should be" do
    (1..15).each do |seed|
      rig = RandomRigs.rig(seed)
      settings =
        Gorvant::Target.rig(rig).then { |right| Gorvant::Target.fitting(rig).keys.to_h { |key| [key, right[key]] } }
      found = check(rig, settings: settings)
      expect(
        [
          seed,
          codes(found) -
            %w[
              transformer_overloaded
              cable_drop
              drawn_wrong
              emergency_held_off
              jumper_forbidden_declared
              w2_out_not_run
            ],
          found.correction.moves
        ]
      ).to eq([seed, [], []])
    end
  end

  describe "a thermostat left at one heat, one cool, on an O type" do
    let(:conventional) { { "system_setup" => "conventional" } }

    it "solves each call: nothing in heating with the white on W2, strips with it on W1, and the changeover dead" do
      nothing = check(rig_with(w1_terminal: true), settings: conventional)
      strips = check(rig_with(w1_terminal: true), [landing("cable_a", "white", "wall", "W1")], settings: conventional)
      expect(says(nothing)["heat"]).to start_with("nothing runs; should be: the heat pump heats")
      expect(says(strips)["heat"]).to start_with("strips heat, without blower; should be: the heat pump heats")
      expect(says(rig_with.then { |rig| check(rig, settings: conventional) })["heat"]).to start_with("strips heat")
      [nothing, strips].each do |one|
        expect(says(one)["cool"]).to include(
          "the heat pump heats; should be: the heat pump cools",
          "reversing valve solenoid off"
        )
      end
      expect([nothing, strips].map { |one| codes(one).first }).to all(eq("setting_system_setup"))
      expect(nothing.correction.moves).to eq(["Set System to: air-source heat pump"])
    end
  end

  [ # [what, facts, landings, settings, code of the finding, whether every call works]
    [
      "set to B at a single terminal",
      { changeover_terminal: "single" },
      [],
      { "changeover_setup" => "B" },
      ["setting_changeover_setup"],
      false
    ],
    ["the wire on B of two fixed terminals", {}, [:orange_on_b], {}, ["changeover_on_wrong_terminal"], false],
    [
      "both wrong where the set-up swaps them",
      { changeover_terminal: "swapped" },
      [:orange_on_b],
      { "changeover_setup" => "B" },
      %w[setting_changeover_setup changeover_on_wrong_terminal],
      true
    ]
  ].each do |what, facts, landings, settings, found, works|
    it "names #{what}, and says what it does" do
      one = check(rig_with(**facts), landings.map { |name| send(name) }, settings: settings)
      expect(codes(one)).to eq(found)
      expect(one.works?).to be(works)
      expect(one.told.map(&:hidden)).to all(be(works))
      alone = one.told.map { |told| told.effects.to_h { |effect| [effect.trial, effect.says] } }
      expect(alone).to all(
        include(
          "cool" => start_with("the heat pump heats; should be: the heat pump cools"),
          "heat" => start_with("the heat pump cools; should be: the heat pump heats")
        )
      )
      expect(one.correction.moves.size).to eq(works ? 0 : 1)
      if works
        expect(one.told.flat_map { |told| told.finding.evidence }.join).to include("another difference makes up for it")
      end
    end
  end

  # [what, facts, landings, jumpers, code, what a trial says]
  [
    [
      "Y past the safeties",
      {},
      [%w[cable_b yellow outdoor CC]],
      [],
      "y_past_safeties",
      { "heat_HPS_open" => "contactor on, uncalled" }
    ],
    [
      "W2 out capped",
      {},
      [["cable_b", "white", "outdoor", nil]],
      [],
      "w2_out_not_returned",
      { "defrost" => "heat strips off" }
    ],
    [
      "R off outdoors",
      {},
      [["cable_b", "red", "outdoor", nil]],
      [],
      "board_supply_missing",
      { "off" => "defrost board off" }
    ],
    [
      "C on B, thermostat on battery",
      { thermostat_power: "battery" },
      [%w[cable_a blue wall B]],
      [],
      "c_on_b",
      { "heat" => "the fuse opens" }
    ],
    ["C on B, thermostat on C", {}, [%w[cable_a blue wall B]], [], "c_on_b", { "heat" => "nothing runs" }],
    [
      "Y2 nowhere",
      { compressor_stages: 2, stage_2: "solenoid" },
      [["cable_a", "light_blue", "air_handler", nil]],
      [],
      "second_stage_nowhere",
      { "heat_2" => "stage solenoid off" }
    ],
    [
      "aux where this thermostat gives none",
      { w1_terminal: true },
      [%w[cable_a white wall W1]],
      [],
      "aux_on_wrong_terminal",
      { "heat_aux" => "heat strips off" }
    ],
    [
      "RC and RH apart",
      { split_r: true },
      [],
      [["wall", "RC", "RH", false]],
      "rc_rh_apart",
      { "heat_aux" => "heat strips off" }
    ],
    [
      "W2–E in spite of an outdoor thermostat",
      { outdoor_thermostat: true, emergency_path: "two_conductors" },
      [],
      [["wall", "W2", "E", true]],
      "jumper_forbidden",
      { "heat_aux_ODT_open" => "heat strips on, uncalled" }
    ],
    [
      "a jumper left behind",
      {},
      [],
      [["outdoor", "R", "Y", true]],
      "jumper_left",
      { "fan" => "compressor on, uncalled" }
    ],
    [
      "the jumper to E missing",
      {},
      [],
      [["wall", "W2", "E", false]],
      "jumper_missing",
      { "emergency" => "heat strips off" }
    ],
    [
      "crossed",
      {},
      [%w[cable_a yellow air_handler G], %w[cable_a green air_handler Y]],
      [],
      "landing_crossed",
      { "fan" => "compressor on, uncalled" }
    ],
    [
      "Y on the thermostat's Y2 of a single stage",
      {},
      [%w[cable_a yellow wall Y2]],
      [],
      "landing_wrong",
      { "cool" => "contactor off" }
    ],
    ["two on one screw", {}, [%w[cable_a green air_handler Y]], [], "landing_doubled", { "cool" => "blower off" }]
  ].each do |what, facts, landings, jumpers, code, expected|
    it "solves #{what}" do
      one =
        check(
          rig_with(**facts),
          landings.map { |args| landing(*args) },
          jumpers: jumpers.map { |args| %w[place from to found].zip(args).to_h }
        )
      told = one.told.find { |found| found.finding.code == code } or raise "found #{codes(one)}"
      expect(told.finding.severity).to eq("fault")
      expect(told.effects.to_h { |effect| [effect.trial, effect.says] }).to include(
        expected.transform_values { |words| include(words) }
      )
      expect(one.correction).to have_attributes(works: true, complete: true, moves: told.moves)
    end
  end

  it "tells what changes nothing as what it is: another color, a bare spare" do
    landings = [
      landing("cable_a", "yellow", "wall", nil),
      landing("cable_a", "yellow", "air_handler", nil),
      landing("cable_a", "violet", "wall", "Y", color: "violet"),
      landing("cable_a", "violet", "air_handler", "Y", color: "violet"),
      landing("cable_b", "grey", "outdoor", nil, color: "grey", lies: "bare")
    ]
    one = check(rig_with, landings)
    expect(one.told.map { |told| [told.finding.code, told.finding.severity, told.effects] }).to eq(
      [["end_bare", "warning", []], ["color_changed", "note", []]]
    )
    expect(one.works?).to be(true)
  end

  it "finds the fewest moves: three planted errors, of which one does nothing" do
    crossed =
      %w[wall air_handler].flat_map do |place|
        [landing("cable_a", "yellow", place, "G"), landing("cable_a", "green", place, "Y")]
      end
    landings = [*crossed, landing("cable_b", "white", "outdoor", nil)]
    one = check(rig_with, landings)
    expect(one.told.size).to eq(3)
    expect(one.correction).to have_attributes(
      moves: ["At the outdoor unit land the white of cable B on W2 out"],
      works: true
    )
  end

  # What it says to put right is enough, and nothing of it can be left out: tried on the circuit, not on its own words.
  it "comes to a set of moves that is enough and of which none is idle, in random findings" do
    (1..14).each do |seed|
      rig = Gorvant::Target.rig(RandomRigs.rig(seed))
      random = Random.new(seed * 17)
      ends =
        rig.cables.flat_map do |cable|
          cable.conductors.flat_map do |conductor|
            [cable.from, cable.to].map { |place| [cable.id, conductor.id, place] }
          end
        end
      one =
        check(
          rig,
          ends
            .sample(3, random: random)
            .map do |cable, conductor, place|
              landing(cable, conductor, place, [nil, *rig.terminals(place)].sample(random: random))
            end
        )
      next unless one.drawn_right?

      chosen = one.correction.differences
      right = ->(put_right) do
        Gorvant::Effects.right?(
          one.trials.outcomes((one.differences.all - put_right).flat_map(&:faults)),
          one.trials.ideal
        )
      end
      expect([seed, one.correction.works, right.call(chosen)]).to eq([seed, true, true])
      chosen.each { |difference| expect([seed, right.call(chosen - [difference])]).to eq([seed, false]) }
      expect(one.works?).to be(chosen.empty?)
    end
  end

  # As found is a list of faults on the rig as drawn; a rig whose file has the wires where they were found has to do the
  # same.
  it "makes of what was found the very circuit that a rig wired so would be" do
    (1..25).each do |seed|
      rig = Gorvant::Target.rig(RandomRigs.rig(seed))
      random = Random.new(seed * 31)
      ends =
        rig.cables.flat_map do |cable|
          cable.conductors.flat_map do |conductor|
            { cable.from => conductor.from, cable.to => conductor.to }.map do |place, on|
              [cable.id, conductor.id, place, on]
            end
          end
        end
      moved =
        ends
          .sample(random.rand(1..4), random: random)
          .map do |cable, conductor, place, on|
            landing(cable, conductor, place, ([nil, *rig.terminals(place)] - [on]).sample(random: random))
          end
      found = Gorvant::AsFound.parse({ "landings" => moved }, rig)
      one, other =
        [Gorvant::Trials.new(rig).outcomes(found.faults_of(rig)), Gorvant::Trials.new(rewired(rig, moved)).outcomes]
      same =
        one.keys.reject do |trial|
          %i[loads nodes blown chatter].all? { |part| one[trial].public_send(part) == other[trial].public_send(part) }
        end
      expect(same).to eq([]),
      "seed #{seed}, #{moved}: #{same.map { |trial| [trial, one[trial].loads, other[trial].loads] }}"
    end
  end

  def rewired(rig, moved)
    at = moved.to_h { |one| [one.values_at("cable", "conductor", "place"), one["lands_on"]] }
    cables =
      rig.cables.map do |cable|
        cable.with(
          conductors:
            cable.conductors.map do |own|
              own.with(
                from: at.fetch([cable.id, own.id, cable.from]) { own.from },
                to: at.fetch([cable.id, own.id, cable.to]) { own.to }
              )
            end
        )
      end
    rig.with(cables: cables)
  end

  it "adds up the VA and the loss over the cable" do
    thin = rig_with(transformer_va: 20, compressor_stages: 2, stage_2: "contactor")
    long = thin.with(cables: thin.cables.map { |cable| cable.with(length_feet: 500) })
    expect(codes(check(long))).to include("transformer_overloaded", "cable_drop")
    expect(codes(check(rig_with))).to eq([])
  end

  # Words that stay while the loads change are canned words.
  it "never says the same of circuits that do otherwise" do
    seen = Hash.new { |hash, key| hash[key] = [] }
    (1..12).each do |seed|
      rig = RandomRigs.rig(seed)
      random = Random.new(seed)
      ends =
        rig.cables.flat_map do |cable|
          cable.conductors.flat_map do |conductor|
            [cable.from, cable.to].map { |place| [cable.id, conductor.id, place] }
          end
        end
      found =
        ends
          .sample(2, random: random)
          .map do |cable, conductor, place|
            landing(cable, conductor, place, [nil, *rig.terminals(place)].sample(random: random))
          end
      one = check(rig, found)
      outcomes = one.trials.outcomes(one.faults)
      one.effects.each do |effect|
        should = one.trials.ideal.fetch(effect.trial)
        wrong = should.loads.reject { |code, on| outcomes.fetch(effect.trial).loads[code] == on }
        outcome = outcomes.fetch(effect.trial)
        expect(effect.works).to be(wrong.empty? && outcome.blown.empty? && outcome.chatter.empty?)
        seen[effect.says] << wrong unless outcome.blown.any?
      end
    end
    expect(seen.values.map { |wrong| wrong.uniq.size }).to all(eq(1))
    other =
      %w[O B].map do |letter|
        says(
          check(
            rig_with(changeover: letter, changeover_terminal: "single", changeover_setup: letter),
            settings: {
              "changeover_setup" => letter == "O" ? "B" : "O"
            }
          )
        )[
          "cool"
        ]
      end
    expect(other.uniq.size).to eq(2)
  end

  it "refuses a record that cannot be, with every field to blame" do
    landings = [
      landing("cable_a", "orange", "wall", "X"),
      landing("cable_z", "orange", "wall", "O"),
      landing("cable_b", "red", "wall", "R")
    ]
    given = {
      "landings" => landings,
      "settings" => {
        "changeover_setup" => "Q",
        "depth" => 3
      },
      "jumpers" => [{ "place" => "wall", "from" => "R", "to" => "R", "found" => true }]
    }
    expect {
      check(rig_with, given["landings"], settings: given["settings"], jumpers: given["jumpers"])
    }.to raise_error(Gorvant::BadAsFound) do |error|
      expect(error.problems.map { |one| one["field"] }).to eq(
        %w[
          /landings/0/lands_on
          /landings/1/cable
          /landings/2/place
          /jumpers/0/to
          /settings/changeover_setup
          /settings/depth
        ]
      )
    end
  end

  # The E wire capped at both ends, W2–E joined instead: it works while it is cold, and never when emergency heat is
  # needed on a warm day.
  it "tries every call in every weather, so that errors which hide each other in one come out in another" do
    rig =
      Gorvant::Composer.compose(
        name: "Hidden",
        facts: {
          **Bench::APART.transform_keys(&:to_s),
          "outdoor_thermostat" => true
        }
      )
    found =
      Gorvant::AsFound.parse(
        {
          "landings" =>
            %w[wall air_handler].map do |place|
              { "cable" => "cable_a", "conductor" => "brown", "place" => place, "lands_on" => nil }
            end,
          "jumpers" => [{ "place" => "wall", "from" => "W2", "to" => "E", "found" => true }]
        },
        rig
      )
    check = described_class.new(rig, found)
    expect(check.works?).to be(false)
    wrong = check.effects.reject(&:works).map(&:trial)
    expect(wrong).to include("emergency_ODT_open").and(satisfy { |ids| !ids.include?("emergency_ODT_closed") })
    expect(check.standing.mark).to eq("disagrees")
  end

  it "makes its trials from the rig: every call, and in it every switch that is fitted there" do
    trials = ->(**facts) do
      Gorvant::Trials
        .new(Gorvant::Composer.compose(name: "T", facts: Bench::APART.merge(facts).transform_keys(&:to_s)))
        .all
        .map(&:id)
    end
    calls = %w[off fan cool heat heat_aux emergency defrost]
    expect(trials.call(safeties: []) - %w[heat_DFT_open heat_DFT_closed]).to eq(calls)
    expect(trials.call(freeze_stat: true, safeties: %w[HPS])).to include(
      "cool_HPS_open",
      "defrost_HPS_open",
      "cool_FRS_open",
      "heat_aux_FRS_open"
    )
    odt = %w[heat heat_aux emergency defrost].flat_map { |call| %W[#{call}_ODT_open #{call}_ODT_closed] }
    expect(trials.call(outdoor_thermostat: true)).to include(*odt)
    expect(trials.call(y_path: "delay")).to include("heat_lockout", "cool_lockout")
  end

  {
    { outdoor_thermostat: true, emergency_path: "jumper" } => "emergency_held_off",
    { outdoor_thermostat: true, emergency_path: "both" } => "jumper_forbidden_declared",
    { w2_out_run: false } => "w2_out_not_run"
  }.each do |facts, code|
    it "calls #{facts} an error though it is only said, and builds that very circuit" do
      rig = Gorvant::Composer.compose(name: "Said", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
      check = described_class.new(rig, Gorvant::AsFound.new)
      expect(check.told.map { |told| told.finding.code }).to include(code)
      warm =
        Gorvant::Trace.new(
          rig,
          Gorvant::Condition.new(call: "emergency", switches: rig[:outdoor_thermostat] ? { "ODT" => "open" } : {})
        )
      expect(warm.works?("HTR")).to be(facts[:emergency_path] != "jumper")
      sound =
        Gorvant::Composer.compose(name: "Sound", facts: { "outdoor_thermostat" => facts[:outdoor_thermostat] || false })
      expect(described_class.new(sound, Gorvant::AsFound.new).told).to eq([])
    end
  end

  it "gives an all-clear only of what was looked at" do
    rig = Gorvant::Composer.compose(name: "Looked", facts: {})
    ends =
      Gorvant::AsFound
        .new
        .ends(rig)
        .map do |one|
          { "cable" => one.cable, "conductor" => one.conductor, "place" => one.place, "lands_on" => one.lands_on }
        end
    stands =
      lambda do |landings, jumpers = [], settings = {}|
        described_class.new(
          rig,
          Gorvant::AsFound.parse({ "landings" => landings, "jumpers" => jumpers, "settings" => settings }, rig)
        ).standing
      end
    expect(stands.call([])).to have_attributes(mark: "untouched", says: include("No end looked at yet"))
    expect(stands.call(ends.first(3))).to have_attributes(
      mark: "so_far",
      says: include("3 of #{ends.size} ends", "jumper W2–E", "the set-up")
    )
    jumper = { "place" => "wall", "from" => "W2", "to" => "E", "found" => true }
    settings = Gorvant::Target.fitting(rig).transform_values(&:first)
    expect(stands.call(ends, [jumper]).mark).to eq("so_far")
    expect(stands.call(ends, [jumper], settings)).to have_attributes(
      mark: "agrees",
      says: start_with("Every call works as found")
    )
    moved =
      ends.map { |one| one["conductor"] == "orange" && one["place"] == "outdoor" ? one.merge("lands_on" => "Y") : one }
    expect(stands.call(moved, [jumper], settings).mark).to eq("disagrees")
  end
end
