# frozen_string_literal: true

require_relative "../../support/core"

# What a person read, saw or looked up, against the circuit: for each verdict its opposite, its boundary, and what
# nobody could tell.
RSpec.describe "Evidence" do
  # Values of JSON, as they come from a page.
  def held(rig, call, given, **condition)
    trace = Gorvant::Trace.new(rig, Gorvant::Condition.new(call: call, **condition))
    Gorvant::Held.against(trace, Gorvant::Observation.parse(given.transform_keys(&:to_s), trace))
  end

  def verdict(...) = held(...).verdict

  # One function, one call, a value or choice, and what follows.
  def self.table(title, call, common, rows)
    rows.each do |given, expected|
      it("#{title}, #{call}: #{given.values.join(" ")} #{expected}") do
        expect(verdict(rig, call, { **common, **given })).to eq(expected)
      end
    end
  end

  table(
    "volts C to Y outdoors",
    "heat",
    { function: "volts_ac", from_node: "outdoor.C", to_node: "outdoor.Y", instrument: "high_impedance" },
    { value: 24.0 } => "agrees",
    { value: 24.0, about: true } => "agrees",
    { value: 23, value_high: 25 } => "agrees",
    { value: 0.0 } => "disagrees",
    { value: 0, about: true } => "disagrees",
    { value: 0, value_high: 24 } => "undetermined",
    { value: 0, value_high: 1 } => "disagrees",
    { value: 0, value_high: 60 } => "undetermined", # what is expected lies between
    { value: 60, value_high: 200 } => "disagrees"
  )
  table(
    "ohms over the contactor's coil, by itself",
    "off",
    { function: "ohms", from_node: "outdoor.CC.1", to_node: "outdoor.CC.2", isolated: true },
    { value: 12 } => "agrees",
    { value: 6.1 } => "agrees",
    { value: 23.9 } => "agrees",
    { value: 5.9 } => "undetermined",
    { value: 100 } => "undetermined",
    { value: 1.0 } => "disagrees",
    { value: 1.0, value_high: 14 } => "undetermined",
    { open: true } => "disagrees",
    { value: 2_000_000 } => "disagrees"
  )
  # Marked 40 µF: [value] => verdict with the marking read, and with nobody having looked.
  {
    [40.0] => %w[agrees undetermined],
    [37.6] => %w[agrees undetermined],
    [37.5] => %w[undetermined undetermined],
    [35.2] => %w[undetermined undetermined],
    [35.1] => %w[disagrees undetermined],
    [20.0, 41.0] => %w[undetermined undetermined],
    [4.1] => %w[disagrees undetermined],
    [4.0] => %w[disagrees undetermined], # all that a small one has
    [0.2] => %w[disagrees undetermined],
    [0.1] => %w[disagrees disagrees],
    [0.0] => %w[disagrees disagrees],
    [43.6] => %w[agrees undetermined],
    [43.7] => %w[disagrees undetermined]
  }.each do |(value, high), expected|
    it "µF of the capacitor's HERM side: #{[value, high].compact.join(" to ")} #{expected.join(", marking unread ")}" do
      given = { function: "microfarads", place: "CAP.herm", value: value, value_high: high }
      rigs = [rig.set({ capacitor_herm_microfarads: 40.0 }, "measured"), rig]
      expect(rigs.map { |one| verdict(one, "off", given) }).to eq(expected)
    end
  end

  it "says for which markings a capacitor would be good that nobody read the marking of" do
    says = held(rig, "off", { function: "microfarads", place: "CAP.fan", value: 7.1 }).says
    expect(says).to include("nobody read its marking", "good if that is 6.7 to 7.6 µF", "weak or open if it is more")
  end

  table(
    "ohms of a field conductor",
    "off",
    { function: "ohms", from_node: "air_handler.Y", to_node: "outdoor.Y" },
    { value: 0.6 } => "agrees",
    { value: 2.0 } => "agrees",
    { value: 5 } => "undetermined",
    { value: 10 } => "undetermined",
    { value: 40 } => "disagrees",
    { open: true } => "disagrees"
  )
  table(
    "ohms where nothing leads",
    "off",
    { function: "ohms", from_node: "outdoor.CC.L2", to_node: "outdoor.Y" },
    { open: true } => "agrees",
    { value: 1_000_000 } => "agrees",
    { value: 900_000 } => "disagrees",
    { value: 900_000, value_high: 2_000_000 } => "undetermined"
  )
  table(
    "amps in the outdoor fan's lead",
    "heat",
    { function: "amps_ac", place: "OFM" },
    { value: 1.2 } => "agrees",
    { value: 9 } => "agrees", # how much is right only the maker's table tells
    { value: 0.5 } => "agrees",
    { value: 0.3 } => "undetermined",
    { value: 0.2 } => "disagrees",
    { value: 0.1, value_high: 0.9 } => "undetermined"
  )
  table(
    "amps in the outdoor fan's lead",
    "off",
    { function: "amps_ac", place: "OFM" },
    { value: 0 } => "agrees",
    { value: 1.2 } => "disagrees"
  )
  table(
    "seen",
    "heat",
    { function: "seen" },
    { place: "outdoor_fan", choice: "turns" } => "agrees",
    { place: "outdoor_fan", choice: "stands" } => "disagrees",
    { place: "outdoor_fan", choice: "could_not_tell" } => "undetermined",
    { place: "compressor", choice: "hums" } => "disagrees",
    { place: "strips", choice: "off" } => "agrees",
    { place: "strips", choice: "on" } => "disagrees",
    { place: "ice", choice: "bottom_rows" } => "undetermined",
    { place: "contactor", choice: "chatters" } => "undetermined"
  )
  table(
    "seen",
    "off",
    { function: "seen" },
    { place: "outdoor_fan", choice: "stands" } => "agrees",
    { place: "outdoor_fan", choice: "turns" } => "disagrees",
    { place: "compressor", choice: "silent" } => "agrees",
    { place: "compressor", choice: "hums" } => "disagrees"
  )
  table(
    "kept alone",
    "heat",
    {},
    { function: "degrees_f", place: "vapour_line", value: 110 } => "undetermined",
    { function: "psi", place: "vapour_port", value: 320, about: true } => "undetermined",
    { function: "did", place: "wire", choice: "lifted" } => "undetermined",
    { function: "amps_ac", place: "CC", value: 0.3 } => "undetermined" # no clamp tells so little
  )

  it "takes a compressor that hums for right only where its start is supposed dead" do
    hums = { function: "seen", place: "compressor", choice: "hums" }
    expect(verdict(rig, "heat", hums, faults: [{ "kind" => "open", "at" => "COMP.start" }])).to eq("agrees")
    expect(
      verdict(rig, "heat", { **hums, choice: "runs" }, faults: [{ "kind" => "open", "at" => "COMP.start" }])
    ).to eq("disagrees")
  end

  it "holds what is looked up against what was noted, and what was only assumed against nothing" do
    given = { function: "looked_up", place: "compressor_stages", choice: 1 }
    noted = rig.set({ compressor_stages: 1 }, "diagram")
    assumed = rig.set(compressor_stages: 1)
    expect([verdict(noted, "off", given), verdict(noted, "off", { **given, choice: 2 })]).to eq(%w[agrees disagrees])
    expect([verdict(assumed, "off", given), verdict(assumed, "off", { **given, choice: 2 })]).to all(eq("undetermined"))
    expect(held(noted, "off", { **given, choice: 2 }).says).to include("two", "Fitted says one")
  end

  it "holds a fact that is a plain no as it holds any other" do
    noted = rig.set({ door_switch: false }, "diagram")
    given = { function: "looked_up", place: "door_switch" }
    expect([verdict(noted, "off", { **given, choice: false }), verdict(noted, "off", { **given, choice: true })]).to eq(
      %w[agrees disagrees]
    )
    expect(held(noted, "off", { **given, choice: true }).says).to include("yes", "no")
    said =
      Gorvant::Observation.parse(
        { "function" => "looked_up", "place" => "door_switch", "choice" => false },
        trace("off")
      )
    expect(said.says).to eq("no")
  end

  it "says why a load that works should not, and never calls the part bad" do
    says = held(rig, "heat", { function: "seen", place: "strips", choice: "on" }).says
    expect(says).to start_with("The heat strips: on, and it should not work in this call.")
    expect(says).not_to match(/bad|broken|replace/i)
  end

  refused = {
    "an unknown function" => [{ function: "smell" }, "/function"],
    "volts at one point" => [{ function: "volts_ac", from_node: "outdoor.C", value: 1 }, "/instrument"],
    "one point twice" => [{ function: "ohms", from_node: "outdoor.C", to_node: "outdoor.C", value: 1 }, "/to_node"],
    "a point that is none" => [{ function: "ohms", from_node: "roof.C", to_node: "outdoor.C", value: 1 }, "/from_node"],
    "volts over all meters" => [
      { function: "volts_ac", instrument: "high_impedance", from_node: "outdoor.C", to_node: "outdoor.R", value: 1001 },
      "/value"
    ],
    "a range that runs backward" => [
      { function: "psi", place: "true_suction", value: 9, value_high: 3 },
      "/value_high"
    ],
    "OL of a clamp" => [{ function: "amps_ac", place: "OFM", open: true }, "/open"],
    "OL with a value" => [
      { function: "ohms", from_node: "outdoor.C", to_node: "outdoor.R", open: true, value: 3 },
      "/value"
    ],
    "degrees at no place" => [{ function: "degrees_f", place: "attic", value: 60 }, "/place"],
    "no value" => [{ function: "degrees_f", place: "supply_air" }, "/value"],
    "a choice of another place" => [{ function: "seen", place: "blower", choice: "hums" }, "/choice"],
    "a load that is not fitted" => [{ function: "amps_ac", place: "HTR2", value: 1 }, "/place"],
    "isolated volts" => [
      {
        function: "volts_ac",
        instrument: "high_impedance",
        from_node: "outdoor.C",
        to_node: "outdoor.R",
        value: 1,
        isolated: true
      },
      "/isolated"
    ],
    "a fact's value that it cannot have" => [
      { function: "looked_up", place: "compressor_stages", choice: 7 },
      "/choice"
    ],
    "a fact not asked of this rig" => [{ function: "looked_up", place: "stage_2", choice: "solenoid" }, "/place"],
    "a value for what is seen" => [
      { function: "did", place: "wire", choice: "lifted", from_node: "outdoor.C" },
      "/from_node"
    ]
  }
  refused.each do |what, (given, field)|
    it "refuses #{what}, and names the field" do
      expect { held(rig, "off", given) }.to raise_error(Gorvant::BadObservation) { |error|
        expect(error.field).to eq(field)
      }
    end
  end

  it "has words for every place, choice and instrument, and tells each reading with its unit" do
    trace = Gorvant::Trace.new(rig, Gorvant::Condition.new(call: "heat"))
    Gorvant::Observation.functions.each do |id, about|
      expect(Gorvant::Observation.instruments(id).values).to all(match(/\w/))
      next unless about["at"] == "place"

      about["places"].each do |place, named|
        choices = named.is_a?(Hash) && named["choices"] ? named["choices"].keys + ["could_not_tell"] : [nil]
        choices.each do |choice|
          given = { "function" => id, "place" => place, **(choice ? { "choice" => choice } : { "value" => 40 }) }
          seen = Gorvant::Observation.parse(given, trace)
          expect([seen.says, seen.whereabouts(trace.netlist)]).to all(match(/[[:alnum:]]/))
          expect(Gorvant::Held.against(trace, seen).says).to match(/\.\z/)
        end
      end
    end
  end
end
