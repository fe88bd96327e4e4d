# frozen_string_literal: true

module Gorvant
  module Assembly
    # Line voltage: two supplies from one panel, split phase with ground; contactor poles, motors, strips.
    module Line
      class << self
        def draw(sketch)
          panel(sketch)
          transformer_primary(sketch)
          outdoor(sketch)
          indoor(sketch)
        end

        private

        def panel(sketch)
          supply = Catalogue.profile.fetch("supply")
          sketch.net.source("panel.leg_1", from: GROUND, to: LINE_HOT, volts_ac: supply.fetch("line_leg_volts_ac"), ohms: supply.fetch("line_source_ohms"), label: "L1")
          sketch.net.source("panel.leg_2", from: LINE_HOME, to: GROUND, volts_ac: supply.fetch("line_leg_volts_ac"), ohms: supply.fetch("line_source_ohms"), label: "L2")
          Condition::SUPPLIES.each do |place|
            title = place == "outdoor" ? "outdoor disconnect" : "air handler breaker"
            [[1, LINE_HOT], [2, LINE_HOME]].each do |leg, node|
              sketch.switch("#{place}.leg_#{leg}", from: node, to: "#{place}.L#{leg}", component: nil, closed: true, label: title)
              sketch.name("#{place}.L#{leg}", "#{sketch.rig.place_title(place)} L#{leg}")
            end
          end
        end

        def transformer_primary(sketch)
          about = Catalogue.profile.fetch("transformer")
          volts = about.fetch("primary_volts_ac")
          sketch.net.load("TRAN.primary", from: "air_handler.L1", to: "air_handler.L2", component: "TRAN", label: "TRAN primary",
                                          ohms: (volts**2) / about.fetch("primary_va_idle"), works_above_volts_ac: volts * 0.5)
        end

        def outdoor(sketch)
          sketch.contact("CC.pole_1", from: "outdoor.L1", to: "outdoor.CC.T1", relay: "CC", label: "CC, pole 1")
          if sketch.rig[:contactor_poles] == 2
            sketch.contact("CC.pole_2", from: "outdoor.CC.T2", to: "outdoor.L2", relay: "CC", label: "CC, pole 2")
          else
            sketch.join("outdoor.CC.T2", "outdoor.L2", how: :line_wire, label: "CC, bar in place of pole 2")
          end
          sketch.join("outdoor.CC.T1", "outdoor.COMP.R", how: :line_wire)
          sketch.load("COMP", from: "outdoor.COMP.R", to: "outdoor.COMP.C")
          sketch.switch("OL", from: "outdoor.COMP.C", to: "outdoor.CC.T2", closed: true)
          sketch.contact("DFR.fan", from: "outdoor.CC.T1", to: "outdoor.OFM.1", relay: "DFR", rest: :closed, label: "DFR, fan contact")
          sketch.load("OFM", from: "outdoor.OFM.1", to: "outdoor.OFM.2")
          sketch.join("outdoor.OFM.2", "outdoor.CC.T2", how: :line_wire)
        end

        def indoor(sketch)
          sketch.contact("IFR.line", from: "air_handler.L1", to: "air_handler.BLOWER.1", relay: "IFR", label: "IFR, line contact")
          sketch.load("BLOWER", from: "air_handler.BLOWER.1", to: "air_handler.BLOWER.2")
          sketch.join("air_handler.BLOWER.2", "air_handler.L2", how: :line_wire)
          return unless sketch.rig[:backup] == "strips"

          sketch.switch("LIM", from: "air_handler.L1", to: "air_handler.LIM.2", closed: true)
          sketch.switch("TL", from: "air_handler.LIM.2", to: "air_handler.TL.2", closed: true)
          sketch.contact("SEQ.line", from: "air_handler.TL.2", to: "air_handler.HTR.1", relay: "SEQ", label: "SEQ, line contact")
          sketch.load("HTR", from: "air_handler.HTR.1", to: "air_handler.HTR.2")
          sketch.join("air_handler.HTR.2", "air_handler.L2", how: :line_wire)
        end
      end
    end
  end
end
