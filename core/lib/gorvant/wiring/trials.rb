# frozen_string_literal: true

module Gorvant
  # Every call of a rig, and the calls in which a safety or a lock-out has to act: what a wiring has to stand.
  class Trials
    # only: the loads that it is about, nil for all.
    Trial = Value.define(:id, :title, :call, :switches, :only, defaults: { switches: {}.freeze, only: nil })
    # loads: { code => works? } of those that the trial is about; nodes: { terminal => "live" or "dead" }; blown: fuse ids.
    # overloads: Findings of the transformer; lost_fraction: of the supply, over the field cables.
    Outcome = Value.define(:loads, :nodes, :blown, :chatter, :overloads, :lost_fraction)
    TELLING = %w[heat cool heat_aux defrost].freeze # these part a wrong circuit from a right one soonest
    COMPRESSOR = %w[COMP COMP2 CC CC2].freeze

    attr_reader :rig, :all

    # rig: with its settings put right.
    def initialize(rig)
      @rig = rig
      @all = calls + safeties + lockout
      @known = {}
    end

    # { trial id => Outcome } of the rig with these faults in. Raises BadCondition.
    def outcomes(faults = []) = @known[faults.sort_by(&:to_s)] ||= solved(faults)

    # Whether these faults leave every trial as it should be: { trial id => Outcome }. Stops at the first that is otherwise.
    def right?(faults, should)
      known = @known[faults.sort_by(&:to_s)]
      return Effects.right?(known, should) if known

      circuit = circuit(faults)
      @all.sort_by { |trial| TELLING.index(trial.call) || TELLING.size }.all? { |trial| Effects.right?({ trial.id => outcome(*circuit, trial) }, should.slice(trial.id)) }
    end

    # What the same equipment does when it is wired as its sort usually is.
    def ideal
      @ideal ||= begin
        facts = @rig.facts.transform_values(&:value)
        usual = Composer.compose(name: @rig.name, facts: facts, lengths: @rig.cables.to_h { |cable| [cable.id, cable.length_feet] })
        Trials.new(usual).outcomes
      end
    end

    private

    def calls = Outputs.calls(@rig).map { |id| Trial.new(id: id, title: Catalogue.calls.fetch(id).fetch("title"), call: id) }

    def safeties
      @rig[:safeties].map do |code|
        Trial.new(id: "#{code}_open", title: Catalogue.words("wiring.trial_open", code: code), call: "heat", switches: { code => "open" }.freeze, only: COMPRESSOR)
      end
    end

    # With an outdoor thermostat: what it holds off, and what it lets through.
    def lockout
      return [] unless @rig[:outdoor_thermostat] && @rig[:backup] != "none"

      [Trial.new(id: "ODT_open", title: Catalogue.words("wiring.trial_open_aux"), call: "heat_aux", switches: { "ODT" => "open" }.freeze),
       Trial.new(id: "ODT_closed", title: Catalogue.words("wiring.trial_closed_aux"), call: "heat_aux", switches: { "ODT" => "closed" }.freeze)]
    end

    def solved(given)
      circuit = circuit(given)
      @all.to_h { |trial| [trial.id, outcome(*circuit, trial)] }
    end

    # [Rig as set up, Netlist, held] with these faults in.
    def circuit(given)
      faults = Fault.parse_all(given)
      fitted = faults.inject(@rig) { |so_far, fault| fault.refit(so_far) }
      [fitted, *Fault.inject(fitted.equal?(@rig) ? (@plain ||= Assembly.netlist(@rig)) : Assembly.netlist(fitted), faults)]
    end

    def outcome(fitted, netlist, held, trial)
      condition = Condition.new(call: trial.call, switches: trial.switches)
      solution = Settling.settle(netlist, positions: Assembly.positions(fitted, condition), held: held)
      Outcome.new(loads: loads(solution, trial), nodes: nodes(solution), blown: solution.blown, chatter: solution.chattering, overloads: Rules::TransformerOverloaded.new.check(solution),
                  lost_fraction: lost(solution))
    end

    def loads(solution, trial)
      codes = (trial.only || (@rig.layout.fetch("shown_loads") + @rig.layout.fetch("controls"))).select { |code| solution.netlist.branch?(code) }
      codes.to_h { |code| [code, solution.working?(code) && (!solution.netlist.branch?("#{code}.start") || solution.working?("#{code}.start"))] }
    end

    def nodes(solution)
      low = Catalogue.profile.dig("reading_classes", "about_24", "low")
      @rig.layout.fetch("places").keys.flat_map { |place| @rig.terminals(place).map { |terminal| "#{place}.#{terminal}" } }
          .to_h { |node| [node, !solution.floating?(node) && solution.volts[node].abs >= low ? "live" : "dead"] }
    end

    # Of what the transformer gives, the share that does not arrive outdoors.
    def lost(solution)
      given = (solution.volts["air_handler.R"] - solution.volts["air_handler.C"]).abs
      arrives = (solution.volts["outdoor.R"] - solution.volts["outdoor.C"]).abs
      given < 1 || solution.floating?("outdoor.R") || solution.floating?("outdoor.C") ? 0.0 : (given - arrives) / given
    end
  end
end
