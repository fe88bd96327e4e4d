# frozen_string_literal: true

require_relative "../support/core"

RSpec.describe Gorvant::Patience do
  def long_run =
    Gorvant::Run.of(
      rig,
      Gorvant::Script.parse({ "moves" => [{ "at_seconds" => 0, "what" => "call", "value" => "heat" }] }, 48 * 3600)
    )

  it "ends a run, a settling and a drawing once it is enough, and lets them be where nobody said how long" do
    expect { described_class.with(-> { true }) { long_run } }.to raise_error(Gorvant::GaveUp, /longer than is allowed/)
    expect {
      described_class.with(-> { true }) { Gorvant::Trace.new(rig, Gorvant::Condition.parse("call" => "heat")) }
    }.to raise_error(Gorvant::GaveUp)
    expect(long_run.duration_seconds).to eq(172_800)
    expect(described_class.with(-> { false }) { long_run }.duration_seconds).to eq(172_800)
  end

  it "is forgotten when the answer is there, also where it failed, and holds for its own thread alone" do
    expect { described_class.with(-> { true }) { described_class.check! } }.to raise_error(Gorvant::GaveUp)
    expect { described_class.check! }.not_to raise_error
    described_class.with(-> { true }) { expect { Thread.new { described_class.check! }.join }.not_to raise_error }
    outer =
      described_class.with(-> { false }) do
        begin
          described_class.with(-> { true }) { described_class.check! }
        rescue Gorvant::GaveUp
          :inner
        end.then { |said| [said, described_class.check!] }
      end
    expect(outer).to eq([:inner, false])
  end
end
