# frozen_string_literal: true

module Gorvant
  # Which calls the weather forbids to run just to prove them: cooling in frost, heating in summer.
  module Season
    class << self
      # mode: "heat" or "cool", nil for neither. outdoor_degrees_f: nil where nobody read it.
      # "in", "out", or "unread" where nobody knows.
      def of(mode, outdoor_degrees_f)
        return "in" if mode.nil?
        return "unread" if outdoor_degrees_f.nil?

        limit = limit_degrees_f(mode)
        beyond = mode == "cool" ? limit - outdoor_degrees_f : outdoor_degrees_f - limit
        beyond.positive? ? "out" : "in"
      end

      # The mode in which a call runs what the weather limits; nil for the blower alone, and for nothing at all.
      def mode(call_id)
        call = Catalogue.calls.fetch(call_id)
        return "heat" if call["emergency"]

        { "heating" => "heat", "cooling" => "cool" }[call["mode"]]
      end

      # Degrees beyond which a mode is not run just to prove it.
      def limit_degrees_f(mode)
        Catalogue.profile.dig("bench", mode == "cool" ? "no_cooling_below_degrees_f" : "no_heating_above_degrees_f")
      end
    end
  end
end
