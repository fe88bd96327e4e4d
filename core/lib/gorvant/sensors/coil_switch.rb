# frozen_string_literal: true

module Gorvant
  # A coil switch: closes on fall, opens on rise, and keeps its state between the two. Both points count as reached
  # where the profile says so. Source: docs/sources.md, sensor-practice.
  CoilSwitch = Value.define(:closes_degrees_f, :opens_degrees_f, :inclusive, defaults: { inclusive: true })

  class CoilSwitch
    # A point that was read: temperature, "open" or "closed".
    Noted = Value.define(:degrees_f, :state)

    # Marked by its opening temperature and its differential: "68 less 40" closes at 28.
    def self.marked(opens_degrees_f, less_delta_degrees_f) =
      new(closes_degrees_f: opens_degrees_f - less_delta_degrees_f, opens_degrees_f: opens_degrees_f)
    def self.of(rig) = new(**Hysteresis.coil_switch(rig).to_h)

    # By a lone temperature: "closed", "open" or "undetermined".
    def at(degrees_f) = Hysteresis.new(**to_h).at(degrees_f)

    # By a history of temperatures, in order.
    def states(temperatures)
      temperatures.inject([]) do |states, degrees|
        states << (at(degrees) == "undetermined" ? states.last || "undetermined" : at(degrees))
      end
    end

    # [Verdict], one for each reading in order, and one over all where both sides were seen.
    def check(seen, assumed: [])
      states = states(seen.map(&:degrees_f))
      each = seen.each_with_index.map { |one, i| judge(one, states[i], i.positive? ? seen[i - 1] : nil, assumed) }
      both =
        each.none?(&:wrong?) &&
          %w[closed open].all? { |state| seen.any? { |one| one.state == state && at(one.degrees_f) == state } }
      both ? each + [verdict("coil_switch_proved", seen.last, seen, assumed)] : each
    end

    private

    def judge(one, should, before, assumed)
      alone = at(one.degrees_f)
      if should == "undetermined" || (alone == "undetermined" && before.nil?)
        return verdict("coil_switch_undetermined", one, [one], assumed)
      end
      return by_history(one, should, before, assumed) if alone == "undetermined"

      verdict(
        one.state == should ? "coil_switch_#{should}_right" : "coil_switch_stuck_#{one.state}",
        one,
        [one],
        assumed
      )
    end

    # Between its points only what was read before speaks, and only if nothing came between.
    def by_history(one, should, before, assumed)
      straight =
        Catalogue.words("sensor.straight", before: format("%g", before.degrees_f), degrees: format("%g", one.degrees_f))
      verdict(
        "coil_switch_history#{"_right" if one.state == should}",
        one,
        [before, one],
        [*assumed, straight],
        should: should,
        before: "#{before.degrees_f.round} °F"
      )
    end

    def verdict(code, one, seen, assumed, **fields)
      Verdict.of(
        code,
        evidence:
          seen.map do |point|
            Catalogue.words("sensor.seen_switch", state: point.state, degrees: format("%g", point.degrees_f))
          end,
        assumed: assumed,
        degrees: format("%g", one.degrees_f),
        closes: format("%g", closes_degrees_f),
        opens: format("%g", opens_degrees_f),
        seen: one.state.capitalize,
        **fields
      )
    end
  end
end
