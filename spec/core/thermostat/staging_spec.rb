# frozen_string_literal: true

require_relative "../../support/core"

# When each stage comes, against tables that a technician would work out by hand.
RSpec.describe Gorvant::Staging do
  # Two compressor stages and strips, no minimum-off, 12 minutes between stages while the error is above 1.5 °F.
  def rig(**facts)
    usual = {
      **Bench::APART,
      compressor_stages: 2,
      stage_2: "solenoid",
      staging_school: "time",
      stage_delay_minutes: 12,
      stage_error_degrees_f: 1.5,
      thermostat_minimum_off_seconds: 0
    }
    Gorvant::Composer.compose(name: "Bench", facts: usual.merge(facts).transform_keys(&:to_s))
  end

  # moves: [[minute, what, value], ...]. The set point is 70; an error is a room that much below (above, in cooling).
  def run(rig, mode, error, *moves, outdoor: 30, minutes: 60)
    moves =
      moves.map { |minute, what, value| what == "error" ? [minute, "room", room(mode, value)] : [minute, what, value] }
    list =
      [{ "at_seconds" => 0, "what" => "mode", "value" => mode }] +
        moves.map { |minute, what, value| { "at_seconds" => minute * 60, "what" => what, "value" => value } }
    start = {
      "set_point_degrees_f" => 70,
      "room_degrees_f" => room(mode, error),
      "outdoor_degrees_f" => outdoor,
      "coil_degrees_f" => 50
    }
    Gorvant::Run.of(rig, Gorvant::Script.parse({ "start" => start, "moves" => list }, minutes * 60.0))
  end

  def room(mode, error) = mode == "cool" ? 70 + error : 70 - error

  # { terminal => "m:ss" at which it first came on }
  def came(timeline)
    timeline
      .signals
      .select { |signal| signal.id.start_with?("THERMOSTAT.") }
      .filter_map do |signal|
        on = signal.steps.find { |_at, value| value }
        [signal.id.split(".").last, "#{on[0].floor / 60}:#{(on[0].floor % 60).to_s.rjust(2, "0")}"] if on
      end
      .to_h
  end

  # Terminals that are live at a minute, the changeover aside.
  def on_at(timeline, minute)
    on =
      timeline.signals.select do |signal|
        signal.id.start_with?("THERMOSTAT.") && timeline.value_at(signal.id, minute * 60)
      end
    on.map { |signal| signal.id.split(".").last }.sort - %w[O B]
  end

  [ # [what, error at first, moves, stages by the terminal that brings them]
    ["held at 4.0", 4.0, [], { "Y" => "0:00", "Y2" => "12:00", "W2" => "24:00" }],
    ["1.5 exactly, which is not above it", 1.5, [], { "Y" => "0:00" }],
    ["down to 1.5 exactly at 12:00", 4.0, [[12, "error", 1.5]], { "Y" => "0:00" }],
    ["4.0, then 1.0 from 20:00", 4.0, [[20, "error", 1.0]], { "Y" => "0:00", "Y2" => "12:00" }],
    ["1.0 until 13:30, then 2.0", 1.0, [[13.5, "error", 2.0]], { "Y" => "0:00", "Y2" => "13:30", "W2" => "25:30" }],
    ["too small to begin with", 0.9, [], {}],
    [
      "the set point pushed to its limit at 5:00, fast recovery off",
      4.0,
      [[5, "set_point", 90]],
      { "Y" => "0:00", "Y2" => "12:00", "W2" => "24:00" }
    ]
  ].each do |what, error, moves, stages|
    it "brings stages by time with differential: #{what}" do
      expect(came(run(rig, "heat", error, *moves)).slice("Y", "Y2", "W2")).to eq(stages)
    end
  end

  [ # [trigger, mode, error, moves, terminals at 6 minutes]
    ["error", "heat", 3.0, [], %w[G W2 Y Y2]],
    ["error", "heat", 2.9, [], %w[G Y]],
    ["push", "heat", 9.0, [], %w[G Y]],
    ["push", "heat", 2.0, [[5, "set_point", 71]], %w[G W2 Y Y2]],
    ["push", "heat", 2.0, [[5, "set_point", 69.5]], %w[G Y]],
    ["either", "heat", 2.0, [[5, "set_point", 71]], %w[G W2 Y Y2]],
    ["push", "cool", 9.0, [], %w[G Y]],
    ["push", "cool", 2.0, [[5, "set_point", 69]], %w[G Y Y2]],
    ["error", "cool", 3.0, [], %w[G Y Y2]],
    ["off", "heat", 9.0, [[5, "set_point", 90]], %w[G Y]]
  ].each do |trigger, mode, error, moves, terminals|
    it "recovers fast in #{mode} by #{trigger}: error #{error}, #{moves.inspect}" do
      own = mode == "heat" ? :fast_heating : :fast_cooling
      other = mode == "heat" ? :fast_cooling : :fast_heating
      expect(on_at(run(rig(own => trigger, other => "off"), mode, error, *moves), 6)).to eq(terminals)
      expect(on_at(run(rig(own => "off", other => trigger), mode, error, *moves), 6)).to eq(%w[G Y]),
      "heating and cooling are set apart"
    end
  end

  it "steps by a differential for each stage without delay, and drops them one by one or all together" do
    steps = { staging_school: "per_stage", stage_2_step_degrees_f: 2, aux_step_degrees_f: 3 }
    moves = [
      [1, "error", 2.9],
      [2, "error", 3.0],
      [3, "error", 5.9],
      [4, "error", 6.0],
      [5, "error", 5.4],
      [6, "error", 2.4],
      [7, "error", 0.2],
      [8, "error", 0]
    ]
    seen =
      %w[reverse all].to_h do |how|
        timeline = run(rig(**steps, stage_drop: how), "heat", 0.5, [0.5, "error", 1.0], *moves)
        [how, (0..8).map { |minute| on_at(timeline, minute + 0.75) - ["G"] }]
      end
    both = [%w[Y], %w[Y], %w[Y Y2], %w[Y Y2], %w[W2 Y Y2]]
    expect(seen["reverse"]).to eq(both + [%w[Y Y2], %w[Y], %w[Y], []])
    expect(seen["all"]).to eq(both + [%w[W2 Y Y2], %w[W2 Y Y2], %w[W2 Y Y2], []])
    named =
      %w[slow medium fast].map do |name|
        described_class.new(rig(staging_school: "per_stage", anticipation: name)).steps
      end
    expect(named.transpose.drop(1)).to all(satisfy { |slow, medium, fast| slow > medium && medium > fast })
  end

  it "cools with the changeover first, then Y1 and G, then Y2, and never with aux" do
    timeline = run(rig(thermostat_minimum_off_seconds: 0), "off", 0, [1, "room", 90], [1, "mode", "cool"], minutes: 180)
    seconds = timeline.signals.to_h { |signal| [signal.id, signal.steps.find { |_at, value| value == true }&.first] }
    expect(seconds["THERMOSTAT.O"]).to be < seconds["THERMOSTAT.Y"]
    expect(seconds["THERMOSTAT.G"]).to eq(seconds["THERMOSTAT.Y"])
    expect(seconds["THERMOSTAT.Y2"] - seconds["THERMOSTAT.Y"]).to be_within(1.5).of(720)
    expect(seconds["THERMOSTAT.W2"]).to be_nil
  end

  describe "balance points 25 and 50" do
    let(:points) do
      {
        balance_points: true,
        outdoor_sensor: true,
        compressor_balance_degrees_f: 25,
        auxiliary_balance_degrees_f: 50,
        stage_delay_minutes: 1
      }
    end

    def loads(timeline, minute) =
      %w[COMP GAS HTR].select do |load|
        timeline.signals.any? { |signal| signal.id == load } && timeline.value_at(load, minute * 60)
      end

    # Error held at 9: three stages are asked for.
    def at(outdoor, backup, minute, mode: "heat", **more) =
      loads(run(rig(**points, backup: backup, **more), mode, 9, outdoor: outdoor, minutes: 20), minute)

    it "runs what they allow, with gas and with strips" do
      expect([at(58, "gas", 10), at(40, "gas", 10), at(20, "gas", 10)]).to eq([%w[COMP], %w[GAS], %w[GAS]])
      expect([at(58, "strips", 10), at(40, "strips", 10), at(20, "strips", 10)]).to eq(
        [%w[COMP], %w[COMP HTR], %w[HTR]]
      )
      expect([at(58, "gas", 1, mode: "emergency"), at(58, "strips", 1, mode: "emergency")]).to eq([%w[GAS], %w[HTR]])
    end

    it "stops the compressor a minute after gas comes on, and keeps it out until the call ends, whatever the weather does" do
      timeline =
        run(
          rig(**points, backup: "gas"),
          "heat",
          9,
          [10, "outdoor", 58],
          [15, "error", 0],
          [16, "error", 2],
          outdoor: 40,
          minutes: 30
        )
      gas = timeline.signal("THERMOSTAT.W2").steps.find { |_at, value| value }.first
      out = timeline.signal("THERMOSTAT.Y").steps.reverse.find { |at, value| !value && at < 900 }.first
      expect(out - gas).to be_within(0.1).of(60)
      expect([5, 12, 20].map { |minute| timeline.value_at("THERMOSTAT.Y", minute * 60) }).to eq([false, false, true])
      expect(words(Gorvant::Chain.new(timeline, "THERMOSTAT.Y", 720))).to include(
        "the compressor stays out until it ends"
      )
    end

    it "asks for all stages at once: both for a minute with gas, both for good with strips, backup alone below the balance point" do
      asked = ->(backup, outdoor) do
        run(rig(**points, backup: backup, fast_heating: "error"), "heat", 9, outdoor: outdoor, minutes: 20)
      end
      gas, strips, cold = asked.call("gas", 40), asked.call("strips", 40), asked.call("gas", 20)
      expect([0.5, 0.98, 1.05, 15].map { |minute| on_at(gas, minute) & %w[Y W2] }).to eq(
        [%w[W2 Y], %w[W2 Y], %w[W2], %w[W2]]
      )
      expect([0.5, 15].map { |minute| on_at(strips, minute) & %w[Y W2] }).to eq([%w[W2 Y], %w[W2 Y]])
      expect([0.5, 15].map { |minute| on_at(cold, minute) & %w[Y W2] }).to eq([%w[W2], %w[W2]])
    end

    it "leaves nothing to heat between a compressor point above the auxiliary one, and does nothing without a sensor" do
      crossed = { compressor_balance_degrees_f: 52, auxiliary_balance_degrees_f: 46 }
      expect([44, 49, 54].map { |outdoor| at(outdoor, "strips", 10, **crossed) }).to eq([%w[HTR], [], %w[COMP]])
      expect(at(49, "strips", 10, **crossed, outdoor_sensor: false)).to eq(%w[COMP HTR])
      expect(at(44, "strips", 10, **crossed, compressor_lockout: "off_for_test")).to eq(%w[COMP HTR])
    end

    it "follows a course of the weather past both" do
      timeline = run(rig(**points), "heat", 9, outdoor: 60, minutes: 20)
      expect(timeline.value_at("THERMOSTAT.W2", 1000)).to be(false)
      moves = [
        { "at_seconds" => 0, "what" => "mode", "value" => "heat" },
        { "at_seconds" => 600, "what" => "outdoor", "value" => 10, "over_seconds" => 3000 }
      ]
      start = { "set_point_degrees_f" => 70, "room_degrees_f" => 60, "outdoor_degrees_f" => 60 }
      timeline = Gorvant::Run.of(rig(**points), Gorvant::Script.parse({ "start" => start, "moves" => moves }, 4000.0))
      expect(timeline.signal("THERMOSTAT.W2").steps.last).to match([be_within(0.1).of(1200), true])
      expect(timeline.signal("THERMOSTAT.Y").steps.last).to match([be_within(0.1).of(2700), false])
    end
  end

  def words(chain) = chain.links.flat_map { |link| [link.says, link.rule_says] }.compact.join(" ")

  it "says why a stage is not on, and when it will be" do
    chain = ->(timeline, output, minute) { Gorvant::Chain.new(timeline, output, minute * 60) }
    waiting = chain.call(run(rig, "heat", 4.0), "THERMOSTAT.Y2", 5)
    expect(words(waiting)).to include("not before its stage delay of 12 min")
    expect(waiting.next_on.seconds).to eq(720)
    expect(words(chain.call(run(rig, "heat", 1.2), "THERMOSTAT.Y2", 20))).to include(
      "the error is 1.2 #{Gorvant::Measures::DELTA}; it needs more than 1.5 #{Gorvant::Measures::DELTA}"
    )
    warm =
      run(rig(balance_points: true, outdoor_sensor: true, auxiliary_balance_degrees_f: 45), "heat", 4.0, outdoor: 50)
    expect(words(chain.call(warm, "THERMOSTAT.W2", 40))).to include(
      "50 °F outside is above the auxiliary balance point of 45 °F"
    )
    expect(chain.call(warm, "THERMOSTAT.W2", 40)).to be_as_designed
  end

  # Whatever the weather, the customer and the settings do.
  describe "under random courses" do
    def random_rig(random)
      numbers = {
        compressor_balance_degrees_f: random.rand(0..40),
        auxiliary_balance_degrees_f: random.rand(30..70),
        stage_delay_minutes: random.rand(0..20),
        thermostat_minimum_off_seconds: [0, 180, 300].sample(random: random)
      }
      chosen =
        %i[staging_school fast_heating fast_cooling stage_drop].to_h do |key|
          [key, Gorvant::Catalogue.facts.fetch(key.to_s)["of"].keys.sample(random: random)]
        end
      rig(
        **numbers,
        **chosen,
        balance_points: true,
        outdoor_sensor: true,
        backup: %w[strips gas].sample(random: random),
        changeover: %w[O B].sample(random: random)
      )
    end

    def random_run(rig, random)
      at = 0
      moves =
        Array.new(30) do
          at += random.rand(0..900)
          what, value =
            [
              ["mode", %w[heat cool off emergency].sample(random: random)],
              ["set_point", random.rand(60..80)],
              ["room", random.rand(60..80)],
              ["outdoor", random.rand(0..90)]
            ].sample(random: random)
          {
            "at_seconds" => at,
            "what" => what,
            "value" => value,
            "over_seconds" => %w[room outdoor].include?(what) ? random.rand(0..1200) : 0
          }
        end
      start = { "outdoor_degrees_f" => random.rand(0..90), "coil_degrees_f" => 60 }
      Gorvant::Run.of(rig, Gorvant::Script.parse({ "start" => start, "moves" => moves }, at + 1800.0))
    end

    # [[from, to]] of a signal.
    def spans(timeline, id)
      steps = timeline.signal(id).steps
      steps.each_with_index.filter_map do |(at, on), i|
        [at, steps[i + 1]&.first || timeline.duration_seconds] if on == true
      end
    end

    # In a straight line between what is recorded.
    def outdoor(timeline, at)
      points = timeline.curves.find { |curve| curve.id == "outdoor" }.points
      (from, low), (to, high) =
        points.each_cons(2).find { |(a, _), (b, _)| at.between?(a, b) && b > a } || [points.last, points.last]
      to > from ? low + ((high - low) * (at - from) / (to - from)) : low
    end

    (1..25).each do |seed|
      it "keeps to order, balance points, minimum-off and gas (seed #{seed})" do
        random = Random.new(seed)
        own = random_rig(random)
        timeline = random_run(own, random)
        y, y2, aux = %w[THERMOSTAT.Y THERMOSTAT.Y2 THERMOSTAT.W2].map { |id| spans(timeline, id) }
        call = ->(at) { timeline.value_at("call", at) }
        expect(y2).to all(satisfy { |from, to| y.any? { |a, b| a <= from && to <= b } })
        expect(aux.map { |from, _to| call.call(from) } - %w[heat_aux]).to eq([])
        expect(y.map { |from, _to| call.call(from) } & %w[off fan emergency]).to eq([])
        expect(y.map { |from, _to| outdoor(timeline, from) if call.call(from).start_with?("heat") }.compact).to all(
          be >= own[:compressor_balance_degrees_f] - 1
        )
        expect(aux.map { |from, _to| outdoor(timeline, from) }).to all(be <= own[:auxiliary_balance_degrees_f] + 1)
        expect(y.each_cons(2).map { |(_, off), (on, _)| on - off }).to all(
          be >= own[:thermostat_minimum_off_seconds] - 0.01
        )
        both = aux.product(y).map { |(a, b), (c, d)| [b, d].min - [a, c].max }
        expect(both).to all(be <= own[:gas_cut_seconds] + 0.01) if own[:backup] == "gas"
      end
    end
  end

  it "heats a simple room: slower the colder it is, faster with each stage, and level where loss and gain meet" do
    course =
      lambda do |outdoor|
        start = { "set_point_degrees_f" => 70, "room_degrees_f" => 64, "outdoor_degrees_f" => outdoor, "house" => true }
        script = { "start" => start, "moves" => [{ "at_seconds" => 0, "what" => "mode", "value" => "heat" }] }
        Gorvant::Run.of(rig(thermostat_minimum_off_seconds: 240), Gorvant::Script.parse(script, 14_400.0))
      end
    mild, cold = [50, 10].map { |outdoor| course.call(outdoor) }
    warm =
      [mild, cold].map do |timeline|
        timeline.curves.find { |curve| curve.id == "room" }.points.find { |_at, room| room >= 70 }&.first ||
          Float::INFINITY
      end
    expect(warm[0]).to be < warm[1]
    expect(mild.signal("call").steps.map(&:last)).to include("off", "heat_aux")
    expect(mild.signal("THERMOSTAT.Y").steps.size).to be > 3
  end
end
