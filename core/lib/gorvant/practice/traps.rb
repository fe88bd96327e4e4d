# frozen_string_literal: true

module Gorvant
  module Practice
    # Which misconception a wrong prediction shows: practice.yml, `traps`. The first that fits speaks.
    module Traps
      ANY = "any"

      class << self
        # { "id", "title", "says" } or nil.
        def load(code, call, said) =
          found do |trap|
            trap["about"] == "load" && trap["loads"].include?(code) && in?(trap, call) && says?(trap, said)
          end

        # said, is: classes of a meter.
        def points(said, is) = found { |trap| trap["about"] == "points" && says?(trap, said) && trap["is"] == is }

        # of: "defrost", "hold" or "stage_2"; said: "early", "late" or "never".
        def timing(of, said) = found { |trap| trap["about"] == "timing" && trap["of"] == of && says?(trap, said) }

        private

        def found(&block)
          id, trap = Practice.numbers.fetch("traps").find { |_id, one| block.yield(one) }
          id && { "id" => id, "title" => trap["title"], "says" => trap["says"] }
        end

        def in?(trap, call) = trap["calls"] == "all" || trap["calls"].include?(call)
        def says?(trap, said) = [ANY, said].include?(trap["said"])
      end
    end
  end
end
