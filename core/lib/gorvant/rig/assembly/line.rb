# frozen_string_literal: true

module Gorvant
  module Assembly
    # Line voltage: two supplies from one panel, split phase with ground; contactor poles, windings with their
    # capacitor, strips.
    module Line
      class << self
        def draw(sketch)
          panel(sketch)
          primary(sketch)
          contactor(sketch)
          compressor(sketch)
          fan(sketch)
          valve(sketch) if sketch.rig[:valve_volts] == "line"
          options(sketch)
          blower(sketch)
          strips(sketch) if sketch.rig[:backup] == "strips"
        end

        # Past the blower door's switch, where there is one: what the open panel takes away.
        def indoor_hot(rig) = rig[:door_switch] ? "air_handler.DIS.2" : "air_handler.L1"

        private

        def panel(sketch)
          supply = Catalogue.profile.fetch("supply")
          sketch.name(GROUND, "ground at the panel")
          sketch.net.source(
            "panel.leg_1",
            from: GROUND,
            to: LINE_HOT,
            volts_ac: supply.fetch("line_leg_volts_ac"),
            ohms: supply.fetch("line_source_ohms"),
            label: "L1"
          )
          sketch.net.source(
            "panel.leg_2",
            from: LINE_HOME,
            to: GROUND,
            volts_ac: second_leg(sketch.rig, supply),
            ohms: supply.fetch("line_source_ohms"),
            label: "L2"
          )
          feed(sketch, "outdoor", "outdoor disconnect", { 1 => LINE_HOT, 2 => LINE_HOME })
          if gas?(sketch)
            furnace_feed(sketch)
          else
            feed(sketch, "air_handler", "air handler breaker", { 1 => LINE_HOT, 2 => LINE_HOME })
          end
        end

        # Split phase: the legs are each other's opposites. Of three phases two legs stand 120° apart, 208 V between
        # them.
        def second_leg(rig, supply)
          volts = supply.fetch("line_leg_volts_ac")
          return volts if rig[:supply_volts] == 240

          -Complex.polar(volts, supply.fetch("wye_degrees") * Math::PI / 180)
        end

        def feed(sketch, place, title, legs)
          legs.each do |leg, node|
            sketch.switch(
              "#{place}.leg_#{leg}",
              from: node,
              to: "#{place}.L#{leg}",
              component: nil,
              closed: true,
              label: title
            )
            sketch.name("#{place}.L#{leg}", "#{sketch.rig.place_title(place)} L#{leg}")
          end
        end

        # A furnace has its own 120 V: one leg and the neutral, which is grounded at the panel.
        def furnace_feed(sketch)
          sketch.switch(
            "air_handler.leg_1",
            from: LINE_HOT,
            to: "air_handler.L1",
            component: nil,
            closed: true,
            label: "furnace switch"
          )
          sketch.switch(
            "air_handler.leg_2",
            from: "air_handler.N",
            to: GROUND,
            component: nil,
            closed: true,
            label: "furnace neutral"
          )
          sketch.name("air_handler.L1", "furnace L1")
          sketch.name("air_handler.N", "furnace neutral")
        end

        def gas?(sketch) = sketch.rig[:backup] == "gas"
        def indoor_home(sketch) = gas?(sketch) ? "air_handler.N" : "air_handler.L2"

        def primary(sketch)
          about = Catalogue.profile.fetch("transformer")
          volts = gas?(sketch) ? about.fetch("furnace_primary_volts_ac") : sketch.rig[:transformer_tap].to_f
          sketch.switch("DIS", from: "air_handler.L1", to: indoor_hot(sketch.rig)) if sketch.rig[:door_switch]
          sketch.net.load(
            "TRAN.primary",
            from: indoor_hot(sketch.rig),
            to: indoor_home(sketch),
            component: "TRAN",
            label: "TRAN primary",
            ohms: (volts**2) / about.fetch("primary_va_idle"),
            works_above_volts_ac: volts * 0.5
          )
        end

        def contactor(sketch)
          %w[L1 T1 L2 T2].each { |tab| sketch.name("outdoor.CC.#{tab}", "contactor #{tab}") }
          sketch.join("outdoor.L1", "outdoor.CC.L1", how: :line_wire)
          sketch.join("outdoor.L2", "outdoor.CC.L2", how: :line_wire)
          poles = sketch.rig[:contactor_poles] == 2 ? [1, 2] : [sketch.rig[:contactor_switched_leg] == "L2" ? 2 : 1]
          if poles.include?(1)
            pole(sketch, 1, "outdoor.CC.L1", "outdoor.CC.T1")
          else
            bar(sketch, 1, "outdoor.CC.L1", "outdoor.CC.T1")
          end
          if poles.include?(2)
            pole(sketch, 2, "outdoor.CC.T2", "outdoor.CC.L2")
          else
            bar(sketch, 2, "outdoor.CC.T2", "outdoor.CC.L2")
          end
        end

        def pole(sketch, number, from, to) =
          sketch.contact("CC.pole_#{number}", from: from, to: to, relay: "CC", label: "CC, pole #{number}")

        def bar(sketch, number, from, to)
          sketch.net.wire(
            "CC.bar",
            from: from,
            to: to,
            ohms: Catalogue.profile.fetch("line_wire_ohms"),
            label: "CC, bar in place of pole #{number}",
            unread: sketch.rig[:contactor_poles] == "unread"
          )
        end

        # Run winding from R to common; start winding from S, fed through the capacitor.
        def compressor(sketch)
          %w[R S C].each { |tab| sketch.name("outdoor.COMP.#{tab}", "compressor #{tab}") }
          sketch.join("outdoor.CC.T1", "outdoor.COMP.R", how: :line_wire)
          motor(sketch, "COMP", run: "outdoor.COMP.R", start: "outdoor.COMP.S", common: "outdoor.COMP.C", tab: "HERM")
          sketch.join("outdoor.CC.T1", "outdoor.CAP.C", how: :line_wire)
          sketch.switch("OL", from: "outdoor.COMP.C", to: "outdoor.CC.T2")
          return unless sketch.rig[:compressor_stages] == 2 && sketch.rig[:stage_2] == "contactor"

          sketch.contact("CC2.pole_1", from: "outdoor.CC.T1", to: "outdoor.COMP2.1", relay: "CC2", label: "CC2, pole 1")
          sketch.load("COMP2", from: "outdoor.COMP2.1", to: "outdoor.COMP.C")
        end

        def fan(sketch)
          relay = sketch.rig[:defrost_relays] == 2 ? "DFR2" : "DFR"
          sketch.contact(
            "DFR.fan",
            from: "outdoor.CC.T1",
            to: "outdoor.board.fan_out",
            relay: relay,
            rest: :closed,
            label: "#{relay}, fan contact"
          )
          sketch.name("outdoor.board.fan_out", "board fan tab")
          last =
            (
              if sketch.rig[:fan_cycling_switch]
                sketch.string(%w[FCS], "outdoor", "outdoor.board.fan_out")
              else
                "outdoor.board.fan_out"
              end
            )
          sketch.join(last, "outdoor.OFM.R", how: :line_wire)
          motor(sketch, "OFM", run: "outdoor.OFM.R", start: "outdoor.OFM.S", common: "outdoor.OFM.C", tab: "FAN")
          sketch.join("outdoor.OFM.C", "outdoor.CC.T2", how: :line_wire)
        end

        # A line-voltage valve solenoid behind its 24 V relay.
        def valve(sketch)
          sketch.contact("RVR.line", from: "outdoor.L1", to: "outdoor.RVS.L1", relay: "RVR", label: "RVR, line contact")
          sketch.load("RVS_LINE", from: "outdoor.RVS.L1", to: "outdoor.L2")
        end

        def motor(sketch, code, run:, start:, common:, tab:)
          about = Catalogue.components.fetch(code)
          sketch.load(code, from: run, to: common)
          sketch.net.load(
            "#{code}.start",
            from: start,
            to: common,
            component: code,
            ohms: about.fetch("start_ohms"),
            label: "#{Naming.component(code)} start winding",
            works_above_volts_ac: about.fetch("start_works_above_volts_ac")
          )
          sketch.join("outdoor.CAP.#{tab}", start, how: :line_wire)
          sketch.net.capacitor(
            "CAP.#{tab.downcase}",
            from: "outdoor.CAP.C",
            to: "outdoor.CAP.#{tab}",
            component: "CAP",
            label: "CAP, #{tab} side",
            farads: Catalogue.components.fetch("CAP").fetch("#{tab.downcase}_microfarads") * 1e-6
          )
        end

        # On the diagram of most units, fitted on few.
        def options(sketch)
          sketch.across(Options.line) { |code, from, to| sketch.load(code, from: from, to: to) }
          return unless sketch.rig[:start_kit]

          # The potential relay sits across the start winding and opens its contact once the compressor runs.
          sketch.net.load(
            "SR",
            from: "outdoor.COMP.S",
            to: "outdoor.COMP.C",
            component: "SR",
            ohms: Catalogue.components.fetch("SR").fetch("ohms"),
            label: "SR",
            works_above_volts_ac: Catalogue.components.fetch("COMP").fetch("start_works_above_volts_ac")
          )
          sketch.contact(
            "SR.contact",
            from: "outdoor.COMP.R",
            to: "outdoor.SC.1",
            relay: "SR",
            rest: :closed,
            label: "SR, contact"
          )
          sketch.net.capacitor(
            "SC",
            from: "outdoor.SC.1",
            to: "outdoor.COMP.S",
            component: "SC",
            label: "SC",
            farads: Catalogue.components.fetch("SC").fetch("microfarads") * 1e-6
          )
        end

        # A furnace drives its own blower when it fires; some air handlers start theirs on W.
        def blower(sketch)
          home = indoor_home(sketch)
          sketch.contact(
            "IFR.line",
            from: indoor_hot(sketch.rig),
            to: "air_handler.BLOWER.1",
            relay: "IFR",
            label: "IFR, line contact"
          )
          { "GAS" => gas?(sketch), "BIR" => AirHandler.heat_codes(sketch.rig).include?("BIR") }.each do |code, fitted|
            if fitted
              sketch.contact(
                "#{code}.blower",
                from: indoor_hot(sketch.rig),
                to: "air_handler.BLOWER.1",
                relay: code,
                label: "#{code}, blower contact"
              )
            end
          end
          sketch.load(
            "BLOWER",
            from: "air_handler.BLOWER.1",
            to: "air_handler.BLOWER.2",
            volts: gas?(sketch) ? Catalogue.profile.dig("supply", "line_leg_volts_ac") : nil
          )
          sketch.join("air_handler.BLOWER.2", home, how: :line_wire)
        end

        def strips(sketch)
          sketch.switch("LIM", from: "air_handler.L1", to: "air_handler.LIM.2")
          sketch.switch("TL", from: "air_handler.LIM.2", to: "air_handler.TL.2")
          AirHandler
            .heat_codes(sketch.rig)
            .grep_v("BIR")
            .zip(%w[HTR HTR2])
            .each do |relay, heater|
              sketch.contact(
                "#{relay}.line",
                from: "air_handler.TL.2",
                to: "air_handler.#{heater}.1",
                relay: relay,
                label: "#{relay}, line contact"
              )
              sketch.load(heater, from: "air_handler.#{heater}.1", to: "air_handler.#{heater}.2")
              sketch.join("air_handler.#{heater}.2", "air_handler.L2", how: :line_wire)
            end
        end
      end
    end
  end
end
