# frozen_string_literal: true

module Gorvant
  module Assembly
    # The thermostat: switches that join R to its other terminals, and its own electronics where R and C feed them.
    module Wall
      RH = "wall.thermostat.RH"
      HEAT = %w[W1 W2 E].freeze

      # RC and RH apart: the heat outputs get their R over a link, which belongs there where one transformer feeds both.
      def self.link(sketch)
        sketch.name(RH, "RH at the thermostat")
        sketch.join("wall.R", RH, how: :joint, id: "rc_rh", label: "jumper RC–RH at the thermostat")
      end

      def self.draw(sketch)
        fed = sketch.rig[:thermostat_power] == "common"
        sketch.load("THERMOSTAT", from: "wall.R", to: "wall.C") if fed
        split = sketch.rig[:split_r]
        link(sketch) if split
        (sketch.rig.terminals("wall") - %w[R C]).each do |terminal|
          sketch.switch(
            "THERMOSTAT.#{terminal}",
            from: split && HEAT.include?(terminal) ? RH : "wall.R",
            to: "wall.#{terminal}",
            component: "THERMOSTAT",
            closed: false,
            needs: fed ? "THERMOSTAT" : nil,
            label: "#{Naming.letter(sketch.rig, terminal)} at the thermostat"
          )
        end
      end
    end
  end
end
