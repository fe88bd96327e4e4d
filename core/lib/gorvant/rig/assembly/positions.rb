# frozen_string_literal: true

module Gorvant
  module Assembly
    # Where the switches of a rig stand under a condition.
    module Positions
      class << self
        # { branch id => closed? }
        def of(rig, condition)
          thermostat(rig, condition).merge(supplies(condition), switches(rig, condition), board(rig, condition))
        end

        # Codes of the switches that pressure, temperature or air move on this rig.
        def movable(rig)
          codes = rig[:safeties] + %w[OL]
          codes << "DFT" if rig[:sensing] == "coil_switch"
          codes << "APS" if rig[:sensing] == "coil_switch" && rig[:air_pressure_switch]
          codes << "ODT" if rig[:outdoor_thermostat]
          codes << "FCS" if rig[:fan_cycling_switch]
          rig[:backup] == "strips" ? codes + %w[LIM TL] : codes
        end

        private

        def thermostat(rig, condition)
          closes = condition.outputs || Outputs.closed(rig, condition.call)
          known = rig.terminals("wall") - %w[R C]
          stray = closes - known
          raise BadCondition.new(field: "/condition/outputs", problem: "this thermostat has no #{stray.first}; it has #{known.join(', ')}") if condition.outputs && stray.any?

          known.to_h { |terminal| ["THERMOSTAT.#{terminal}", closes.include?(terminal)] }
        end

        def supplies(condition)
          Condition::SUPPLIES.each_with_object({}) do |supply, positions|
            [1, 2].each { |leg| positions["#{supply}.leg_#{leg}"] = condition.supplies.fetch(supply, true) }
          end
        end

        def switches(rig, condition)
          condition.switches.to_h do |code, state|
            raise BadCondition.new(field: "/condition/switches/#{code}", problem: "is not fitted on this rig") unless movable(rig).include?(code)

            [code, state == "closed"]
          end
        end

        # The board's own outputs: they need its supply, which the switches see to.
        def board(rig, condition)
          state = condition.board || Catalogue.calls.fetch(condition.call)["board"] || {}
          lockout = state.fetch("lockout", false)
          positions = { "BOARD.defrost" => state.fetch("defrost", false) && !lockout }
          positions["BOARD.compressor"] = !lockout && !state.fetch("hold", false) if rig[:y_path] == "delay"
          heating = Catalogue.calls.fetch(condition.call)["mode"] == "heating"
          positions["BOARD.divert"] = lockout && heating if rig[:lockout_diverts] && rig[:y_path] == "delay"
          positions
        end
      end
    end
  end
end
