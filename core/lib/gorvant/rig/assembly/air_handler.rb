# frozen_string_literal: true

module Gorvant
  module Assembly
    # The hub: transformer, fuse, terminal strip, blower relay, sequencer.
    module AirHandler
      class << self
        def draw(sketch)
          supply(sketch)
          relay(sketch, "IFR", "air_handler.G")
          relay(sketch, "SEQ", "air_handler.W") if sketch.rig[:backup] == "strips"
        end

        private

        def supply(sketch)
          about = Catalogue.profile.fetch("transformer")
          va = sketch.rig[:transformer_va]
          nominal = about.fetch("full_load_volts_ac")
          # Open-circuit volts are such that full load brings the secondary to its nominal value. A plate of other VA has
          # windings of other gauge, so its own resistance goes with 1/VA.
          ohms = about.fetch("secondary_ohms") * 40.0 / va
          sketch.net.secondary("TRAN", from: HOME, to: HOT, component: "TRAN", label: "TRAN", ohms: ohms, rated_va: va.to_f,
                                       volts_ac: nominal + (ohms * va / nominal), primary: %w[air_handler.L1 air_handler.L2].freeze,
                                       primary_volts_ac: about.fetch("primary_volts_ac"))
          sketch.name(HOT, "TRAN, hot side")
          sketch.name(HOME, "TRAN, common side")
          sketch.join(HOME, "air_handler.C", how: :factory_wire)
          fuse(sketch)
        end

        def fuse(sketch)
          amps = sketch.rig[:fuse_amps]
          return sketch.join(HOT, "air_handler.R", how: :factory_wire) if amps.zero?

          sketch.net.fuse("FU", from: HOT, to: "air_handler.R", component: "FU", label: "FU", rated_amps: amps.to_f, ohms: Catalogue.profile.fetch("fuse").fetch("ohms"))
        end

        def relay(sketch, code, feed)
          sketch.device(code, "air_handler", feed, "air_handler.C") { |tabs| sketch.coil(code, from: tabs[0], to: tabs[1]) }
        end
      end
    end
  end
end
