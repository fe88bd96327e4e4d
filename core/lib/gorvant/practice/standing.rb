# frozen_string_literal: true

module Gorvant
  module Practice
    # How a learner stands at the bench. seconds: of the bench's own clock; place: where, nil for not yet anywhere;
    # call: what the thermostat is set to; off: supplies that are off; proved: whether dead was proved since; lifted:
    # joints off their terminals; jumpers: [[node, node]]; opened: places with the panel off; moves: what was done to
    # the unit, as a Script has it, in bench seconds; walks, acts: how many; parts: changed; began: the call that one
    # found set, nil in those kept before it was told.
    Standing =
      Value.define(
        :seconds,
        :place,
        :call,
        :off,
        :proved,
        :lifted,
        :jumpers,
        :opened,
        :moves,
        :walks,
        :acts,
        :parts,
        :began,
        defaults: {
          seconds: 0.0,
          place: nil,
          call: "off",
          off: [].freeze,
          proved: false,
          lifted: [].freeze,
          jumpers: [].freeze,
          opened: [].freeze,
          moves: [].freeze,
          walks: 0,
          acts: 0,
          parts: [].freeze,
          began: nil
        }
      )

    class Standing
      # As to_h had it, by way of JSON.
      def self.from(kept) = new(**kept.slice(*members.map(&:to_s)).transform_keys(&:to_sym))

      # The same with one more thing done to the unit, now.
      def moved(what, value, of: nil)
        move = { "at_seconds" => seconds, "what" => what, "value" => value, "of" => of }.compact
        with(moves: moves + [move])
      end

      # At a place, after what it takes: the walk counts where one stood elsewhere.
      def at(there, minutes)
        walk = there && place && there != place
        took = minutes + (walk ? Diagnosis.numbers.dig("minutes", "walk") : 0.0)
        with(seconds: seconds + (took * 60), place: there || place, walks: walks + (walk ? 1 : 0), acts: acts + 1)
      end

      def dead? = off.sort == Condition::SUPPLIES.sort
    end
  end
end
