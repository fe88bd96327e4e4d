# frozen_string_literal: true

module Gorvant
  module Assembly
    # What hangs on the board's low-voltage pins: safeties, contactors, valve, second stage, outdoor thermostat.
    module Outdoor
      R = Board::R
      C = Board::C

      class << self
        def draw(sketch)
          contactor(sketch)
          stage_2(sketch) if sketch.rig[:compressor_stages] == 2
          sketch.rig[:defrost_method] == "hot_gas" ? hot_gas(sketch) : valve(sketch)
          outdoor_thermostat(sketch) if sketch.rig[:outdoor_thermostat]
          sketch.across(Options.low) { |code, from, to| sketch.wired_coil(code, "outdoor", from, to) }
        end

        private

        # The safeties, then the board's run-time tap and compressor output, or straight to the contactor.
        def contactor(sketch)
          sketch.name("outdoor.board.T1", "board T1")
          last = sketch.string(sketch.rig[:safeties], "outdoor", "outdoor.board.Y_out")
          if sketch.rig[:safeties_return] == "board"
            sketch.name("outdoor.board.M", "board M, compressor output")
            sketch.name("outdoor.board.Y_in", "board Y, from the safeties")
            sketch.join(last, "outdoor.board.Y_in", how: :factory_wire)
            sketch.join("outdoor.board.Y_in", "outdoor.board.M")
            last = "outdoor.board.M"
          end
          sketch.wired_coil("CC", "outdoor", last, C)
          tap(sketch, last)
        end

        def tap(sketch, fed)
          sketch.join(sketch.rig[:run_time_tap] == "on_y" ? "outdoor.Y" : fed, "outdoor.board.T1")
          sketch.load("T1_IN", from: "outdoor.board.T1", to: C)
        end

        def stage_2(sketch)
          sketch.wired_coil(sketch.rig[:stage_2] == "contactor" ? "CC2" : "Y2S", "outdoor", "outdoor.Y2", C)
        end

        # O type: the terminal feeds the solenoid, and in defrost R does. B type: in defrost the relay opens the feed.
        def valve(sketch)
          pin = valve_pin(sketch)
          if sketch.rig.changeover == "B"
            sketch.contact(
              "DFR.valve",
              from: "outdoor.B",
              to: pin,
              relay: "DFR",
              rest: :closed,
              label: "DFR, valve contact"
            )
          elsif sketch.rig[:valve_feed] == "one_trace"
            sketch.join("outdoor.O", pin)
            sketch.contact("DFR.valve", from: R, to: "outdoor.O", relay: "DFR", label: "DFR, valve contact")
          else
            sketch.contact(
              "DFR.valve_rest",
              from: "outdoor.O",
              to: pin,
              relay: "DFR",
              rest: :closed,
              label: "DFR, valve contact at rest"
            )
            sketch.contact("DFR.valve", from: R, to: pin, relay: "DFR", label: "DFR, valve contact")
          end
        end

        # In a hot-gas defrost the valve stays; a bypass solenoid opens.
        def hot_gas(sketch)
          sketch.join("outdoor.#{sketch.rig.changeover}", valve_pin(sketch))
          sketch.name("outdoor.board.HGS", "board hot-gas pin")
          sketch.contact("DFR.HGS", from: R, to: "outdoor.board.HGS", relay: "DFR", label: "DFR, hot-gas contact")
          sketch.wired_coil("HGS", "outdoor", "outdoor.board.HGS", C)
        end

        def valve_pin(sketch)
          pin = "outdoor.board.RVS"
          sketch.name(pin, "board valve pin")
          sketch.wired_coil(sketch.rig[:valve_volts] == "line" ? "RVR" : "RVS", "outdoor", pin, C)
          pin
        end

        def outdoor_thermostat(sketch)
          last = sketch.string(%w[ODT], "outdoor", "outdoor.W2")
          sketch.join(last, "outdoor.W2_in", how: :factory_wire)
        end
      end
    end
  end
end
