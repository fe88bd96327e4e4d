# frozen_string_literal: true

module Gorvant
  module Assembly
    # Where the switches of a rig stand under a condition.
    module Positions
      # A switch that follows something the condition knows. state: "open", "closed" or "undetermined" (near its points:
      # either is right); says: by what.
      Stand = Value.define(:code, :state, :says)

      class << self
        # { branch id => closed? }
        def of(rig, condition)
          thermostat(rig, condition).merge(
            supplies(condition),
            standing(rig, condition),
            switches(rig, condition),
            board(rig, condition)
          )
        end

        # [Stand] of the switches that the call, the weather or the coil puts somewhere, and nobody supposed otherwise.
        def stands(rig, condition)
          movable = movable(rig)
          all = [by_outdoors(rig, condition), by_coil(rig, condition), *by_call(condition)].compact
          all.select { |stand| movable.include?(stand.code) && !condition.switches.key?(stand.code) }.uniq(&:code)
        end

        # Codes of the switches that pressure, temperature or air move on this rig.
        def movable(rig)
          codes = rig[:safeties] + %w[OL]
          codes << "DFT" if rig[:sensing] == "coil_switch"
          codes += (Options.own & Options.switches).select { |code| Options.fitted?(rig, code) }
          rig[:backup] == "strips" ? codes + %w[LIM TL] : codes
        end

        private

        def standing(rig, condition) =
          stands(rig, condition)
            .reject { |stand| stand.state == "undetermined" }
            .to_h { |stand| [stand.code, stand.state == "closed"] }

        def by_outdoors(rig, condition)
          return nil unless rig[:outdoor_thermostat] && condition.outdoor_degrees_f

          by_temperature("ODT", "outdoor", condition.outdoor_degrees_f, Hysteresis.outdoor_thermostat(rig))
        end

        # In a defrost the switch is what holds it on, whatever the coil was before.
        def by_coil(rig, condition)
          unless rig[:sensing] == "coil_switch" && condition.coil_degrees_f &&
                   !Catalogue.calls.fetch(condition.call)["switches"]
            return nil
          end

          by_temperature("DFT", "coil", condition.coil_degrees_f, Hysteresis.coil_switch(rig))
        end

        def by_temperature(code, of, degrees, switch)
          state = switch.at(degrees)
          says =
            Catalogue.words(
              "stands.#{of}#{"_near" if state == "undetermined"}",
              code: code,
              state: state,
              degrees: format("%g", degrees),
              closes: format("%g", switch.closes_degrees_f),
              opens: format("%g", switch.opens_degrees_f)
            )
          Stand.new(code: code, state: state, says: says)
        end

        # Forced, its switches stand as the hand has them.
        def by_call(condition)
          return [] unless [nil, "natural"].include?(condition.moment)

          Catalogue
            .calls
            .fetch(condition.call)
            .fetch("switches", {})
            .map do |code, state|
              Stand.new(code: code, state: state, says: Catalogue.words("stands.defrost", code: code, state: state))
            end
        end

        def thermostat(rig, condition)
          closes = condition.outputs || Outputs.closed(rig, condition.call, outdoor: condition.outdoor_degrees_f)
          known = rig.terminals("wall") - %w[R C]
          stray = closes - known
          if condition.outputs && stray.any?
            raise BadCondition.new(
                    field: "/condition/outputs",
                    problem: "this thermostat has no #{stray.first}; it has #{known.join(", ")}"
                  )
          end

          known.to_h { |terminal| ["THERMOSTAT.#{terminal}", closes.include?(terminal)] }
        end

        def supplies(condition)
          Condition::SUPPLIES.each_with_object({}) do |supply, positions|
            [1, 2].each { |leg| positions["#{supply}.leg_#{leg}"] = condition.supplies.fetch(supply, true) }
          end
        end

        def switches(rig, condition)
          condition.switches.to_h do |code, state|
            unless movable(rig).include?(code)
              raise BadCondition.new(field: "/condition/switches/#{code}", problem: "is not fitted on this rig")
            end

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
