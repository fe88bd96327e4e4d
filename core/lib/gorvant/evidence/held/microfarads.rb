# frozen_string_literal: true

module Gorvant
  module Held
    # A capacitor by itself, off the circuit and discharged. One that gives next to nothing of even the smallest that
    # there is is open; else only its marking tells, and where nobody read that, nothing is called weak or good.
    module Microfarads
      class << self
        def judge(trace, seen)
          key = answer(trace.rig, seen) || "between"
          return unread(seen) if key != "none" && assumed?(trace.rig, seen.place)

          verdicts = { "as_marked" => "agrees", "between" => "undetermined" }
          verdict = verdicts.fetch(key, "disagrees")
          Held.judged(
            verdict,
            "microfarads_#{key}",
            reads: seen.says,
            marked: format("%g µF", marked(trace.rig, seen.place))
          )
        end

        # "none", "weak", "as_marked" or "high" against the marking as the rig has it; nil by the edge between two. What
        # is next to nothing of a marking that nobody read is so of the smallest one.
        def answer(rig, seen)
          marked = marked(rig, seen.place)
          surely = assumed?(rig, seen.place) ? Catalogue.facts.fetch(fact(seen.place)).fetch("low") : marked
          least, most = seen.amount.bounds
          return "none" if most <= surely * limits["none_at_most_fraction"]
          return "weak" if most < marked * limits["weak_below_fraction"]
          return "high" if least > marked * (1 + limits["within_fraction"] + limits["meter_fraction"])

          least >= marked * (1 - limits["within_fraction"]) ? "as_marked" : nil
        end

        def assumed?(rig, place) = rig.assumed.include?(fact(place))

        private

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
