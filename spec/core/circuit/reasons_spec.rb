# frozen_string_literal: true

# Every reason that a reading can have, each in a case where a technician would give it.
RSpec.describe Gorvant::Reasons do
  blue = { "kind" => "open", "at" => "cable_b.blue" }
  # [call, condition, points, key, words]
  [
    ["heat", {}, %w[outdoor.Y outdoor.C], "live_to_home", /outdoor Y is live, outdoor C is common/],
    ["heat", {}, %w[outdoor.CC.1 outdoor.CC.2], "fed", /CC is fed/],
    ["heat", {}, %w[outdoor.R outdoor.Y], "both_live", /both points are live/],
    ["heat", {}, %w[outdoor.C air_handler.C], "joined", /only wire and closed contacts/],
    ["cool", {}, %w[outdoor.LPS.1 outdoor.LPS.2], "both_live", /no difference/],
    ["off", {}, %w[outdoor.Y outdoor.C], "not_fed", /Y at the thermostat is open/],
    [
      "heat",
      { switches: { "HPS" => "open" } },
      %w[outdoor.HPS.1 outdoor.HPS.2],
      "open_across",
      /HPS is open and the loop is otherwise whole/
    ],
    [
      "heat",
      { switches: { "HPS" => "open", "LPS" => "open" } },
      %w[outdoor.LPS.1 outdoor.HPS.2],
      "opens_across",
      /LPS and HPS are open/
    ],
    [
      "heat",
      { faults: [blue] },
      %w[outdoor.R outdoor.C],
      "lost_home",
      /outdoor C has lost its way home at blue of cable B/
    ],
    ["heat", { faults: [blue] }, %w[outdoor.RVS.1 air_handler.C], "lost_home_full", /through its load/],
    ["heat", { faults: [blue] }, %w[outdoor.C air_handler.C], "open_across", /blue of cable B is open/],
    [
      "heat",
      { supplies: { "air_handler" => false } },
      %w[outdoor.R outdoor.C],
      "no_supply",
      /the transformer gives nothing/
    ],
    ["heat", {}, %w[wall.cable_a.brown wall.C], "ghost_spare", /tied to nothing/],
    [
      "heat",
      {
        faults: [
          { "kind" => "lifted", "at" => "cable_b.orange@outdoor" },
          { "kind" => "lifted", "at" => "cable_a.orange@wall" }
        ]
      },
      %w[air_handler.O air_handler.C],
      "ghost_lifted",
      /floats: .* is open/
    ],
    [
      "heat",
      { faults: [{ "kind" => "high_resistance", "at" => "cable_b.yellow@outdoor" }] },
      %w[outdoor.cable_b.yellow outdoor.Y],
      "drop",
      /most of it at yellow on Y at the outdoor/
    ],
    ["heat", {}, %w[outdoor.L1 outdoor.L2], "leg_to_leg", /stand on the two legs/],
    ["heat", {}, %w[outdoor.L1 outdoor.C], "two_supplies", /nobody knows how they are tied/],
    ["heat", {}, %w[outdoor.COMP.R outdoor.COMP.C], "fed", /compressor is fed/]
  ].each do |call, condition, points, key, words|
    it "says #{key} from #{points.join(" to ")} in #{call}#{" with #{condition}" unless condition.empty?}" do
      expect(trace(call, **condition).reading(*points).last).to have_attributes(key: key, says: match(words))
    end
  end
end
