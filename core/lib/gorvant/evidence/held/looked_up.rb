# frozen_string_literal: true

module Gorvant
  module Held
    # A setting, selector or fitting looked up, against what Fitted has of it. What was only assumed is no word to
    # disagree with.
    module LookedUp
      class << self
        def judge(trace, seen)
          rig = trace.rig
          words = {
            title: seen.whereabouts(trace.netlist),
            reads: seen.says,
            noted: Comparison.words(seen.place, rig[seen.place])
          }
          assumed = rig.assumed.include?(seen.place)
          if same?(rig, seen)
            return Held.judged(assumed ? "undetermined" : "agrees", assumed ? "as_assumed" : "as_noted", **words)
          end

          Held.judged(assumed ? "undetermined" : "disagrees", assumed ? "not_as_assumed" : "not_as_noted", **words)
        end

        private

        def same?(rig, seen) = rig[seen.place] == seen.choice
      end
    end
  end
end
