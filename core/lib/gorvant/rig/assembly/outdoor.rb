# frozen_string_literal: true

module Gorvant
  module Assembly
    # The outdoor unit's low voltage: board, safeties, contactor coil, valve solenoid, coil switch, defrost relay.
    module Outdoor
      C = "outdoor.C"

      class << self
        def draw(sketch)
          board(sketch)
          contactor_line(sketch)
          valve(sketch)
          strips_call(sketch)
        end

        private

        def board(sketch)
          sketch.load("BOARD", from: "outdoor.R", to: C)
          sketch.join("outdoor.R", "outdoor.board.DFT_1")
          sketch.name("outdoor.board.DFT_1", "coil switch pin, R side")
          sketch.name("outdoor.board.DFT_2", "coil switch pin, input side")
          sketch.device("DFT", "outdoor", "outdoor.board.DFT_1", "outdoor.board.DFT_2") { |tabs| sketch.switch("DFT", from: tabs[0], to: tabs[1]) }
          sketch.load("DFT_IN", from: "outdoor.board.DFT_2", to: C)
          sketch.switch("BOARD.defrost", from: "outdoor.R", to: "outdoor.board.DFR_drive", component: "BOARD", needs: "BOARD", label: "the board's defrost output")
          sketch.name("outdoor.board.DFR_drive", "DFR coil, on the board")
          sketch.coil("DFR", from: "outdoor.board.DFR_drive", to: C)
        end

        # Y in, out to the safeties, back to the run-time tap, on to the compressor output and the contactor.
        def contactor_line(sketch)
          sketch.name("outdoor.board.Y_out", "board Y, to the safeties")
          sketch.name("outdoor.board.T1", "board T1")
          sketch.name("outdoor.board.M", "board M, compressor output")
          sketch.join("outdoor.Y", "outdoor.board.Y_out")
          last = sketch.rig[:safeties].inject("outdoor.board.Y_out") do |feed, code|
            tabs = ["outdoor.#{code}.1", "outdoor.#{code}.2"]
            sketch.name(tabs[0], "before #{code}")
            sketch.name(tabs[1], "after #{code}")
            sketch.join(feed, tabs[0], how: :factory_wire)
            sketch.switch(code, from: tabs[0], to: tabs[1], closed: Catalogue.components.fetch(code).fetch("rest") == "closed")
            tabs[1]
          end
          sketch.join(last, "outdoor.board.T1", how: :factory_wire)
          sketch.join("outdoor.board.T1", "outdoor.board.M")
          sketch.device("CC", "outdoor", "outdoor.board.M", C) { |tabs| sketch.coil("CC", from: tabs[0], to: tabs[1]) }
        end

        # O type: one trace from the O terminal to the solenoid, fed by the defrost relay too. B type: the relay opens the feed.
        def valve(sketch)
          pin = "outdoor.board.RVS"
          sketch.name(pin, "board valve pin")
          if sketch.rig.changeover == "O"
            sketch.join("outdoor.O", pin)
            sketch.contact("DFR.valve", from: "outdoor.R", to: "outdoor.O", relay: "DFR", label: "DFR, valve contact")
          else
            sketch.contact("DFR.valve", from: "outdoor.B", to: pin, relay: "DFR", rest: :closed, label: "DFR, valve contact")
          end
          sketch.device("RVS", "outdoor", pin, C) { |tabs| sketch.coil("RVS", from: tabs[0], to: tabs[1]) }
        end

        def strips_call(sketch)
          sketch.contact("DFR.W2", from: "outdoor.R", to: "outdoor.W2_out", relay: "DFR", label: "DFR, W2 contact")
        end
      end
    end
  end
end
