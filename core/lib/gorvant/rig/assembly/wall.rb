# frozen_string_literal: true

module Gorvant
  module Assembly
    # The thermostat: switches that join R to its other terminals, and its own electronics where R and C feed them.
    module Wall
      def self.draw(sketch)
        fed = sketch.rig[:thermostat_power] == "common"
        sketch.load("THERMOSTAT", from: "wall.R", to: "wall.C") if fed
        (sketch.rig.terminals("wall") - %w[R C]).each do |terminal|
          sketch.switch("THERMOSTAT.#{terminal}", from: "wall.R", to: "wall.#{terminal}", component: "THERMOSTAT", closed: false,
                                                  needs: fed ? "THERMOSTAT" : nil, label: "#{Naming.letter(sketch.rig, terminal)} at the thermostat")
        end
      end
    end
  end
end
