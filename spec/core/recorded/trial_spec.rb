# frozen_string_literal: true

require_relative "../../support/core"
require_relative "../../support/log_trial"

# Made-up records with a known truth; bench/recorded.rb plays hundreds of them.
RSpec.describe LogTrial do
  let(:unit) { rig("boathouse_north") }

  faults = Gorvant::FrostRun::FAULTS + ["interval_other"]

  # Seeds by which the board can have the fault, and the record shows it.
  others = { "low_charge" => [3001, 3004], "switch_stuck_open" => [3002, 3003], "interval_other" => [3002, 3003] }

  faults.each_with_index do |fault, i|
    others
      .fetch(fault, [i + 1100, i + 2200])
      .each do |seed|
        it "names #{fault} where a record shows it (seed #{seed}), and finds every defrost" do
          trial = described_class.of(unit, seed, fault).run
          expect([trial.shows?, trial.named?]).to eq([true, true])
          expect([trial.missed.size, trial.invented.size].max).to be <= (trial.blurred? ? 2 : 0)
          expect(trial.misjudged).to eq([])
        end
      end
  end

  it "calls a wind-blown coil at 15 °F, ended by time each night, what it is: with wind and low charge beside the switch" do
    windy = unit.set({ "coil_switch_opens_degrees_f" => 60 }, "measured")
    verdicts =
      described_class.judge_of(
        windy,
        mean_degrees_f: 15.0,
        swing_degrees_f: 3.0,
        humidity: 80.0,
        wind_mph: 18.0
      ).verdicts
    by_time = verdicts.find { |one| one.code == "recorded_ended_by_time" }
    expect(by_time.verdict).to eq("undetermined")
    expect(by_time.says).to include(
      "wind on the coil, low charge",
      "coil switch off its pipe",
      "could keep a sound coil"
    )
    expect(verdicts.select(&:wrong?)).to eq([])
  end

  (1..14).each do |seed|
    it "calls no part of a healthy unit bad (seed #{seed}), and finds every defrost and no other" do
      trial = described_class.of(unit, seed * 37, nil).run
      expect(trial.accused).to eq([])
      expect([trial.missed, trial.invented]).to eq([[], []])
      expect(trial.truth.size).to be > 2
    end
  end
end
