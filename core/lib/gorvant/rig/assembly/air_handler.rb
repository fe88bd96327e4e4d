# frozen_string_literal: true

module Gorvant
  module Assembly
    # The hub: transformer, fuse, terminal strip, blower relay, and what W works. With gas backup it is the furnace.
    module AirHandler
      HOME_TERMINAL = "air_handler.C"

      class << self
        def draw(sketch)
          supply(sketch)
          chassis(sketch)
          sketch.wired_coil("IFR", "air_handler", "air_handler.G", HOME_TERMINAL)
          heat_codes(sketch.rig).each { |code| sketch.wired_coil(code, "air_handler", "air_handler.W", HOME_TERMINAL) }
        end

        # What W works on this rig, in order.
        def heat_codes(rig)
          case rig[:backup]
          when "gas"
            ["GAS"]
          when "strips"
            banks = (rig[:strip_switch] == "relay" ? %w[HR HR2] : %w[SEQ SEQ2]).first(rig[:strip_banks])
            rig[:blower_on_w] ? banks + ["BIR"] : banks
          else
            []
          end
        end

        private

        # Open-circuit volts are such that full load brings the secondary to its nominal value. A plate of other VA has
        # windings of other gauge, so its own resistance goes with 1/VA.
        def supply(sketch)
          about = Catalogue.profile.fetch("transformer")
          va = sketch.rig[:transformer_va]
          nominal = about.fetch("full_load_volts_ac")
          ohms = about.fetch("secondary_ohms") * 40.0 / va
          gas = sketch.rig[:backup] == "gas"
          tap = gas ? about.fetch("furnace_primary_volts_ac") : sketch.rig[:transformer_tap].to_f
          sketch.net.secondary(
            "TRAN",
            from: HOME,
            to: HOT,
            component: "TRAN",
            label: "TRAN",
            ohms: ohms,
            rated_va: va.to_f,
            volts_ac: nominal + (ohms * va / nominal),
            primary: [Line.indoor_hot(sketch.rig), gas ? "air_handler.N" : "air_handler.L2"].freeze,
            primary_volts_ac: tap
          )
          sketch.name(HOT, "TRAN, hot side")
          sketch.name(HOME, "TRAN, common side")
          sketch.join(HOME, HOME_TERMINAL, how: :factory_wire)
          fuse(sketch)
        end

        # Past the fuse, and past a float switch in R.
        def fuse(sketch)
          amps = sketch.rig[:fuse_amps]
          float = sketch.rig[:float_switch] == "r"
          strip = float ? "air_handler.FLS.1" : "air_handler.R"
          sketch.join(sketch.string(%w[FLS], "air_handler", nil), "air_handler.R", how: :factory_wire) if float
          return sketch.join(HOT, strip, how: :factory_wire) if amps.zero?

          sketch.net.fuse(
            "FU",
            from: HOT,
            to: strip,
            component: "FU",
            label: "FU",
            rated_amps: amps.to_f,
            ohms: Catalogue.profile.fetch("fuse").fetch("ohms")
          )
        end

        def chassis(sketch)
          sketch.name(CHASSIS, "chassis ground")
          if sketch.rig[:c_bonded] == "yes"
            sketch.join(HOME_TERMINAL, CHASSIS, how: :joint, id: "bond", label: "C bonded to the chassis")
          end
        end
      end
    end
  end
end
