# frozen_string_literal: true

require_relative "../../support/fed_by_hand"

# The smaller deciders, each alone.
RSpec.describe Gorvant::Controller do
  def ramp(from, to, rate, at = 0.0) =
    Gorvant::Quantity.new(value: from.to_f, at_seconds: at.to_f, target: to.to_f, rate: rate.to_f)

  describe Gorvant::DelayedContact do
    let(:sequencer) do
      FedByHand.new(
        described_class.new(
          "SEQ.line",
          coil: "SEQ",
          on_seconds: 25,
          off_seconds: 50,
          rules: {
            on: "sequencer_on_delay",
            off: "sequencer_off_delay"
          }
        )
      )
    end

    it "follows its coil late both ways, and wakes when the delay is over" do
      sequencer.at(10, works: %w[SEQ])
      expect([sequencer.out("SEQ.line"), sequencer.answer.wake_at, sequencer.until_seconds("SEQ.line")]).to eq(
        [false, 35.0, 35.0]
      )
      sequencer.at(34.9, works: %w[SEQ])
      expect(sequencer.out("SEQ.line")).to be(false)
      sequencer.at(35, works: %w[SEQ])
      expect([sequencer.out("SEQ.line"), sequencer.answer.wake_at]).to eq([true, nil])
      sequencer.at(100)
      sequencer.at(149)
      expect(sequencer.out("SEQ.line")).to be(true)
      sequencer.at(150)
      expect([sequencer.out("SEQ.line"), sequencer.why("SEQ.line")]).to eq([false, "sequencer_off_delay"])
    end

    it "begins its delay anew when the coil came back meanwhile" do
      sequencer.at(10, works: %w[SEQ])
      sequencer.at(30)
      expect(sequencer.why("SEQ.line")).to eq("delay_called_off")
      sequencer.at(31, works: %w[SEQ])
      sequencer.at(40, works: %w[SEQ])
      expect(sequencer.out("SEQ.line")).to be(false)
      sequencer.at(56, works: %w[SEQ])
      expect(sequencer.out("SEQ.line")).to be(true)
    end
  end

  describe Gorvant::AirPressureSwitch do
    it "closes where frost leaves little air, opens well above that, and is open whenever the fan stands" do
      one = FedByHand.new(described_class.new)
      found =
        [100, 51, 50, 60, 70, 69, 50].each_with_index.map do |percent, i|
          one.at(i, air: percent, works: %w[OFM]) && one.out("APS")
        end
      expect(found).to eq([false, false, true, true, false, false, true])
      one.at(8, air: 40)
      expect([one.out("APS"), one.answer.reasons["APS"].rule]).to eq([false, "air_stands"])
      one.at(9, air: ramp(60, 30, 1.0, 9), works: %w[OFM])
      expect([one.out("APS"), one.answer.wake_at]).to match([false, be_within(1e-6).of(19)])
    end
  end

  describe Gorvant::TemperatureSwitch do
    def switch(**more) =
      FedByHand.new(
        described_class.new(
          "DFT",
          quantity: "coil",
          closes_at: 30,
          opens_at: 60,
          rules: {
            closed: "coil_cold",
            open: "coil_warm"
          },
          **more
        )
      )

    it "keeps between its points what it was, and begins open there" do
      one = switch
      found =
        [45, 31, 30, 45, 59.9, 60, 45, 30].each_with_index.map do |degrees, i|
          one.at(i, coil: degrees) && one.out("DFT")
        end
      expect(found).to eq([false, false, true, true, true, false, false, true])
    end

    it "counts a point as reached or only as passed, and wakes just past it" do
      strict = switch(inclusive: false)
      strict.at(0, coil: 30)
      expect(strict.out("DFT")).to be(false)
      strict.at(1, coil: ramp(30, 20, 1.0, 1))
      expect(strict.answer.wake_at).to be_within(0.01).of(1)
      strict.at(1.01, coil: ramp(30, 20, 1.0, 1))
      expect(strict.out("DFT")).to be(true)
    end

    it "wakes when the coil reaches the point that matters next, and not for one it never reaches" do
      one = switch
      expect(one.at(0, coil: ramp(50, 20, 2.0)).wake_at).to be_within(1e-6).of(10)
      expect(one.at(0, coil: ramp(50, 40, 2.0)).wake_at).to be_nil
    end
  end

  describe Gorvant::Valve do
    needed = Gorvant::Catalogue.profile.dig("plant", "valve_needs_psi")
    travel = Gorvant::Catalogue.profile.dig("plant", "valve_travel_seconds")
    let(:valve) { FedByHand.new(described_class.new(rests_in: :heating, solenoid: "RVS")) }

    it "moves on the solenoid and pressure difference together, after its travel" do
      valve.at(0, pressure: 0)
      valve.at(5, works: %w[RVS], pressure: needed - 1)
      expect([valve.out("valve"), valve.why("valve")]).to eq(%w[heating no_pressure])
      valve.at(10, works: %w[RVS], pressure: needed)
      expect(valve.answer.wake_at).to eq(10 + travel)
      valve.at(10 + travel, works: %w[RVS], pressure: needed)
      expect([valve.out("valve"), valve.why("valve")]).to eq(%w[cooling pressure_shifts])
      valve.at(100, pressure: 0)
      expect(valve.out("valve")).to eq("cooling") # left where it is, whatever it is told
      valve.at(200, pressure: needed)
      valve.at(200 + travel, pressure: needed)
      expect(valve.out("valve")).to eq("heating")
    end

    it "stays when stuck, and gives up a move whose solenoid was let go" do
      valve.at(0, works: %w[RVS], pressure: needed, inputs: { valve_stuck: true })
      expect([valve.out("valve"), valve.why("valve")]).to eq(%w[heating valve_stuck])
      valve.at(50, works: %w[RVS], pressure: needed)
      valve.at(50.2, pressure: needed)
      valve.at(50 + travel + 1, pressure: needed)
      expect(valve.out("valve")).to eq("heating")
    end

    it "says when the pressure will do" do
      valve.at(0, works: %w[RVS], pressure: ramp(0, needed * 2, needed / 10.0))
      expect(valve.until_seconds("valve")).to be_within(1e-6).of(10)
    end
  end

  describe Gorvant::Quantity do
    it "goes straight to its target and stays" do
      one = ramp(10, 20, 2, 100)
      expect([100, 102, 105, 900].map { |at| one.at(at) }).to eq([10, 14, 20, 20])
      back = one.towards(0, 1, 103)
      expect([103, 110, 119].map { |at| back.at(at) }).to eq([16, 9, 0])
      expect(one.towards(20, 2, 103)).to equal(one)
    end

    it "reaches what lies on its way, and nothing that it stands on or never meets" do
      one = ramp(10, 20, 2)
      expect([15, 20, 21, 10, 9].map { |threshold| one.reaches(threshold, 0) }).to eq([2.5, 5.0, nil, nil, nil])
      expect(described_class.still(5).reaches(5, 0)).to be_nil
    end
  end

  describe Gorvant::Schedule do
    it "gives what is due by time, then priority, then order, and forgets what was cancelled" do
      random = Random.new(7)
      schedule = described_class.new
      items = Array.new(300) { |i| [random.rand(0..20), random.rand(0..2), i] }
      handles = items.to_h { |at, priority, i| [i, schedule.add(at, i, priority: priority)] }
      gone = items.map(&:last).sample(60, random: random)
      gone.each { |i| schedule.cancel(handles[i]) }
      expected = items.reject { |_at, _priority, i| gone.include?(i) }.sort_by { |at, priority, i| [at, priority, i] }
      expect(schedule.take(by: -1)).to be_nil
      first, rest = expected.partition { |at, _priority, _i| at <= 9 }
      taken = []
      while (one = schedule.take(by: 9))
        taken << one
      end
      expect(taken).to eq(first.map(&:last))
      expect(schedule.next_at).to eq(rest.first[0])
      expect(Array.new(rest.size + 1) { schedule.take(by: 99) }).to eq([*rest.map(&:last), nil])
    end
  end

  it "has a spec of its own for every kind of decider" do
    kinds = ObjectSpace.each_object(Class).select { |kind| kind < described_class }.map(&:name)
    told = Dir[File.expand_path("../**/*_spec.rb", __dir__)].map { |path| File.read(path, encoding: "UTF-8") }.join
    expect(kinds.reject { |kind| told.match?(/describe #{kind}\b/) }).to eq([])
  end
end
