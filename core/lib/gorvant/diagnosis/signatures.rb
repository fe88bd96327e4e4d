# frozen_string_literal: true

module Gorvant
  module Diagnosis
    # What every hypothesis shows in every test: made once for a unit, hypothesis by hypothesis, and kept as text.
    class Maker
      LATELY = 3 # as many as one has amounts

      attr_reader :situation, :hypotheses, :tests

      def initialize(situation)
        @situation = situation
        @hypotheses = Hypotheses.new(situation).all
        @tests = Tests.new(situation, @hypotheses).all
        @by_state = @tests.group_by(&:state)
        @volts = Scale.volts
        @ports = Diagnosis.ports
        @plain = Points.new(situation.netlist)
        @found = Fault.parse_all(situation.faults)
        @rig = refitted(situation.rig, @found)
        @rigs = {}
        @bodies = {}.compare_by_identity
        @circuits = {}.compare_by_identity
      end

      # What one hypothesis shows: { "codes" => [code of each test], "marks" => { state => [mark] } }. At a FirstLook
      # only what belongs to it: all other codes are unknown, and calls beside it have no marks. Marks are those of the
      # usual amount.
      def shows(hypothesis, look = FirstLook::WHOLE)
        return nil if hypothesis.none_of_these? || hypothesis.steady

        shown = amounts(hypothesis).map { |one| codes(one, look) }
        {
          "codes" => shown.one? ? shown.first : shown.transpose.map { |several| Scale.of_amounts(several) },
          "marks" => marks(hypothesis, bodies_of(hypothesis), look)
        }
      end

      # The hypothesis with less of its fault, as much as is usual and more, where nobody knows how much there is; alone
      # of all others.
      def amounts(hypothesis)
        fault = hypothesis.faults.one? ? hypothesis.faults.first : {}
        about = Diagnosis.numbers.fetch("amounts")[fault["kind"]]
        return [hypothesis] if about.nil? || fault.key?("ohms")

        known = (@amounts ||= {}.compare_by_identity)
        known.clear unless known.key?(hypothesis)
        less, more = (known[hypothesis] ||= about.map { |ohms| hypothesis.with(faults: [{ **fault, "ohms" => ohms }]) })
        [less, hypothesis, more]
      end

      # The code of one test for a hypothesis by itself, in a condition that may be no state. What was solved for the
      # last hypothesis is kept: it is asked test after test.
      def code_in(condition, test, hypothesis) =
        Scale.of_amounts(amounts(hypothesis).map { |one| code_once(condition, test, one) })

      # The Body of a hypothesis in a state, for what looks into it by itself.
      def body_in(hypothesis, state_id) = body(hypothesis, @situation.state(state_id).condition, state_id)

      private

      def code_once(condition, test, hypothesis)
        bodies = bodies_of(hypothesis)
        state = test.state && @situation.state(test.state)
        return code(test, hypothesis, bodies) if test.state.nil? || state&.condition == condition

        own = Hash.new { |_all, id| bodies[id] }
        code(test, hypothesis, own.merge!(test.state => body(hypothesis, condition, test.state)))
      end

      def bodies_of(hypothesis) = lately(@bodies, hypothesis) { bodies(hypothesis) }

      # What was made of the last few: one is asked in all its amounts, test after test.
      def lately(made, hypothesis)
        made.fetch(hypothesis) do
          made.shift if made.size >= LATELY
          made[hypothesis] = yield
        end
      end

      # { state id => Body }, solved when asked for.
      def bodies(hypothesis)
        Hash.new { |all, id| all[id] = body(hypothesis, @situation.state(id).condition, id) }
      end

      def body(hypothesis, condition, state_id)
        circuit = circuit(hypothesis, condition)
        Body.new(circuit.first, hypothesis, solve(hypothesis, condition, state_id, circuit), circuit.last)
      end

      # The Solution of a hypothesis in a call, with wires off beside.
      def settled(hypothesis, state, off)
        rig, netlist, held, points = own_circuit(hypothesis)
        solve(hypothesis, state.condition, state.id, [rig, netlist, held.merge(off), points])
      end

      def solve(hypothesis, condition, state_id, circuit)
        rig, netlist, held, = circuit
        turned = Turns.turned(hypothesis, condition, rig, state_id)
        held = Turns.late(hypothesis, netlist).merge(held)
        Settling.settle(netlist, positions: positions(rig, turned), held: held)
      end

      def positions(rig, condition)
        return Assembly::Positions.of(rig, condition) unless rig.equal?(@rig)

        (@positions ||= {})[condition] ||= Assembly::Positions.of(rig, condition)
      end

      # [Rig, Netlist, held, Points] of a hypothesis, with what the condition supposes on top. One netlist serves all
      # its states, and remembers what it solved.
      def circuit(hypothesis, condition)
        rig, netlist, held, points = own_circuit(hypothesis)
        return rig, netlist, held, points if condition.faults.empty?

        supposed = Fault.parse_all(condition.faults)
        changed, held = supposed.inject([netlist, held]) { |(so_far, open), fault| fault.inject(so_far, open) }
        [rig, changed, held, changed.equal?(netlist) ? points : Points.new(changed, points)]
      end

      def own_circuit(hypothesis) = lately(@circuits, hypothesis) { made_circuit(hypothesis) }

      def made_circuit(hypothesis)
        faults = Fault.parse_all(hypothesis.faults)
        rig = rig_of(hypothesis, faults)
        base, held = found_in(rig)
        netlist, held = Fault.inject(base, faults, held)
        [rig, netlist, held, Points.new(netlist, @plain)]
      end

      def rig_of(hypothesis, faults)
        rig = refitted(@rig, faults)
        return rig if hypothesis.facts.empty?

        @rigs[hypothesis.id] ||= rig.set(hypothesis.facts.transform_keys(&:to_sym))
      end

      def refitted(rig, faults) = faults.inject(rig) { |so_far, fault| fault.refit(so_far) }

      # [Netlist, held] of a rig with what the visit found, which every hypothesis comes on top of: what is solved of it
      # serves all that differ elsewhere.
      def found_in(rig) =
        (@found_in ||= {}.compare_by_identity)[rig] ||= Fault.inject(
          rig.equal?(@situation.rig) ? @situation.netlist : Assembly.netlist(rig),
          @found
        )

      # --- codes

      # [code] of every test; unknown of those that the look leaves out.
      def codes(hypothesis, look)
        bodies = bodies_of(hypothesis)
        known = (@known ||= {}.compare_by_identity)[look] ||= @tests.map { |test| look.at?(test) }
        @tests.each_with_index.map { |test, i| known[i] ? code(test, hypothesis, bodies) : Scale::UNKNOWN }
      end

      def code(test, hypothesis, bodies)
        case test.function
        when "volts_ac"
          bodies[test.state].volts(
            test.from_node,
            test.to_node,
            @volts,
            drains_ghosts: test.instrument == "low_impedance"
          )
        when "seen"
          seen(test, hypothesis, bodies)
        when "ohms"
          ohms(test, hypothesis, bodies)
        when "microfarads"
          capacitor(hypothesis, test.place)
        when "looked_up"
          Diagnosis.facts_of(hypothesis).fetch(test.place) { @situation.rig[test.place.to_sym] }
        else
          other(test, hypothesis)
        end
      end

      def capacitor(hypothesis, place)
        return "weak" if hypothesis.senses["weak"] == place

        hypothesis.faults.any? { |fault| fault["kind"] == "open" && fault["at"] == place } ? "none" : "as_marked"
      end

      def other(test, hypothesis)
        return coil_switch(test.place, hypothesis) if test.function == "coil_switch"
        return own_sensor(hypothesis) if test.place == "thermostat_outdoor"

        hypothesis.turns["board"] == "hold" ? "within" : "since_any"
      end

      # Against the two balance points: as the weather is, unless its sensor is what is looked into.
      def own_sensor(hypothesis)
        return "above" if hypothesis.turns["above"]
        return "below" if hypothesis.turns["below"]

        outdoor = @situation.outdoor_degrees_f
        outdoor ? Diagnosis.balance_side(@situation.rig, outdoor) : Scale::UNKNOWN
      end

      COLD = "cold"
      private_constant :COLD

      def coil_switch(at, hypothesis)
        kind = hypothesis.faults.find { |fault| fault["at"] == "DFT" }&.fetch("kind")
        return kind == "stuck_open" ? "open" : "closed" if kind

        at == COLD ? "closed" : "open"
      end

      # What shows of the unit as a whole, in no one call.
      OF_ALL = { "ice" => :ice, "forced_defrost" => :forced, "coil_switch_watched" => :watched }.freeze
      private_constant :OF_ALL

      def seen(test, hypothesis, bodies)
        whole = OF_ALL[test.place] and return send(whole, hypothesis, bodies)

        case test.place
        when *@ports
          hypothesis.senses["port"] == test.place ? "past" : "inside"
        when /\Awires_/
          landed?(hypothesis, test.place.delete_prefix("wires_")) ? "otherwise" : "as_drawn"
        when /\Afuse_lamp/
          lamp(test, hypothesis, bodies)
        when "after_a_minute"
          bodies[test.state].works?("HTR") || hypothesis.turns.key?("contacts") ? "on" : "off"
        when "after_the_wait"
          bodies["heat"].works?("CC") || hypothesis.turns["board"] == "hold" ? "in" : "out"
        else
          bodies[test.state].look(test.place)
        end
      end

      # Taking wires off makes no short: only one that is there with all of them on is looked for behind fewer.
      def lamp(test, hypothesis, bodies)
        return "not_full" unless bodies[test.state].blows?

        off = (@off ||= {})[test.place] ||= @situation.off_for_lamp(test.place).to_h { |joint| [joint, :open] }
        off.empty? || settled(hypothesis, @situation.state(test.state), off).blown.any? ? "full" : "not_full"
      end

      # Ice as a fault leaves it; else as frost does. A unit that does not run frosts no coil, but a pressure switch may
      # have opened because of ice; and where heating or its defrosts blow the fuse, that goes before any ice grows.
      def ice(hypothesis, bodies)
        return hypothesis.senses["ice"] if hypothesis.senses["ice"]
        return "usual_frost" if frosting.any? { |state| bodies[state].blows? }
        return hypothesis.senses["port"] == "suction_port" ? "ice_or_none" : "no_frost" unless bodies["heat"].pumps?

        iced?(hypothesis, bodies) ? "solid_block" : "usual_frost"
      end

      def frosting = @frosting ||= ["heat", cold_state, "defrost"].uniq.select { |state| @situation.state(state) }

      # No defrost, too seldom, or one that brings the coil no heat.
      def iced?(hypothesis, bodies)
        return true if %w[never seldom].include?(hypothesis.senses["defrost"])

        !bodies[cold_state].defrosts? || thawless?(bodies)
      end

      def thawless?(bodies)
        return false unless @situation.state("defrost")

        body = bodies["defrost"]
        @situation.rig[:defrost_method] == "reverse_cycle" &&
          (body.works?("OFM") || body.valve == "heating" || !body.pumps?)
      end

      def cold_state = @situation.state("heat_cold") ? "heat_cold" : "heat"

      def watched(hypothesis, _bodies) = hypothesis.senses["watched"] || "stays_#{coil_switch(COLD, hypothesis)}"

      # With the coil switch's pins jumpered the board sees a cold coil; what a person sees of it is its relay at work,
      # and what fan and valve do then.
      def forced(hypothesis, bodies)
        return "goes_dead" if @situation.state("defrost") && bodies["defrost"].blows?
        return "stays_out" if hypothesis.id == "clock_dead" || !relay_moves?(bodies)

        switch_only = hypothesis.at == "DFT" || hypothesis.part_ok == "DFT"
        switch_only || bodies[cold_state].defrosts? ? gone_in(bodies) : "stays_out"
      end

      def gone_in(bodies)
        return "goes_in_right" unless @situation.state("defrost")

        bodies["defrost"].gone_in
      end

      def relay_moves?(bodies) = @situation.state("defrost").nil? || bodies["defrost"].works?("DFR")

      def landed?(hypothesis, place)
        hypothesis.faults.any? { |fault| Diagnosis.at_wires?(fault, place) }
      end

      # A part by itself: its own fault, or what it is.
      def ohms(test, hypothesis, bodies)
        return touching?(hypothesis, test) ? "joined" : "open" if test.place == "between"
        return sound(test.place) if hypothesis.part_ok == test.place
        return "open+joined" if fuse?(test.place) && blows?(bodies)

        fault = hypothesis.faults.find { |one| one["at"] == test.place }
        case fault && fault["kind"]
        when "open", "stuck_open"
          "open"
        when "stuck_closed"
          "joined"
        when "coil_shorted"
          "shorted"
        else
          sound(test.place)
        end
      end

      def touching?(hypothesis, test) = hypothesis.faults.any? { |fault| Diagnosis.touch?(fault, test, @situation.rig) }

      # Behind a short the fuse is whole until the call that blows it, and open from then on.
      def fuse?(id) = @situation.netlist[id].kind == :fuse
      def blows?(bodies) = own_calls.any? { |call| bodies[call].blows? }
      def own_calls = @own_calls ||= Outputs.calls(@situation.rig).select { |call| @situation.state(call) }

      def sound(id)
        branch = @situation.netlist[id]
        return "winding" if branch.kind == :coil
        return "joined" unless branch.kind == :switch

        branch[:closed] ? "joined" : "open"
      end

      # { call => marks }, and of frost under the heating call.
      def marks(hypothesis, bodies, look)
        all = own_calls.select { |call| look.in?(call) }.to_h { |call| [call, bodies[call].marks] }
        all["heat"] += frost(hypothesis, bodies) if all["heat"] && look.frost
        all
      end

      def frost(hypothesis, bodies)
        never = bodies["heat"].compressor? && !bodies[cold_state].defrosts?
        often = %w[often otherwise].include?(hypothesis.senses["defrost"])
        shut = hypothesis.at == "DFT" && hypothesis.kind == "stuck_closed"
        [
          *("never_defrosts" if never),
          *("often_defrosts" if often || shut),
          *("ice" unless %w[usual_frost no_frost].include?(ice(hypothesis, bodies))),
          *("coil_switch_shut" if shut)
        ]
      end
    end

    # Where a temperature lies against a thermostat's balance points: "below" the compressor's, "above" the one of aux,
    # or "between" them.
    def self.balance_side(rig, degrees_f)
      return "above" if degrees_f > rig[:auxiliary_balance_degrees_f]

      degrees_f < rig[:compressor_balance_degrees_f] ? "below" : "between"
    end

    # How a hypothesis that is as designed leaves a call.
    module Turns
      class << self
        # The Condition that a test in this condition really meets.
        def turned(hypothesis, condition, rig, state_id)
          turns = hypothesis.turns
          return condition if turns.empty?

          about = Catalogue.calls.fetch(condition.call)
          [
            [:hold, turns["board"] == "hold" && about["stage"].positive? && !about["board"]],
            [:thermostat, turns["thermostat"]],
            [:heat_as, turns["heat_as"] && about["mode"] == "heating" && !about["aux"]],
            [:switches, turns["switches"]],
            [:outdoors, turns["above"] || turns["below"]],
            [:off_outputs, turns["off_outputs"] && condition.call == "off"]
          ].select(&:last).inject(condition) { |now, (name, _on)| public_send(name, now, turns, rig, state_id) }
        end

        # Contacts that have not moved yet.
        def late(hypothesis, netlist) =
          hypothesis.turns.fetch("contacts", []).select { |id| netlist.branch?(id) }.to_h { |id| [id, :open] }

        def hold(condition, _turns, _rig, _id) = condition.with(board: { "hold" => true }.freeze)

        def thermostat(condition, turns, rig, _id)
          return condition if condition.call == "off"

          closed = Outputs.closed(rig, condition.call, outdoor: condition.outdoor_degrees_f)
          condition.with(outputs: turns["thermostat"] == "nothing" ? [] : closed - %w[Y Y2])
        end

        def heat_as(condition, turns, _rig, _id) = condition.with(call: turns["heat_as"])

        def switches(condition, turns, _rig, _id)
          condition.with(switches: turns["switches"].merge(condition.switches))
        end

        # Its own sensor stands past the balance point.
        def outdoors(condition, turns, rig, _id)
          degrees = turns["above"] ? rig[turns["above"].to_sym] + 10 : rig[turns["below"].to_sym] - 10
          condition.with(outdoor_degrees_f: degrees)
        end

        def off_outputs(condition, turns, rig, _id)
          terminal = rig.changeover_terminal(turns["off_outputs"])
          terminal ? condition.with(outputs: [terminal]) : condition
        end
      end
    end
  end
end
