# frozen_string_literal: true

require_relative "../../support/random_rigs"

RSpec.describe Gorvant::Run do
  def rig_with(**facts) =
    Gorvant::Composer.compose(name: "Run", facts: Bench::APART.merge(facts).transform_keys(&:to_s))
  def move(at, what, value, **more) =
    { "at_seconds" => at, "what" => what, "value" => value }.merge(more.transform_keys(&:to_s))
  def script(moves, seconds, **start) =
    Gorvant::Script.parse({ "start" => start.transform_keys(&:to_s), "moves" => moves }, seconds)
  def run(rig, moves, seconds, **start) = described_class.of(rig, script(moves, seconds, **start))
  def starts(timeline, signal) =
    timeline.signal(signal).steps.each_cons(2).count { |before, after| !before[1] && after[1] == true }
  def stops(timeline, signal) =
    timeline.signal(signal).steps.each_cons(2).count { |before, after| before[1] == true && !after[1] }

  def on_spans(timeline, signal)
    timeline.signal(signal).steps.each_cons(2).filter_map { |(from, value), (to, _next)| [from, to] if value == true }
  end

  let(:cold) { { outdoor_degrees_f: 30 } }
  let(:heat) { [move(5, "call", "heat")] }

  describe "the turn into and out of a defrost" do
    let(:usual) { { board_family: "osier", board_hold_seconds: 0 } }

    it "starts the compressor once where it runs on" do
      timeline = run(rig_with(**usual), heat, 2 * 3600, **cold)
      expect([starts(timeline, "defrost"), starts(timeline, "COMP"), stops(timeline, "COMP")]).to eq([1, 1, 0])
    end

    it "stops and starts it twice more where the board drops the contactor, and W2 calls the strips meanwhile" do
      rig = rig_with(**usual, defrost_turn: "drops", sequencer_on_seconds: 20)
      timeline = run(rig, heat, 2 * 3600, **cold)
      expect([starts(timeline, "COMP"), stops(timeline, "COMP")]).to eq([3, 2])
      out = timeline.signal("COMP").steps.each_cons(2).find { |before, after| before[1] == true && !after[1] }.last[0]
      strips = on_spans(timeline, "HTR").first[0]
      expect(strips - out).to be_within(0.01).of(20)
      expect(timeline.value_at("COMP", strips)).to be(false)
    end

    it "says so where such a turn contradicts a hold of minutes" do
      codes = ->(hold) do
        run(rig_with(board_family: "osier", defrost_turn: "drops", board_hold_seconds: hold), heat, 60)
          .findings
          .map { |noticed| noticed.finding.code }
      end
      expect([codes.call(300), codes.call(0)]).to eq([["turn_against_hold"], []])
    end
  end

  describe "the reversing valve" do
    it "does not move without pressure difference, then does once the compressor has built it" do
      timeline = run(rig_with, [move(10, "mode", "cool"), move(600, "call", "cool")], 900, mode: "heat", call: "off")
      moved = timeline.events.find { |event| event.signal == "valve" }
      pumped = on_event(timeline, "COMP")
      expect(moved.value).to eq("cooling")
      expect(moved.seconds - pumped.seconds).to be_between(10, 20)
    end

    it "never moves where the compressor does not pump" do
      moves = [move(0, "fault", "begins", of: { "kind" => "not_pumping", "at" => "COMP" }), move(60, "call", "cool")]
      timeline = run(rig_with, moves, 3600)
      expect(timeline.value_at("RVS", 3600)).to be(true)
      expect(timeline.signal("valve").steps.map(&:last)).to eq(["heating"])
      link = Gorvant::Chain.new(timeline, "valve", 3000).links.first
      expect(link.rule_says).to include("no pressure difference")
    end

    it "rests in cooling on a B type and is told to heat first" do
      timeline = run(rig_with(changeover: "B"), heat, 200)
      expect(timeline.signal("valve").steps.map(&:last)).to eq(%w[cooling heating])
      expect(on_event(timeline, "RVS").seconds).to be < on_event(timeline, "COMP").seconds
    end
  end

  def on_event(timeline, signal) = timeline.events.find { |event| event.signal == signal && event.value == true }

  it "trips, holds, retries and locks out, and sends the call to the strips, with its causes" do
    trips =
      (0..2).flat_map do |i|
        [move(400 + (i * 400), "switch", "open", of: "HPS"), move(450 + (i * 400), "switch", "closed", of: "HPS")]
      end
    timeline =
      run(rig_with(board_family: "osier", board_hold_seconds: 180, lockout_trips: 3), heat + trips, 2000, **cold)
    expect(starts(timeline, "CC")).to eq(3)
    locked = on_event(timeline, "lockout")
    expect(locked.seconds).to eq(1200)
    strips = timeline.last_event("HTR", 1900)
    said = Gorvant::Chain.new(timeline, "HTR", 1900).links.map { |link| [link.says, link.rule_says].compact.join(": ") }
    expect(strips.value).to be(true)
    expect(said.join("\n")).to match(/Heat strips on.*Sequencer on.*locked out after 3 trips.*By hand: HPS open/m)
    off = Gorvant::Chain.new(timeline, "CC", 1900)
    expect(off.links.map(&:rule_says).join(" ")).to include("locked out")
    expect(off.as_designed?).to be(false)
    cleared =
      run(
        rig_with(board_family: "osier", board_hold_seconds: 180, lockout_trips: 3),
        heat + trips + [move(1500, "call", "off"), move(1600, "call", "heat")],
        2600,
        **cold
      )
    expect(cleared.value_at("CC", 2500)).to be(true)
  end

  # Script COOL with a call, satisfied, OFF, HEAT without a call: is O live?
  {
    "by_call" => [true, false, false, false],
    "by_mode" => [true, true, false, false],
    "latched" => [true, true, true, false]
  }.each do |school, expected|
    it "keeps O as the thermostat does: #{school}" do
      moves = [move(10, "call", "cool"), move(600, "call", "off"), move(700, "mode", "off"), move(800, "mode", "heat")]
      timeline =
        run(
          rig_with(changeover_school: school),
          moves,
          900,
          mode: "cool",
          room_degrees_f: 69.5,
          set_point_degrees_f: 70
        )
      expect([500, 650, 750, 850].map { |at| timeline.value_at("wall.O", at) }).to eq(expected)
    end
  end

  describe "board power lost and back in a heating call" do
    lifted = { "kind" => "lifted", "at" => "cable_b.red@outdoor" }
    {
      "the air handler's supply" => ->(test) do
        [test.move(600, "supply", "off", of: "air_handler"), test.move(620, "supply", "on", of: "air_handler")]
      end,
      "R lifted and put back" => ->(test) do
        [test.move(600, "fault", "begins", of: lifted), test.move(620, "fault", "ends", of: lifted)]
      end
    }.each do |name, moves|
      it "holds first, by #{name}, where the board does so" do
        timeline =
          run(
            rig_with(board_family: "osier", board_hold_seconds: 240, thermostat_minimum_off_seconds: 0),
            heat + moves.call(self),
            1200,
            **cold
          )
        expect(timeline.signal("CC").steps.select { |_at, value| value == true }.map(&:first)).to eq([6, 860])
        link = Gorvant::Chain.new(timeline, "CC", 700).links.find(&:left_seconds)
        expect([link.rule_says, link.left_seconds, link.as_designed]).to eq(
          ["short-cycle hold after power came back", 160.0, true]
        )
      end

      it "starts at once, by #{name}, where it does not" do
        timeline =
          run(
            rig_with(board_family: "osier", board_hold_seconds: 0, thermostat_minimum_off_seconds: 0),
            heat + moves.call(self),
            1200,
            **cold
          )
        expect(timeline.signal("CC").steps.select { |_at, value| value == true }.map(&:first)).to eq([6, 620])
      end
    end

    it "never speaks of a hold on a plain Y trace" do
      timeline =
        run(
          rig_with(thermostat_minimum_off_seconds: 0),
          heat + [move(600, "supply", "off", of: "air_handler"), move(620, "supply", "on", of: "air_handler")],
          1200,
          **cold
        )
      expect(timeline.signal("CC").steps.select { |_at, value| value == true }.map(&:first)).to eq([6, 620])
      expect(timeline.events.map(&:rule_says).compact).to all(satisfy { |says| !says.include?("hold") })
      expect(timeline.signals.map(&:id)).not_to include("hold")
    end
  end

  it "answers why the contactor is dead with Y live: the hold, how long it still lasts, as designed" do
    moves = heat + [move(600, "call", "off"), move(620, "call", "heat")]
    timeline =
      run(
        rig_with(board_family: "osier", board_hold_seconds: 300, thermostat_minimum_off_seconds: 0),
        moves,
        1200,
        **cold
      )
    chain = Gorvant::Chain.new(timeline, "CC", 739)
    expect([timeline.value_at("outdoor.Y", 739), timeline.value_at("CC", 739)]).to eq([true, false])
    expect(chain.links.first.says).to eq("Contactor off: the board's compressor relay is open.")
    expect(chain.links[1]).to have_attributes(rule_says: "short-cycle hold", left_seconds: 161.0, as_designed: true)
    expect(chain.next_on).to have_attributes(seconds: 900.0, signal: "CC")
  end

  it "lets the thermostat's own minimum-off and the board's hold overlap: the later one decides" do
    moves = heat + [move(600, "call", "off"), move(620, "call", "heat")]
    first_again =
      lambda do |board, wall|
        run(
          rig_with(board_family: "osier", board_hold_seconds: board, thermostat_minimum_off_seconds: wall),
          moves,
          1400,
          **cold
        ).signal("CC").steps.select { |_at, on| on }.last[
          0
        ]
      end
    expect([first_again.call(300, 120), first_again.call(120, 300), first_again.call(0, 0)]).to eq([900, 900, 621])
  end

  describe "strips and blower" do
    it "notices strips without air at the second it happens, with its caution" do
      moves = [move(5, "call", "emergency"), move(300, "call", "off")]
      late = run(rig_with(sequencer_off_seconds: 90, blower_off_delay_seconds: 30), moves, 600).findings
      expect(late.map { |noticed| [noticed.seconds, noticed.finding.code] }).to eq([[330, "strips_without_blower"]])
      expect(late.first.finding.cautions).to include("strips")
      expect(run(rig_with(sequencer_off_seconds: 40, blower_off_delay_seconds: 60), moves, 600).findings).to eq([])
    end

    it "notices W without G on an air handler that does not start its blower on W" do
      open_g = [
        move(0, "fault", "begins", of: { "kind" => "open", "at" => "cable_a.green" }),
        move(5, "call", "emergency")
      ]
      codes = ->(on_w) { run(rig_with(blower_on_w: on_w), open_g, 300).findings.map { |noticed| noticed.finding.code } }
      expect([codes.call(false), codes.call(true)]).to eq([["strips_without_blower"], []])
    end
  end

  it "stops the compressor a minute after gas backup starts, and leaves it out until the call ends" do
    moves = [
      move(5, "call", "heat"),
      move(600, "call", "heat_aux"),
      move(1200, "call", "heat"),
      move(1800, "call", "off"),
      move(2400, "call", "heat")
    ]
    timeline = run(rig_with(backup: "gas", thermostat_minimum_off_seconds: 0), moves, 3000, outdoor_degrees_f: 45)
    expect(on_spans(timeline, "COMP").first).to eq([6, 660])
    expect(timeline.value_at("COMP", 1700)).to be(false)
    expect(timeline.value_at("COMP", 2900)).to be(true)
  end

  it "runs a blower of two speeds faster on Y, and one of one speed just so" do
    moves = [move(5, "call", "fan"), move(100, "call", "heat")]
    two = run(rig_with(blower_speeds: 2), moves, 300, **cold)
    expect(two.signal("blower_speed").steps.map(&:last)).to eq(%w[off low high])
    expect(run(rig_with, moves, 300, **cold).signals.map(&:id)).not_to include("blower_speed")
  end

  it "moves an outdoor thermostat with the weather" do
    ramp = [move(60, "outdoor", 20, over_seconds: 1800)]
    timeline =
      run(
        rig_with(outdoor_thermostat: true, outdoor_thermostat_closes_degrees_f: 35),
        ramp,
        3600,
        outdoor_degrees_f: 50
      )
    closes = on_event(timeline, "ODT")
    expect(closes.seconds).to be_within(0.5).of(60 + 900)
    expect(closes.rule_says).to eq("35 °F outside")
  end

  it "latches a fuse that a jumper blows, and says which came of what" do
    timeline =
      run(
        rig_with,
        heat +
          [
            move(100, "jumper", "on", of: %w[outdoor.R outdoor.C]),
            move(200, "jumper", "off", of: %w[outdoor.R outdoor.C])
          ],
        400
      )
    expect(timeline.value_at("FU", 399)).to be(false)
    expect(timeline.findings.map { |noticed| [noticed.seconds, noticed.finding.code] }).to include([100, "fuse_blown"])
    expect(Gorvant::Chain.new(timeline, "CC", 300).links.map(&:says).join(" ")).to include(
      "FU opens",
      "By hand: outdoor.R to outdoor.C on"
    )
  end

  it "calls by the room against its set point, a differential apart" do
    moves = [move(60, "room", 66, over_seconds: 600), move(900, "room", 71, over_seconds: 600)]
    timeline =
      run(
        rig_with(thermostat_minimum_off_seconds: 0, stage_delay_minutes: 60),
        moves,
        2000,
        mode: "heat",
        set_point_degrees_f: 70,
        room_degrees_f: 70
      )
    expect(timeline.signal("call").steps.map(&:last)).to eq(%w[off heat off])
    expect(timeline.signal("call").steps.map(&:first)[1..]).to match([be_within(1).of(210), be_within(1).of(1380)])
  end

  it "gives every event of random rigs a cause that came before it, a place, and the same timeline twice" do
    (1..12).each do |seed|
      rig = RandomRigs.rig(seed)
      random = Random.new(seed)
      calls = Gorvant::Outputs.calls(rig) - ["defrost"]
      moves = Array.new(8) { |i| move((i * 900) + 5, "call", calls.sample(random: random)) }
      outdoor = random.rand(10..60)
      one, two = Array.new(2) { run(rig, moves, 9000, outdoor_degrees_f: outdoor) }
      expect(Gorvant::Formats::TimelineCsv.dump(one)).to eq(Gorvant::Formats::TimelineCsv.dump(two))
      expect(one.events).to all(satisfy { |event| event.because.nil? || event.because < event.id })
      rootless = one.events.select { |event| event.because.nil? && event.rule.nil? }
      expect(rootless.map { |event| [seed, event.says] }).to eq([])
      one.instants.map(&:first).sample(3, random: random).each { |at| Gorvant::Trace.new(rig, one.condition_at(at)) }
    end
  end

  it "keeps to its word under random weather, safeties, supplies and faults: a cause, a chain for every signal, a drawing" do
    (1..10).each do |seed|
      rig = RandomRigs.rig(seed)
      random = Random.new(seed * 31)
      timeline = run(rig, wild(rig, random), 12_000, outdoor_degrees_f: random.rand(0..60))
      expect(timeline.events).to all(satisfy { |event| event.because.nil? || event.because < event.id })
      at = random.rand * 12_000
      timeline.signals.each do |signal|
        expect(Gorvant::Chain.new(timeline, signal.id, at).links).not_to be_empty, "#{seed}: #{signal.id} at #{at}"
      end
      expect(Gorvant::Trace.new(rig, timeline.condition_at(at)).loads.map(&:why)).to all(match(/\S/))
      expect(Gorvant::Refrigerant.of(timeline)).to all(have_attributes(says: match(/\S/)))
    end
  end

  def wild(rig, random)
    at = 0
    Array.new(20) do
      at += random.rand(0..600)
      wild_move(rig, random, at)
    end
  end

  def wild_move(rig, random, at)
    case random.rand(7)
    when 0..2
      move(at, "call", (Gorvant::Outputs.calls(rig) - ["defrost"]).sample(random: random))
    when 3
      move(
        at,
        "switch",
        %w[open closed].sample(random: random),
        of: Gorvant::Assembly::Positions.movable(rig).sample(random: random)
      )
    when 4
      move(at, "supply", %w[on off].sample(random: random), of: %w[outdoor air_handler].sample(random: random))
    when 5
      move(
        at,
        "fault",
        %w[begins ends].sample(random: random),
        of: Gorvant::Faults::Library.of(rig).sample(random: random)
      )
    else
      move(at, %w[outdoor coil room].sample(random: random), random.rand(0..80), over_seconds: random.rand(0..2000))
    end
  end

  it "shows every instant on the drawings as it stood in the run" do
    timeline = run(rig_with(board_family: "osier"), heat, 2 * 3600, **cold)
    timeline
      .instants
      .map(&:first)
      .each do |at|
        trace = Gorvant::Trace.new(timeline.rig, timeline.condition_at(at))
        (timeline.signals.map(&:id) & trace.load_codes).each do |code|
          expect([at, code, trace.works?(code)]).to eq([at, code, timeline.value_at(code, at)])
        end
      end
  end

  # [script, duration, field, part of the sentence]
  [
    [[["a", 5]], 100, "/script/moves/0", "has to be an object"],
    [
      [
        { "at_seconds" => 50, "what" => "call", "value" => "heat" },
        { "at_seconds" => 20, "what" => "call", "value" => "off" }
      ],
      100,
      "/script/moves/1/at_seconds",
      "goes back: 20 s comes after 50 s"
    ],
    [[], -5, "/duration_seconds", "more than 0"],
    [[], "long", "/duration_seconds", "more than 0"],
    [[{ "at_seconds" => -1, "what" => "call", "value" => "heat" }], 100, "/script/moves/0/at_seconds", "0 or more"],
    [[{ "at_seconds" => 1, "what" => "call", "value" => "warm" }], 100, "/script/moves/0/value", "unknown call 'warm'"],
    [
      [{ "at_seconds" => 1, "what" => "call", "value" => "cool_2" }],
      100,
      "/script/moves/0/value",
      "this rig knows no call"
    ],
    [[{ "at_seconds" => 1, "what" => "weather", "value" => 3 }], 100, "/script/moves/0/what", "unknown 'weather'"],
    [[{ "at_seconds" => 1, "what" => "outdoor", "value" => 900 }], 100, "/script/moves/0/value", "-60 to 200"],
    [
      [{ "at_seconds" => 1, "what" => "switch", "of" => "ODT", "value" => "open" }],
      100,
      "/script/moves/0/of",
      "no switch of this rig"
    ],
    [
      [{ "at_seconds" => 1, "what" => "fault", "of" => { "kind" => "open", "at" => "DTX" }, "value" => "begins" }],
      100,
      "/script/moves/0/of/at",
      "DTS"
    ],
    [
      [{ "at_seconds" => 1, "what" => "jumper", "of" => ["outdoor.R"], "value" => "on" }],
      100,
      "/script/moves/0/of",
      "two points"
    ]
  ].each do |moves, seconds, field, says|
    it "refuses #{moves.last.to_json[0, 60]} for #{seconds} s: #{says}" do
      expect { run(rig_with, moves, seconds) }.to raise_error(Gorvant::Error) { |error|
        expect([error.field, error.message]).to match([field, include(says)])
      }
    end
  end

  # [[link, until]] of what is waited for at an instant.
  def told(timeline, signal, at)
    Gorvant::Chain
      .new(timeline, signal, at)
      .links
      .filter_map { |link| [link.rule_says || link.says, (at + link.left_seconds).round(1)] if link.left_seconds }
  end

  # What a technician is told to wait for: at the second that was told something happens, or the wait was called off
  # before.
  it "keeps its word on how long each wait lasts" do
    waits =
      (1..14).flat_map do |seed|
        rig = RandomRigs.rig(seed).set({ "staging_school" => "time", "stage_delay_minutes" => (seed % 12) + 1 })
        mode, room = [["heat", 64], ["cool", 78]][seed % 2]
        moves = [move(5, "mode", mode), move(500, "mode", "off"), move(640, "mode", mode)]
        timeline =
          run(
            rig,
            moves,
            5400,
            outdoor_degrees_f: 10 + seed,
            room_degrees_f: room,
            set_point_degrees_f: 70,
            coil_degrees_f: 50
          )
        [700, 1200].flat_map do |at|
          timeline.signals.flat_map do |signal|
            told(timeline, signal.id, at).map { |rule, until_seconds| [timeline, signal.id, rule, until_seconds] }
          end
        end
      end
    waits = waits.select { |*, until_seconds| until_seconds < 5000 }
    broken =
      waits.reject do |timeline, signal, rule, until_seconds|
        timeline.events.any? { |event| (event.seconds - until_seconds).abs < 1.0 } ||
          told(timeline, signal, until_seconds - 0.5).none? { |other, _until| other == rule }
      end
    expect(broken.map { |_timeline, *rest| rest }).to eq([])
    expect(waits.size).to be > 50
    expect(waits.map { |wait| wait[2] }.uniq.size).to be >= 4
  end

  it "names those that undo each other without any time passing, and does not hang" do
    flip =
      Class.new(Gorvant::Controller) do
        def id = "flip"
        def memory = { on: false }
        def step(memory, _seen) = answer({ on: !memory[:on] }, { "turn" => !memory[:on] })
      end
    rig = rig_with(board_family: "osier")
    cast = described_class::Cast.new(rig)
    cast.controllers << flip.new
    expect { described_class.of(rig, script(heat, 100), cast: cast) }.to raise_error(
      Gorvant::ZeroTimeLoop,
      /at 0 s these undo each other without any time passing: .*turn of the defrost\z/
    )
  end
end
