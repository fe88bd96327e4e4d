# frozen_string_literal: true

module Gorvant
  # Every call of a rig in every state that weather, safeties, coil and board can put its fitted switches in: what a
  # wiring has to stand. Made from the rig, so that a new call or a new switch is tried without being named here.
  class Trials
    # only: the loads that it is about, nil for all; board: as a condition has it, nil for what the call says.
    Trial =
      Value.define(
        :id,
        :title,
        :call,
        :switches,
        :only,
        :board,
        defaults: {
          switches: {}.freeze,
          only: nil,
          board: nil
        }
      )
    # loads: { code => works? } of those that the trial is about; nodes: { terminal => "live" or "dead" }; blown: fuse
    # ids. overloads: Findings of the transformer; lost_fraction: of the supply, over the field cables.
    Outcome = Value.define(:loads, :nodes, :blown, :chatter, :overloads, :lost_fraction)
    TELLING = %w[heat cool heat_aux defrost].freeze # these part a wrong circuit from a right one soonest
    COMPRESSOR = %w[COMP COMP2 CC CC2].freeze

    attr_reader :rig, :all

    # rig: with its settings put right.
    def initialize(rig)
      @rig = rig
      @all =
        Outputs
          .calls(rig)
          .flat_map { |call| [plain(call), *safeties(call), *weather(call), *inputs(call), *lockout(call)] }
      @known = {}
    end

    # { trial id => Outcome } of the rig with these faults in. Raises BadCondition.
    def outcomes(faults = []) = @known[faults.sort_by(&:to_s)] ||= solved(faults)

    # Whether these faults leave every trial as it should be: { trial id => Outcome }. Stops at the first that is
    # otherwise.
    def right?(faults, should)
      known = @known[faults.sort_by(&:to_s)]
      return Effects.right?(known, should) if known

      circuit = circuit(faults)
      @all
        .sort_by
        .with_index { |trial, i| [TELLING.index(trial.call) || TELLING.size, i] }
        .all? { |trial| Effects.right?({ trial.id => outcome(*circuit, trial) }, should.slice(trial.id)) }
    end

    # What the same equipment does when it is wired as its sort usually is.
    def ideal
      @ideal ||=
        begin
          facts = Target.sound(@rig).facts.transform_values(&:value)
          usual =
            Composer.compose(
              name: @rig.name,
              facts: facts,
              lengths: @rig.cables.to_h { |cable| [cable.id, cable.length_feet] }
            )
          Trials.new(usual).outcomes
        end
    end

    private

    def about(call) = Catalogue.calls.fetch(call)
    def title(call) = about(call).fetch("title")
    def plain(call) = Trial.new(id: call, title: title(call), call: call)

    # The switch of a call in a position: "heat_ODT_open".
    def state(call, code, position, **more)
      words =
        Catalogue.wording["wiring.state_#{code}_#{position}"] || Catalogue.words("wiring.state_#{position}", code: code)
      Trial.new(
        id: "#{call}_#{code}_#{position}",
        title: Catalogue.words("wiring.trial_state", call: title(call), state: words),
        call: call,
        switches: { code => position }.freeze,
        **more
      )
    end

    # Whatever calls the compressor, an open safety keeps it out.
    def safeties(call)
      return [] unless about(call)["stage"].positive?

      (@rig[:safeties] + Assembly::Cables.in_y(@rig)).map { |code| state(call, code, "open", only: COMPRESSOR) }
    end

    # An outdoor thermostat holds off or lets through in every call that may bring heat.
    def weather(call)
      return [] unless @rig[:outdoor_thermostat] && @rig[:backup] != "none" && heats?(call)

      %w[open closed].map { |position| state(call, "ODT", position) }
    end

    def heats?(call) = about(call)["mode"] == "heating" || about(call)["emergency"]

    # What the board is told of coil and frost.
    def inputs(call)
      return [] unless call == "heat"

      { "DFT" => "DFT_IN", "APS" => "APS_IN" }.slice(*Assembly::Positions.movable(@rig))
        .flat_map { |code, input| %w[open closed].map { |position| state(call, code, position, only: [input]) } }
    end

    def lockout(call)
      return [] unless @rig[:y_path] == "delay" && about(call)["stage"].positive? && !about(call)["board"]

      words =
        Catalogue.words("wiring.trial_state", call: title(call), state: Catalogue.wording.fetch("wiring.state_lockout"))
      [Trial.new(id: "#{call}_lockout", title: words, call: call, board: { "lockout" => true }.freeze)]
    end

    def solved(given)
      circuit = circuit(given)
      @all.to_h { |trial| [trial.id, outcome(*circuit, trial)] }
    end

    # [Rig as set up, Netlist, held] with these faults in.
    def circuit(given)
      faults = Fault.parse_all(given)
      fitted = faults.inject(@rig) { |so_far, fault| fault.refit(so_far) }
      [
        fitted,
        *Fault.inject(fitted.equal?(@rig) ? (@plain ||= Assembly.netlist(@rig)) : Assembly.netlist(fitted), faults)
      ]
    end

    def outcome(fitted, netlist, held, trial)
      condition = Condition.new(call: trial.call, switches: trial.switches, board: trial.board)
      solution = Settling.settle(netlist, positions: Assembly.positions(fitted, condition), held: held)
      Outcome.new(
        loads: loads(solution, trial),
        nodes: nodes(solution),
        blown: solution.blown,
        chatter: solution.chattering,
        overloads: Rules::TransformerOverloaded.new.check(solution),
        lost_fraction: lost(solution)
      )
    end

    def loads(solution, trial)
      codes =
        (trial.only || (@rig.layout.fetch("shown_loads") + @rig.layout.fetch("controls"))).select do |code|
          solution.netlist.branch?(code)
        end
      codes.to_h do |code|
        [
          code,
          solution.working?(code) && (!solution.netlist.branch?("#{code}.start") || solution.working?("#{code}.start"))
        ]
      end
    end

    def nodes(solution)
      low = Catalogue.profile.dig("reading_classes", "about_24", "low")
      @rig
        .layout
        .fetch("places")
        .keys
        .flat_map { |place| @rig.terminals(place).map { |terminal| "#{place}.#{terminal}" } }
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
