# frozen_string_literal: true

require_relative "assembly/sketch"
require_relative "assembly/cables"
require_relative "assembly/wall"
require_relative "assembly/air_handler"
require_relative "assembly/board"
require_relative "assembly/outdoor"
require_relative "assembly/line"
require_relative "assembly/positions"

module Gorvant
  # From what is fitted to the circuit that it makes. Each place has its own file; they meet only at terminals.
  module Assembly
    HOT = "air_handler.TRAN.R"
    HOME = "air_handler.TRAN.C"
    LINE_HOT = "panel.L1"
    LINE_HOME = "panel.L2"
    GROUND = "panel.ground"
    CHASSIS = "air_handler.chassis"

    class << self
      # The netlist of a rig, wired as its file says, all at rest.
      def netlist(rig)
        Netlist.build(references: [HOME, GROUND], ties: { CHASSIS => GROUND }) do |net|
          sketch = Sketch.new(net, rig)
          [Wall, AirHandler, Board, Outdoor, Line, Cables].each { |place| place.draw(sketch) }
          sketch.name_tabs
        end
      end

      # Feeders ([[Paths::Step]]) of a load in the order of the design, the same in every call: the thermostat's way
      # first, then by contacts and length.
      def by_design(feeders)
        feeders.sort_by.with_index do |steps, i|
          [
            steps.any? { |step| step.branch.component == "THERMOSTAT" } ? 0 : 1,
            steps.count { |step| step.branch.kind == :contact },
            steps.size,
            i
          ]
        end
      end

      # Which switches a condition closes or opens: { branch id => closed? }, for Settling.
      def positions(rig, condition) = Positions.of(rig, condition)
    end
  end
end
