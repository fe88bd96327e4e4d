# frozen_string_literal: true

module Gorvant
  module Server
    # A meter that is not there, at a drill of whoever let it in: probes that a page has moved are one act at the bench,
    # kept and paid for as if it had been asked for by hand; as long as they stay, the meter goes on showing it.
    class DrillStandIn
      def initialize(db, tries, try, drill_row)
        @events = Events.new(db)
        @tries = tries
        @try = try
        @row = drill_row
      end

      # What the stream is told, nil where there is nothing to measure.
      def sample(given, device)
        here = @events.probes_at_try(@try[:id], StandIn::PROBES_SECONDS)
        return nil unless here && @try[:state] == "open" && @row[:form] == "find" && !given[:function]

        value = read(here["probes"], given[:instrument]) or return nil
        display = { "value" => value, "unit" => "V", "stable" => true, "instrument" => given[:instrument] }
        {
          "id" => given[:id],
          "try_id" => @try[:id],
          "function" => "volts_ac",
          **display.compact,
          "probes" => here["probes"],
          "device_id" => device.device_id,
          "device" => device.name,
          "device_time" => Time.now.utc.iso8601(3)
        }
      rescue Practice::BadAct, Stale
        nil # a point that this unit does not have; or the learner was first
      end

      private

      def read(probes, instrument)
        given = { "act" => "volts", "from" => probes[0], "to" => probes[1], "instrument" => instrument }.compact
        last = @try[:log].to_a.last
        return last.dig("data", "value") if last && last["act"].to_hash == given

        @tries.take(@try, @try[:version], @row, given)[:log].to_a.last.dig("data", "value")
      end
    end
  end
end
