# frozen_string_literal: true

module Gorvant
  module Assembly
    # The defrost board: its supply, its inputs, its own relays. What hangs on its pins is in Outdoor.
    module Board
      R = "outdoor.R"
      C = "outdoor.C"

      class << self
        def draw(sketch)
          rig = sketch.rig
          sketch.load("BOARD", from: R, to: C)
          sensing(sketch)
          defrost_relays(sketch)
          compressor_way(sketch)
          strips_call(sketch)
          stage_2_call(sketch) if rig[:compressor_stages] == 2 && rig[:stage_2_in_defrost]
        end

        private

        def sensing(sketch)
          return thermistors(sketch) if sketch.rig[:sensing] == "thermistors"

          input(sketch, "DFT", "coil switch pin")
          input(sketch, "APS", "air-pressure pin") if sketch.rig[:air_pressure_switch]
        end

        # A switch between two pins of the board, and the input behind it: each switch has one of its own.
        def input(sketch, code, title)
          pins = [1, 2].map { |pin| "outdoor.board.#{code}_#{pin}" }
          pins.zip(["R side", "input side"]) { |pin, side| sketch.name(pin, "#{title}, #{side}") }
          sketch.join(R, pins[0])
          last = sketch.string([code], "outdoor", pins[0])
          sketch.join(last, pins[1], how: :factory_wire)
          sketch.load("#{code}_IN", from: pins[1], to: C)
        end

        # Two plugs of two pins; the board reads them with a few volts of its own, which 24 V circuits never see.
        def thermistors(sketch)
          { "COIL_T" => "coil", "AMB_T" => "ambient" }.each do |code, title|
            pins = [1, 2].map { |pin| "outdoor.board.#{code}_#{pin}" }
            pins.each_with_index { |pin, i| sketch.name(pin, "#{title} thermistor pin #{i + 1}") }
            sketch.load(code, from: pins[0], to: pins[1])
            sketch.join(pins[1], C)
          end
        end

        def defrost_relays(sketch)
          sketch.name("outdoor.board.DFR_drive", "defrost relay coil, on the board")
          sketch.switch(
            "BOARD.defrost",
            from: R,
            to: "outdoor.board.DFR_drive",
            component: "BOARD",
            closed: false,
            needs: "BOARD",
            label: "the board's defrost output"
          )
          sketch.coil("DFR", from: "outdoor.board.DFR_drive", to: C)
          sketch.coil("DFR2", from: "outdoor.board.DFR_drive", to: C) if sketch.rig[:defrost_relays] == 2
        end

        # Y in: a trace to the safeties, or the board's own contact, which waits and locks out.
        def compressor_way(sketch)
          sketch.name("outdoor.board.Y_out", "board Y, to the safeties")
          if sketch.rig[:y_path] == "trace"
            sketch.join("outdoor.Y", "outdoor.board.Y_out")
          else
            sketch.load("Y_IN", from: "outdoor.Y", to: C)
            sketch.switch(
              "BOARD.compressor",
              from: "outdoor.Y",
              to: "outdoor.board.Y_out",
              component: "BOARD",
              closed: true,
              needs: "BOARD",
              label: "the board's compressor relay"
            )
          end
          return unless sketch.rig[:lockout_diverts] && sketch.rig[:y_path] == "delay"

          sketch.switch(
            "BOARD.divert",
            from: "outdoor.Y",
            to: "outdoor.W2_out",
            component: "BOARD",
            closed: false,
            needs: "BOARD",
            label: "the board's lockout relay"
          )
        end

        def strips_call(sketch)
          sketch.contact("DFR.W2", from: R, to: "outdoor.W2_out", relay: "DFR", label: "DFR, W2 contact")
          return unless sketch.rig[:outdoor_thermostat]

          if sketch.rig[:w2_path] == "one_trace"
            sketch.join("outdoor.W2_in", "outdoor.W2_out")
          else
            sketch.contact(
              "DFR.W2_in",
              from: "outdoor.W2_in",
              to: "outdoor.W2_out",
              relay: "DFR",
              rest: :closed,
              label: "DFR, W2 in contact"
            )
          end
        end

        def stage_2_call(sketch)
          sketch.contact("DFR.Y2", from: R, to: "outdoor.Y2", relay: "DFR", label: "DFR, Y2 contact")
        end
      end
    end
  end
end
