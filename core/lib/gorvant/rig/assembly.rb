# frozen_string_literal: true

require_relative "assembly/sketch"
require_relative "assembly/cables"
require_relative "assembly/wall"
require_relative "assembly/air_handler"
require_relative "assembly/outdoor"
require_relative "assembly/line"

module Gorvant
  # From what is fitted to the circuit that it makes. Each place has its own file; they meet only at terminals.
  module Assembly
    HOT = "air_handler.TRAN.R"
    HOME = "air_handler.TRAN.C"
    LINE_HOT = "panel.L1"
    LINE_HOME = "panel.L2"
    GROUND = "panel.ground"

    class << self
      # The netlist of a rig, wired as its file says, all at rest.
      def netlist(rig)
        Netlist.build(references: [HOME, GROUND]) do |net|
          sketch = Sketch.new(net, rig)
          [Wall, AirHandler, Outdoor, Line, Cables].each { |place| place.draw(sketch) }
        end
      end

      # Which switches a condition closes or opens: { branch id => closed? }, for Settling.
      def positions(rig, condition)
        thermostat(rig, condition).merge(supplies(condition), switches(rig, condition), defrost(condition))
      end

      private

      def thermostat(rig, condition)
        call = Catalogue.calls.fetch(condition.call)
        closes = call.fetch("closes") + (energised_in(rig) == call.fetch("changeover") ? [rig.changeover] : [])
        (rig.terminals("wall") - %w[R C]).to_h { |terminal| ["THERMOSTAT.#{terminal}", closes.include?(terminal)] }
      end

      def energised_in(rig) = rig.changeover == "O" ? "cooling" : "heating"

      def supplies(condition)
        Condition::SUPPLIES.each_with_object({}) do |supply, positions|
          [1, 2].each { |leg| positions["#{supply}.leg_#{leg}"] = condition.supplies.fetch(supply, true) }
        end
      end

      def switches(rig, condition)
        fitted = %w[DFT OL] + rig[:safeties] + (rig[:backup] == "strips" ? %w[LIM TL] : [])
        condition.switches.to_h do |code, state|
          raise BadCondition.new(field: "/condition/switches/#{code}", problem: "is not fitted on this rig") unless fitted.include?(code)

          [code, state == "closed"]
        end
      end

      def defrost(condition)
        board = condition.board || Catalogue.calls.fetch(condition.call)["board"] || {}
        { "BOARD.defrost" => board.fetch("defrost", false) }
      end
    end
  end
end
