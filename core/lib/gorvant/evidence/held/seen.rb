# frozen_string_literal: true

module Gorvant
  module Held
    # Seen or heard: whether a load works as the circuit says. What runs late (a hold, a delay, a sequencer) is told,
    # since one look does not see it.
    module Seen
      class << self
        def judge(trace, seen)
          about = seen.about.fetch("places").fetch(seen.place)
          load = about["load"]
          works = about.fetch("choices").fetch(seen.choice)
          return Held.judged("undetermined", "kept", reads: seen.says) if load.nil? || works.nil?
          return Held.judged("undetermined", "not_fitted", what: about["title"]) unless trace.netlist.branch?(load)

          state = trace.load_state(load)
          works = hums(trace, load, state) if works == "fed_idle"
          return Held.judged("agrees", "seen_right", what: about["title"], reads: seen.says) if works == state.on

          key = state.on ? "seen_idle" : "seen_working"
          Held.judged("disagrees", key, what: about["title"], reads: seen.says, why: state.why)
        end

        private

        # One that hums is fed and does not run: right only where its start winding is supposed dead; else it is neither
        # as it runs nor as it rests.
        def hums(trace, load, state)
          return state.on if trace.solution.working?(load) && !state.on

          !state.on
        end
      end
    end
  end
end
