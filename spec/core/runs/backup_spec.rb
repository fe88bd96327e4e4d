# frozen_string_literal: true

require_relative "../../support/core"

# Gas beside the compressor, emergency by stages, the order of valve and compressor, and a defrost among them: over
# time.
RSpec.describe Gorvant::Run do
  def rig_with(**facts) =
    Gorvant::Composer.compose(
      name: "Backup",
      facts: { **Bench::APART, thermostat_minimum_off_seconds: 0 }.merge(facts).transform_keys(&:to_s)
    )
  def move(at, what, value, **more) =
    { "at_seconds" => at, "what" => what, "value" => value }.merge(more.transform_keys(&:to_s))

  def run(rig, moves, seconds = 1500.0, **start)
    Gorvant::Run.of(
      rig,
      Gorvant::Script.parse(
        { "start" => { outdoor_degrees_f: 20 }.merge(start).transform_keys(&:to_s), "moves" => moves },
        seconds
      )
    )
  end

  def spans(timeline, signal) =
    [*timeline.signal(signal).steps, [timeline.duration_seconds, nil]].each_cons(2)
      .filter_map { |(from, on), (to, _next)| [from, to] if on == true }
  def on?(timeline, at, *signals) = signals.map { |signal| timeline.value_at(signal, at) }

  let(:two_fuel) { { backup: "gas", compressor_stages: 2, stage_2: "solenoid", gas_cut_seconds: 90 } }

  it "runs every stage on beside the furnace until the cut, then all go together" do
    timeline = run(rig_with(**two_fuel), [move(0, "call", "heat_2"), move(300, "call", "heat_aux")])
    expect(on?(timeline, 389, "THERMOSTAT.Y", "THERMOSTAT.Y2", "GAS", "COMP")).to eq([true, true, true, true])
    expect(on?(timeline, 391, "THERMOSTAT.Y", "THERMOSTAT.Y2", "GAS", "COMP")).to eq([false, false, true, false])
    expect(spans(timeline, "THERMOSTAT.Y").last.last).to eq(spans(timeline, "THERMOSTAT.Y2").last.last)
  end

  it "brings no second stage for the furnace's sake that was not there before" do
    timeline = run(rig_with(**two_fuel), [move(0, "call", "heat"), move(300, "call", "heat_aux")])
    expect(on?(timeline, 350, "THERMOSTAT.Y", "THERMOSTAT.Y2")).to eq([true, false])
  end

  it "never cuts where it is set never to, and starts no standing compressor for the while before a cut" do
    never = run(rig_with(**two_fuel, gas_cut: "never"), [move(0, "call", "heat"), move(300, "call", "heat_aux")])
    expect(on?(never, 1400, "COMP", "GAS")).to eq([true, true])
    idle = run(rig_with(**two_fuel), [move(10, "call", "heat_aux")])
    expect([on?(idle, 30, "COMP", "GAS"), spans(idle, "COMP")]).to eq([[false, true], []])
  end

  it "cuts in a defrost as ever, or not before the defrost is over, as its set-up says" do
    ends =
      %w[as_ever suppressed].map do |way|
        rig =
          rig_with(
            **two_fuel,
            gas_cut_in_defrost: way,
            defrost_interval_minutes: 30,
            defrost_limit_minutes: 10,
            coil_switch_opens_degrees_f: 60
          )
        moves = [move(0, "call", "heat"), move(0, "coil", 20), move(80, "call", "heat_aux"), move(500, "coil", 70)]
        timeline = run(rig, moves, coil_degrees_f: 20, defrost_counted_minutes: 29)
        [spans(timeline, "THERMOSTAT.Y").first.last, spans(timeline, "defrost").first.last]
      end
    expect(ends.first).to eq([170, 170]) # Y is gone in mid-defrost
    expect(ends.last[1]).to eq(500)
    expect(ends.last[0]).to be >= 500
  end

  it "brings aux after E where emergency has two stages, at its own rate and not before" do
    moves = [move(0, "mode", "emergency"), move(10, "room", 60)]
    { 1 => nil, 2 => 910 }.each do |stages, second|
      timeline =
        run(
          rig_with(emergency_stages: stages, emergency_stage_minutes: 15),
          moves,
          set_point_degrees_f: 70,
          room_degrees_f: 70
        )
      expect(spans(timeline, "THERMOSTAT.E").first&.first).to eq(10)
      expect(spans(timeline, "THERMOSTAT.W2").first&.first&.round).to eq(second)
    end
  end

  it "keeps a B valve told to heat in emergency where its maker does, and dead where not" do
    live =
      %w[dead as_heating].map do |way|
        on?(
          run(rig_with(changeover: "B", emergency_changeover: way), [move(0, "call", "emergency")]),
          60,
          "THERMOSTAT.B",
          "COMP"
        )
      end
    expect(live).to eq([[false, false], [true, false]])
  end

  it "tells the valve before the compressor, or together with it" do
    lead =
      %w[valve_first together].map do |order|
        timeline = run(rig_with(changeover_order: order), [move(60, "call", "cool")], outdoor_degrees_f: 80)
        spans(timeline, "THERMOSTAT.Y").first.first - spans(timeline, "THERMOSTAT.O").first.first
      end
    expect(lead).to eq([Gorvant::Catalogue.profile.dig("plant", "changeover_lead_seconds"), 0])
  end

  it "begins with the air-pressure switch closed, and lets it open in mid-defrost without an end" do
    rig = rig_with(air_pressure_switch: true, defrost_interval_minutes: 30, coil_switch_opens_degrees_f: 60)
    frost = ->(at, state) { move(at, "switch", state, of: "APS") }
    start = { coil_degrees_f: 20, defrost_counted_minutes: 29 }
    held =
      run(
        rig,
        [
          frost.call(0, "open"),
          move(0, "call", "heat"),
          move(0, "coil", 20),
          frost.call(300, "closed"),
          frost.call(360, "open"),
          move(600, "coil", 65)
        ],
        **start
      )
    expect(spans(held, "defrost")).to eq([[300, 600]])
    links = Gorvant::Chain.new(held, "defrost", 200).links
    expect(links.map { |link| [link.says, link.rule_says].join(" ") }.join).to include("air").and(
      satisfy { |words| !words.match?(/cold coil/) }
    )
  end

  describe Gorvant::Chain do
    def chain(timeline, signal, at) = described_class.new(timeline, signal, at)

    it "is as designed by the link that decides: a hold, a stage delay, a latch, a balance point, a gas cut" do
      held =
        run(
          rig_with(board_family: "osier", board_hold_seconds: 300, hold_on_power: false),
          [move(0, "call", "heat"), move(60, "call", "off"), move(100, "call", "heat")]
        )
      gas = run(rig_with(backup: "gas", gas_cut_seconds: 60), [move(0, "call", "heat"), move(60, "call", "heat_aux")])
      latched = run(rig_with(changeover_school: "latched"), [move(0, "mode", "cool"), move(60, "mode", "off")])
      {
        [held, "CC", 200] => "short-cycle hold",
        [gas, "COMP", 400] => "gas backup",
        [latched, "THERMOSTAT.O", 300] => "latched"
      }.each do |(timeline, signal, at), words|
        one = chain(timeline, signal, at)
        deciding = one.links.select(&:deciding)
        expect([deciding.size, one.as_designed?]).to eq([1, true]), one.links.map(&:says).inspect
        expect(deciding.first.rule_says).to include(words)
      end
      broken =
        run(
          rig_with,
          [move(0, "call", "heat"), move(60, "fault", "begins", of: { "kind" => "open", "at" => "cable_b.yellow" })]
        )
      expect(chain(broken, "COMP", 200).as_designed?).to be(false)
    end

    it "says how long is left where the hold was read, and between where nobody read it" do
      moves = [move(0, "call", "heat"), move(60, "call", "off"), move(100, "call", "heat")]
      left =
        [{ "board_hold_seconds" => 300 }, {}].map do |read|
          rig =
            rig_with(y_path: "delay", hold_on_power: false, board_hold_seconds: 300).then do |own|
              own.set(read, "measured")
            end
          rig =
            Gorvant::Composer.compose(
              name: "Unread",
              facts: { **Bench::APART, y_path: "delay", thermostat_minimum_off_seconds: 0 }.transform_keys(&:to_s)
            ) if read.empty?
          held = chain(run(rig, moves), "CC", 200).links.find(&:left_seconds)
          [held.left_seconds, held.left_at_least_seconds]
        end
      expect(left[0]).to eq([160.0, nil])
      expect(left[1]).to eq([160.0, 40.0])
    end
  end

  describe Gorvant::Window do
    let(:timeline) do
      run(
        rig_with(defrost_interval_minutes: 30),
        [move(0, "call", "heat"), *(0..40).map { |i| move(100 + i, "coil", i.even? ? 20 : 40) }],
        coil_degrees_f: 30
      )
    end

    it "keeps each pixel's least and greatest in the order in which they came, and the values at both ends" do
      window = described_class.new(timeline, from: 0.0, to: 1500.0, width: 30) # 50 s a pixel
      coil = window.curves.find { |curve| curve.id == "coil" }.points
      whole = timeline.curves.find { |curve| curve.id == "coil" }.points
      in_pixel = ->(points, first) { points.select { |at, _value| at >= first && at < first + 50 }.map(&:last) }
      expect(in_pixel.call(coil, 100).minmax).to eq(in_pixel.call(whole, 100).minmax)
      expect(in_pixel.call(coil, 100).last).to eq(in_pixel.call(whole, 100).last) # the line goes on from there
      expect(coil.size).to be <= (30 * 4) + 2
      expect(coil.map(&:first)).to eq(coil.map(&:first).sort)
      expect([coil.first.first, coil.last.first]).to eq([0.0, 1500.0])
    end

    it "shows a pulse shorter than a pixel, and begins with what holds there" do
      pulsed = run(rig_with, [move(0, "call", "heat"), move(700, "call", "off"), move(701, "call", "heat")])
      steps =
        described_class.new(pulsed, from: 600.0, to: 1500.0, width: 9).signals.find { |signal| signal.id == "CC" }.steps
      expect(steps.first).to eq([600.0, true])
      expect(steps.map(&:last)).to include(false)
      expect(steps.last.last).to be(true)
    end
  end
end
