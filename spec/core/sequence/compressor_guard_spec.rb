# frozen_string_literal: true

require_relative "../../support/fed_by_hand"

RSpec.describe Gorvant::CompressorGuard do
  def guard(**facts) =
    FedByHand.new(
      described_class.new(hold_seconds: 300, hold_on_power: false, lockout_trips: 3, sees_trips: true, **facts)
    )

  off = %w[BOARD]
  called = %w[BOARD Y_IN]
  runs = %w[BOARD Y_IN T1_IN]

  it "holds from the stop, to the second, and not at the first start" do
    one = guard
    one.at(0, works: off)
    one.at(10, works: runs)
    expect(one.out("hold")).to be(false)
    one.at(100, works: off)
    expect([one.out("hold"), one.why("hold"), one.until_seconds("hold"), one.answer.wake_at]).to eq(
      [true, "short_cycle_hold", 400.0, 400.0]
    )
    one.at(399.9, works: called)
    expect(one.out("hold")).to be(true)
    one.at(400, works: called)
    expect([one.out("hold"), one.why("hold")]).to eq([false, "hold_over"])
  end

  it "holds from the arrival of Y where its delay is on make: four minutes at the thermostat and three here are seven" do
    one = guard(hold_kind: "on_make", hold_seconds: 180)
    one.at(0, works: off)
    one.at(240, works: called)
    expect([one.out("hold"), one.why("hold"), one.until_seconds("hold")]).to eq([true, "hold_on_make", 420.0])
    one.at(420, works: runs)
    expect(one.out("hold")).to be(false)
    one.at(500, works: off)
    expect(one.out("hold")).to be(false) # nothing counts from the stop
  end

  it "holds after power only where its board does, and lets a longer hold stand" do
    [true, false].each do |on_power|
      one = guard(hold_on_power: on_power)
      one.at(0, works: off)
      one.at(10, works: [])
      one.at(20, works: off)
      expect([one.out("hold"), one.why("hold")]).to eq(on_power ? [true, "hold_after_power"] : [false, "hold_over"])
    end
  end

  # A trip needs Y, its own relay in, and nothing back from the safeties.
  def tripped(one, times, from: 0)
    times.times do |i|
      one.at(from + (i * 1000), works: %w[BOARD Y_IN T1_IN])
      one.at(from + (i * 1000) + 100, works: %w[BOARD Y_IN])
      one.at(from + (i * 1000) + 500, works: %w[BOARD Y_IN])
    end
  end

  it "counts each trip once, locks out at the third and says so, and forgets them with the call" do
    one = guard
    one.at(-10, works: off)
    tripped(one, 2)
    expect([one.out("trips"), one.out("lockout")]).to eq([2, false])
    one.at(1800, works: called)
    expect(one.out("trips")).to eq(2)
    tripped(one, 1, from: 2000)
    expect([one.out("trips"), one.out("lockout"), one.why("lockout")]).to eq([3, true, "lockout"])
    one.at(9000, works: called)
    expect(one.out("lockout")).to be(true)
    one.at(9100, works: off)
    expect([one.out("trips"), one.out("lockout"), one.why("lockout")]).to eq([0, false, "lockout_cleared"])
  end

  it "does not carry trips from one call into the next" do
    one = guard
    one.at(-10, works: off)
    tripped(one, 2)
    one.at(3000, works: off)
    tripped(one, 2, from: 4000)
    expect([one.out("trips"), one.out("lockout")]).to eq([2, false])
  end

  it "takes no trip for one where safeties do not come back to the board, in its own hold, or in a turn" do
    blind = guard(sees_trips: false)
    tripped(blind, 3)
    expect(blind.out("trips")).to eq(0)
    held = guard
    held.at(0, works: runs)
    held.at(50, works: off)
    held.at(60, works: called)
    expect([held.out("hold"), held.out("trips")]).to eq([true, 0])
    turning = guard
    turning.at(0, works: runs)
    turning.at(10, works: called, outputs: { "turn" => true, "hold" => true })
    expect([turning.out("hold"), turning.why("hold"), turning.out("trips")]).to eq([true, "defrost_turn", 0])
    turning.at(40, works: runs, outputs: { "turn" => false })
    expect(turning.out("hold")).to be(false)
  end
end
