# frozen_string_literal: true

module Gorvant
  module Server
    # A meter that is not there, held to the points where a page has its probes: the unit as the visit found it, in the
    # call that the page shows. For the demo data, where there is no unit to measure.
    class StandIn
      PROBES_SECONDS = 120 # after so long without a word the page has gone

      # row: of the visit.
      def initialize(db, row)
        @events = Events.new(db)
        @row = row
      end

      # What the stream is told, nil where no probes are placed. given: a StandInRequest's.
      def sample(given, device)
        here = @events.last_probes(@row[:id], PROBES_SECONDS) or return nil
        display = display(here, given)
        return nil if display.value.nil? # nothing ties the two points together: no display settles on anything

        {
          "id" => given[:id],
          "function" => given.fetch(:function, "volts_ac"),
          "value" => display.value,
          "unit" => given[:function] == "hertz" ? "Hz" : "V",
          "stable" => display.stable,
          "instrument" => given[:instrument],
          "probes" => here["probes"],
          "device_id" => device.device_id,
          "device" => device.name,
          "device_time" => Time.now.utc.iso8601(3)
        }.compact
      rescue BadCondition, UnknownNode, BadAsFound
        nil # a point that this unit does not have
      end

      private

      def display(here, given)
        # On AC a meter that is set to DC shows next to nothing, and on Hz the mains: neither is a voltage.
        mains = Catalogue.profile.dig("meter_display", "hertz")
        return MeterDisplay.new(value: 0.0, stable: true) if given[:function] == "volts_dc"
        return MeterDisplay.new(value: mains, stable: true) if given[:function] == "hertz"

        expected, = trace(here["call"]).reading(*here["probes"], given.fetch(:instrument, "high_impedance"))
        MeterDisplay.of(expected, Time.now - here[:at], Random.new)
      end

      def trace(call)
        rig = Warm.rig(@row)
        found = AsFound.parse(@row[:desks].as_found, rig)
        situation = Desks::Find.situation(rig, found, @row[:outdoor_degrees_f])
        condition =
          Condition.parse(
            "call" => call || "off",
            "faults" => situation.faults,
            "outdoor_degrees_f" => @row[:outdoor_degrees_f]
          )
        Trace.new(situation.rig, condition.for_rig(situation.rig))
      end
    end
  end
end
