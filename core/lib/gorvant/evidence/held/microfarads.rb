# frozen_string_literal: true

module Gorvant
  module Held
    # A capacitor by itself, off the circuit and discharged. One that gives next to nothing is open, whatever it is
    # marked with; else only its marking tells, and where nobody read that, nothing is called weak or good.
    module Microfarads
      class << self
        def judge(trace, seen)
          marked = marked(trace.rig, seen.place)
          key = answer(trace.rig, seen) || "between"
          key = "high" if key == "as_marked" && high?(marked, seen)
          return unread(seen) if key != "none" && assumed?(trace.rig, seen.place)

          verdicts = { "as_marked" => "agrees", "between" => "undetermined" }
          verdict = verdicts.fetch(key, "disagrees")
          Held.judged(verdict, "microfarads_#{key}", reads: seen.says, marked: format("%g µF", marked))
        end

        # "none", "weak", "as_marked" (or more) against the marking as the rig has it; nil by the edge between two.
        def answer(rig, seen)
          marked = marked(rig, seen.place)
          least, most = seen.amount.bounds
          return "none" if most <= marked * limits["none_at_most_fraction"]
          return "weak" if most < marked * limits["weak_below_fraction"]

          least >= marked * (1 - limits["within_fraction"]) ? "as_marked" : nil
        end

        def assumed?(rig, place) = rig.assumed.include?(fact(place))

        private

        def high?(marked, seen) =
          seen.amount.bounds.first > marked * (1 + limits["within_fraction"] + limits["meter_fraction"])

        # Markings that this would be within its tolerance of.
        def unread(seen)
          least, most = seen.amount.bounds
          within = limits["within_fraction"]
          Held.judged(
            "undetermined",
            "microfarads_unread",
            reads: seen.says,
            least: format("%.1f", most / (1 + within)),
            most: format("%.1f", least / (1 - within))
          )
        end

        def marked(rig, place) = rig[fact(place).to_sym].to_f
        def fact(place) = Catalogue.evidence.dig("functions", "microfarads", "places", place, "marked")
        def limits = Catalogue.evidence.fetch("microfarads")
      end
    end
  end
end
