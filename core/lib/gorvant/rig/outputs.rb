# frozen_string_literal: true

module Gorvant
  # Which terminals the thermostat joins to R in a call: by what it is asked, and by how it is set up.
  # Source: docs/sources.md, domain-calls.
  module Outputs
    class << self
      # The closed terminals, as named at the wall. stages: compressor stages where a run over time has its own mind
      # about them. outdoor: °F where it is known, by which balance points decide; nil for as if they allowed all.
      def closed(rig, call_id, stages: nil, outdoor: nil)
        call = Catalogue.calls.fetch(call_id)
        return conventional(rig, call) if rig[:system_setup] == "conventional"

        balanced = outdoor && Balance.in_use?(rig) && call["mode"] == "heating" && !call["board"]
        return heat_pump(rig, call, stages || call["stage"]) unless balanced
        return [] if Balance.nothing?(rig, outdoor)

        pumps = Balance.compressor?(rig, outdoor)
        heat_pump(
          rig,
          call.merge("aux" => (call["aux"] || !pumps) && Balance.auxiliary?(rig, outdoor)),
          pumps ? stages || call["stage"] : 0
        )
      end

      # Ids of the calls that make sense for a rig, in the order of their buttons.
      def calls(rig)
        Catalogue.calls.select { |_id, call| call.fetch("needs", {}).all? { |fact, value| rig[fact] == value } }.keys
      end

      # What the thermostat believes: "strips", "gas" or "none"; a furnace that drives its own blower; how many stages.
      def backup(rig) =
        { "as_fitted" => rig[:backup], "electric" => "strips" }.fetch(rig[:backup_setup], rig[:backup_setup])
      def emergency(rig) =
        { "as_fitted" => rig[:backup], "electric" => "strips" }.fetch(rig[:emergency_setup], rig[:emergency_setup])
      def compressor_stages(rig) = rig[:stages_setup] == "as_fitted" ? rig[:compressor_stages] : rig[:stages_setup]
      def gas?(rig) = backup(rig) == "gas"
      # Whether gas backup ever stops the compressor.
      def gas_cuts?(rig) = gas?(rig) && rig[:gas_cut] == "after"

      # Whether G goes out beside backup of this type.
      def blower?(rig, type) = rig[:blower_setup] == "as_fitted" ? type != "gas" : rig[:blower_setup] == "thermostat"

      private

      def heat_pump(rig, call, stages)
        aux = call["aux"] && backup(rig) != "none"
        gas = aux && gas_cuts?(rig) # both must not heat one air stream: the compressor is out a minute after
        terminals =
          stages(gas ? 0 : [stages, compressor_stages(rig)].min, rig) +
            changeover(rig, call["emergency"] ? emergency_mode(rig) : call["mode"])
        terminals << rig.aux_terminal if aux
        terminals << "E" if call["emergency"]
        terminals << "G" if call["fan"] && fan?(rig, aux, call["emergency"], gas)
        terminals
      end

      def fan?(rig, aux, emergency, gas)
        return blower?(rig, emergency(rig)) if emergency

        aux && gas ? blower?(rig, "gas") : true
      end

      # Left at its default, one heat and one cool: heat goes out on W1 where there is one, and there is no changeover.
      # A furnace is expected to drive its own blower.
      def conventional(rig, call)
        if call["mode"] == "heating" || call["emergency"]
          return rig[:w1_terminal] ? "W1" : "W2", *("G" if rig[:blower_setup] == "thermostat")
        end

        stages([call["stage"], 1].min, rig) + (call["fan"] ? ["G"] : [])
      end

      # A thermostat has a Y2 where the unit has.
      def stages(count, rig) = %w[Y Y2].first(count) & rig.terminals("wall")

      def emergency_mode(rig) = rig[:emergency_changeover] == "as_heating" ? "heating" : nil

      def changeover(rig, mode)
        letter = { "cooling" => "O", "heating" => "B" }[mode]
        letter ? [rig.changeover_terminal(letter)].compact : []
      end
    end
  end
end
