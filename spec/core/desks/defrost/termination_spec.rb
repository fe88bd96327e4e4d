# frozen_string_literal: true

require_relative "../../../support/forced_tests"

# When a defrost ends, and by what.
RSpec.describe Gorvant::Termination do
  include ForcedTests

  let(:profile) { Gorvant::ClockProfile.of(rig_with) }

  def ends(rises, **more)
    described_class
      .expected(profile, opens_degrees_f: 70, coil_degrees_f: 28, rises_per_minute_degrees_f: rises, **more)
      .then { |found| [found.after_seconds.round(2), found.by] }
  end

  it "ends by what comes first" do
    expect([ends(5), ends(4), ends(0)]).to eq([[504.0, "temperature"], [600.0, "time"], [600.0, "time"]])
    expect(ends(5, jumpered: true)).to eq([600.0, "time"])
    expect(ends(5, bridge_seconds: 60)).to eq([2.5, "time"])
    expect(ends(5, bridge_seconds: 1)).to eq([361.0, "time"])
    expect(
      described_class.expected(
        profile,
        opens_degrees_f: 70,
        coil_degrees_f: 75,
        rises_per_minute_degrees_f: 5
      ).after_seconds
    ).to eq(0)
    expect(
      described_class.expected(
        profile.with(ends_by: "temperature"),
        opens_degrees_f: 70,
        coil_degrees_f: 28,
        rises_per_minute_degrees_f: 0
      )
    ).to have_attributes(by: nil, says: include("nothing to end it"))
  end

  [%w[O], %w[B]].each do |(letter)|
    describe "on the tape, #{letter} type" do
      let(:rig) { rig_with(changeover: letter) }
      let(:began) { [move(0, "call", "heat"), move(0, "coil", 28)] }

      it "starts when full and ends by temperature, by time, or by time alone with the jumper on" do
        start = { outdoor_degrees_f: 30, coil_degrees_f: 28, defrost_counted_minutes: 59 }
        ended =
          lambda do |rises, *more|
            timeline =
              run(
                rig,
                began +
                  [move(60, "coil", 28 + (rises * 15), over_seconds: 900), *more].sort_by { |one| one["at_seconds"] },
                1500,
                **start
              )
            from, to = defrosts(timeline).first
            [
              (to - from).round(1),
              timeline.events.find { |event| event.signal == "defrost" && event.seconds == to }.rule
            ]
          end
        from = defrosts(run(rig, began, 100, **start)).first.first
        expect(from).to be_within(1).of(60)
        expect(ended.call(5)).to match([be_within(1.5).of(504), "defrost_by_temperature"])
        expect(ended.call(4)).to match([be_within(0.1).of(600), "defrost_by_time"])
        expect(ended.call(5, move(10, "jumper", "on", of: %w[outdoor.board.DFT_1 outdoor.board.DFT_2]))).to match(
          [be_within(0.1).of(600), "defrost_by_time"]
        )
      end

      it "counts its points as reached or only as passed, as the profile says" do
        ends =
          [true, false].map do |inclusive|
            held = began + [move(60, "coil", 70, over_seconds: 300), move(700, "coil", 72, over_seconds: 10)]
            timeline =
              run(
                rig_with(changeover: letter, thresholds_inclusive: inclusive, defrost_limit_minutes: 30),
                held,
                900,
                outdoor_degrees_f: 30,
                coil_degrees_f: 27,
                defrost_counted_minutes: 59.9
              )
            defrosts(timeline).first.last
          end
        expect(ends).to match([be_within(0.1).of(360), be_within(0.1).of(700)])
      end

      it "is hurried by the bridge, limit and all" do
        moves = began + [move(60, "bridge", "on"), move(200, "bridge", "off")]
        from, to =
          defrosts(run(rig, moves, 400, outdoor_degrees_f: 30, coil_degrees_f: 28, defrost_counted_minutes: 0)).first
        expect(from - 60).to be_within(0.3).of(14.75) # a minute was counted before
        expect(to - from).to be_within(0.01).of(2.5)
      end

      it "goes in by pins held, and out again at once on a warm coil" do
        pins = rig_with(changeover: letter, forced_entry: "held_pins", forced_entry_hold_seconds: 6)
        moves = [
          move(0, "call", "heat"),
          move(0, "coil", 90),
          move(300, "bridge", "on"),
          move(320, "bridge", "off"),
          move(400, "bridge", "on"),
          move(404, "bridge", "off")
        ]
        timeline = run(pins, moves, 600, outdoor_degrees_f: 60, coil_degrees_f: 90)
        forced = timeline.events.select { |event| event.signal == "defrost" && event.seconds > 300 }
        # In, and out at once: both are told.
        expect(forced.map { |event| [event.seconds.round(2), event.value] }).to eq([[306.0, true], [306.0, false]])
        cold =
          run(
            pins,
            [move(0, "call", "heat"), move(0, "coil", 20), move(300, "bridge", "on"), move(320, "bridge", "off")],
            500,
            outdoor_degrees_f: 20,
            coil_degrees_f: 20
          )
        expect(defrosts(cold).first.first).to be_within(0.01).of(306)
      end

      it "feeds the valve in defrost, or takes its feed away" do
        timeline = run(rig, began, 400, outdoor_degrees_f: 30, coil_degrees_f: 28, defrost_counted_minutes: 58)
        from, = defrosts(timeline).first
        expect([from - 5, from + 5].map { |at| timeline.value_at("RVS", at) }).to eq(
          letter == "O" ? [false, true] : [true, false]
        )
        expect(%w[OFM COMP HTR].map { |load| timeline.value_at(load, from + 60) }).to eq([false, true, true])
      end

      it "does with Y lost in mid-defrost as its board does" do
        ends =
          %w[next_call abort finish].to_h do |way|
            own = rig_with(changeover: letter, y_lost_in_defrost: way, thermostat_minimum_off_seconds: 0)
            moves = began + [move(100, "call", "off"), move(400, "call", "heat")]
            timeline = run(own, moves, 1400, outdoor_degrees_f: 30, coil_degrees_f: 28, defrost_counted_minutes: 59.5)
            [way, [200, 500].map { |at| timeline.value_at("defrost", at) }]
          end
        expect(ends).to eq("next_call" => [false, true], "abort" => [false, false], "finish" => [true, true])
      end
    end
  end
end
