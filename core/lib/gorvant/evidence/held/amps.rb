# frozen_string_literal: true

module Gorvant
  module Held
    # Amps through a load's lead: whether current flows where it should. How much is right only the maker's table tells,
    # and a clamp cannot tell the little that a 24 V coil draws.
    module Amps
      class << self
        def judge(trace, seen)
          title = Naming.component(seen.place)
          if trace.low_voltage?(trace.netlist[seen.place].from)
            return Held.judged("undetermined", "amps_small", load: title)
          end

          flows = flow(*seen.amount.bounds)
          return Held.judged("undetermined", "amps_between", reads: seen.says) if flows.nil?

          state = trace.load_state(seen.place)
          key = "amps_#{flows ? "flow" : "none"}_#{state.on ? "on" : "off"}"
          Held.judged(flows == state.on ? "agrees" : "disagrees", key, reads: seen.says, load: title, why: state.why)
        end

        private

        # true, false, or nil between what is none and what flows.
        def flow(least, most)
          limits = Catalogue.evidence.fetch("amps")
          return true if least >= limits["flows_from"]

          most <= limits["none_at_most"] ? false : nil
        end
      end
    end
  end
end
