# frozen_string_literal: true

require_relative "../../support/finding"

# What Find makes of a visit's own record of what was done.
RSpec.describe Gorvant::Desks::Find do
  def find(facts = {})
    facts = { "y_path" => "delay", "board_hold_seconds" => 300 }.merge(facts)
    Finding.new(Finding.library("held #{facts}", Gorvant::Composer.compose(name: "Held", facts: facts), 34.0))
  end

  def read(find, function, place, value, age: 0.0, minutes: nil)
    trace = Gorvant::Trace.new(find.rig, Gorvant::Condition.new(call: "heat"))
    given = { "function" => function, "place" => place }.merge(value.is_a?(Numeric) ? { "value" => value } : value)
    Gorvant::VisitRead.new(
      id: "1",
      observation: Gorvant::Observation.parse(given, trace),
      condition: trace.condition,
      minutes: minutes,
      age_minutes: age
    )
  end

  def did(find, place, choice, **more) =
    read(find, "did", place, { "choice" => choice, "note" => "at the unit" }, **more)
  def hold(find, *reads) = described_class.finder(find.library, symptoms: %w[contactor_silent], reads: reads).hold

  it "holds from power that came back, on a board that does so, until the hold has gone by" do
    at_once, later = [0.5, 5.5].map { |age| hold(find, did(find, "power", "restored", age: age)) }
    expect([at_once, later]).to eq(%w[in_force over])
    other = find("hold_on_power" => false)
    expect(hold(other, did(other, "power", "restored"))).to be_nil
    expect(hold(find, did(find, "power", "cut"))).to be_nil
  end

  it "is over once it was waited out, whatever was told before, and begins anew with the power" do
    held = read(find, "minutes", "since_stop", 1, age: 0.2)
    waited = did(find, "waiting", "waited_out")
    expect(hold(find, held)).to eq("in_force")
    expect(hold(find, held, waited)).to eq("over")
    expect(hold(find, held, waited, did(find, "power", "restored", age: 0.1))).to eq("in_force")
  end

  it "knows of no hold where nobody said anything, nor after the compressor was heard" do
    expect(hold(find)).to be_nil
    runs = read(find, "seen", "compressor", { "choice" => "runs" })
    expect(hold(find, did(find, "power", "restored"), runs)).to be_nil
  end
end
