# frozen_string_literal: true

module Gorvant
  # Which terminals the thermostat joins to R in a call: by what it is asked, and by how it is set up.
  # Source: docs/sources.md, domain-calls.
  module Outputs
    class << self
      # The closed terminals, as named at the wall.
      def closed(rig, call_id)
        call = Catalogue.calls.fetch(call_id)
        rig[:system_setup] == "conventional" ? conventional(call) : heat_pump(rig, call)
      end

      # Ids of the calls that make sense for a rig, in the order of their buttons.
      def calls(rig)
        Catalogue.calls.select { |_id, call| call.fetch("needs", {}).all? { |fact, value| rig[fact] == value } }.keys
      end

      private

      def heat_pump(rig, call)
        gas = gas_setup?(rig)
        backup_alone = gas && call["aux"] # both must not heat one air stream: the compressor is out a minute after
        terminals = stages(backup_alone ? 0 : call["stage"]) + changeover(rig, call["mode"])
        terminals << "W2" if call["aux"]
        terminals << "E" if call["emergency"]
        terminals << "G" if call["fan"] && !(gas && (call["aux"] || call["emergency"]))
        terminals
      end

      # Left at its default, one heat and one cool: heat goes out on W, and there is no changeover. A furnace is expected to
      # drive its own blower.
      def conventional(call)
        return ["W2"] if call["mode"] == "heating" || call["emergency"]

        stages([call["stage"], 1].min) + (call["fan"] ? ["G"] : [])
      end

      def stages(count) = %w[Y Y2].first(count)

      def changeover(rig, mode)
        letter = { "cooling" => "O", "heating" => "B" }[mode]
        return [letter].compact if rig[:changeover_terminal] == "separate"

        letter == rig[:changeover_setup] ? ["OB"] : []
      end

      def gas_setup?(rig) = (rig[:backup_setup] == "as_fitted" ? rig[:backup] : rig[:backup_setup]) == "gas"
    end
  end
end
