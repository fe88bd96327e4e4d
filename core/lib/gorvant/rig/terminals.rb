# frozen_string_literal: true

module Gorvant
  # Which terminals each place has, in the order they stand on the strip. Stage one keeps the name Y whatever the maker
  # prints.
  module Terminals
    class << self
      def of(rig, place) = public_send(place, rig)

      def wall(rig)
        [
          "R",
          "C",
          "Y",
          *second(rig),
          "G",
          *(rig[:changeover_terminal] == "single" ? ["OB"] : %w[O B]),
          *("W1" if rig[:w1_terminal]),
          "W2",
          "E"
        ]
      end

      def air_handler(rig)
        ["R", "C", "Y", *second(rig), "G", rig.changeover, "W", *("W2" if rig[:outdoor_thermostat])]
      end

      def outdoor(rig)
        ["R", "C", "Y", *second(rig), rig.changeover, *(%w[W2 W2_in] if rig[:outdoor_thermostat]), "W2_out"]
      end

      private

      def second(rig) = rig[:compressor_stages] == 2 ? ["Y2"] : []
    end
  end
end
