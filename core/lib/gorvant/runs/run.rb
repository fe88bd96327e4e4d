# frozen_string_literal: true

require_relative "run/cast"
require_relative "run/circuit_at"
require_relative "run/recorder"
require_relative "run/history"

module Gorvant
  # A rig run over time: at each instant that something changes the controllers are asked in turn and the circuit is
  # solved, until nothing moves any more; then the clock goes on to what comes next. Same rig, same script: same
  # timeline.
  class Run
    MOST_ROUNDS = 40
    MOST_EVENTS = 10_000
    INPUT, COURSE, WAKE = 0, 1, 2 # priorities at one instant

    # cast: who decides. Returns a Timeline. Raises BadScript, ZeroTimeLoop.
    def self.of(rig, script, cast: Cast.new(rig, script.start)) = new(rig, script, cast).timeline

    def initialize(rig, script, cast)
      @rig = rig
      @script = script
      @cast = cast
      @plant = Plant.new(rig, script.start)
      @circuit = CircuitAt.new(rig)
      @inputs = {
        mode: script.start["mode"],
        call: script.start["call"] || ("off" unless script.start["mode"] != "off"),
        set_point: script.start["set_point_degrees_f"],
        switches: {
        },
        supplies: {
        },
        faults: []
      }
      @memories = @cast.controllers.to_h { |controller| [controller.id, controller.memory] }
      @outputs = {}
      @schedule = Schedule.new
      @wakes = {}
      @recorder = Recorder.new(rig, @cast)
      @history = History.new
      script.moves.each_with_index do |move, i|
        @schedule.add(move.at_seconds, [move, i], priority: INPUT) if move.at_seconds <= script.duration_seconds
      end
    end

    def timeline
      @circuit.solve(condition) # all has stood so for long
      settle(0.0, {})
      while (at = @schedule.next_at) && at <= @script.duration_seconds
        causes = {}
        while (item = @schedule.take(by: at))
          input(at, *item, causes) if item.is_a?(Array)
        end
        settle(at, causes)
        if @recorder.count > MOST_EVENTS
          raise BadScript.new(field: "/script", problem: "makes more than #{MOST_EVENTS} events; shorten it")
        end
      end
      @recorder.timeline(@script, @history.close(@script.duration_seconds))
    end

    private

    # Changes what the script says, and notes that it did.
    def input(now, move, index, causes)
      case move.what
      when "mode"
        @inputs = @inputs.merge(mode: move.value, call: nil)
      when "call"
        call(move)
      when "set_point"
        @inputs = @inputs.merge(set_point: move.value.to_f)
      when *Script::TEMPERATURES
        temperature(now, move)
      when "switch"
        switch(move, index)
      when "supply"
        @inputs = @inputs.merge(supplies: @inputs[:supplies].merge(move.of => move.value == "on"))
      when "fault"
        fault(move.of, move.value == "begins", "/script/moves/#{index}/of")
      when "bridge"
        @inputs = @inputs.merge(bridge: move.value == "on")
      when "jumper"
        fault({ "kind" => "short", "at" => move.of }, move.value == "on", "/script/moves/#{index}/of")
      end
      causes[signal_of(move)] = @recorder.script(now, move)
      tail(now, move)
    end

    def temperature(now, move)
      return @plant.release(move.what) if move.value == Script::FREE

      @plant.set(move.what, move.value, move.over_seconds, now)
    end

    # A course that ends has an instant of its own.
    def tail(now, move) =
      move.over_seconds.positive? && @schedule.add(now + move.over_seconds, :course, priority: COURSE)

    # A call brings the mode that it belongs to; off alone keeps it.
    def call(move)
      mode = { "heating" => "heat", "cooling" => "cool" }[Catalogue.calls.fetch(move.value)["mode"]]
      mode = "emergency" if move.value == "emergency"
      unless Outputs.calls(@rig).include?(move.value)
        raise BadScript.new(
                field: "/script/moves/#{@script.moves.index(move)}/value",
                problem: "this rig knows no call '#{move.value}'; it knows #{Outputs.calls(@rig).join(", ")}"
              )
      end

      @inputs = @inputs.merge(call: move.value, mode: mode || @inputs[:mode])
    end

    def switch(move, index)
      movable = Assembly::Positions.movable(@rig)
      unless movable.include?(move.of)
        raise BadScript.new(
                field: "/script/moves/#{index}/of",
                problem: "'#{move.of.to_s[0, 40]}' is no switch of this rig; it has #{movable.join(", ")}"
              )
      end

      held = @inputs[:switches]
      held = move.value == Script::FREE ? held.except(move.of) : held.merge(move.of => move.value)
      @inputs = @inputs.merge(switches: held)
    end

    def fault(given, begins, field)
      Fault.parse(given, field).inject(@circuit.netlist, {})
      @inputs = @inputs.merge(faults: begins ? @inputs[:faults] | [given] : @inputs[:faults] - [given])
    end

    def signal_of(move) = %w[switch supply].include?(move.what) ? move.of : move.what

    # Asks controllers and circuit in turn until nothing moves.
    def settle(now, causes)
      before = @recorder.state
      MOST_ROUNDS.times do
        Patience.check!
        changed = round(now, causes)
        next if changed

        wake(now)
        @history.note(now, @plant.quantities, @outputs.fetch("clock", 0.0) / 60, @outputs["counting"])
        return @recorder.stand(now, before, condition)
      end
      raise ZeroTimeLoop.new(at: format("%g", now), members: restless(now, causes))
    end

    # What goes on changing, in a person's words.
    def restless(now, causes)
      states = Array.new(3) { round(now, causes).then { @recorder.state } }
      @recorder.restless(states).first(8).join(", ")
    end

    # One pass over all; returns whether anything changed.
    def round(now, causes)
      seen = seen(now)
      @answers =
        @cast.controllers.to_h { |controller| [controller.id, controller.step(@memories.fetch(controller.id), seen)] }
      moved = @answers.any? { |id, answer| moved?(id, answer) }
      @answers.each { |id, answer| @memories[id] = answer.memory }
      put_out(now, causes)
      solved = @circuit.solve(condition)
      @recorder.circuit(now, @circuit, causes)
      plant(now)
      moved || solved
    end

    def moved?(id, answer) =
      answer.memory != @memories[id] || answer.outputs.any? { |key, value| value != @outputs[key] }

    # What the controllers give is so, but for what a hand holds; both are written down.
    def put_out(now, causes)
      outputs, reasons =
        %i[outputs reasons].map { |what| @answers.values.map { |answer| answer.public_send(what) }.inject({}, :merge) }
      held = held_by_hand
      @recorder.outputs(now, outputs.merge(held), reasons.except(*held.keys), causes)
      @outputs = outputs
    end

    def plant(now)
      pumps = @circuit.works?("COMP") && @circuit.faults.none? { |fault| fault["kind"] == "not_pumping" }
      @plant.follow(
        now,
        stages: pumps ? stages : 0,
        fan: @circuit.works?("OFM"),
        hot: @outputs["valve"] == "cooling" || @circuit.works?("HGS"),
        warmth: warmth
      )
    end

    # Of the compressor that run.
    def stages
      return 0 unless @circuit.works?("COMP")

      %w[COMP2 Y2S].any? { |load| @circuit.works?(load) } ? 2 : 1
    end

    # What warms or cools the room, as far as air moves.
    def warmth
      return {} unless @circuit.works?("BLOWER") || @circuit.works?("GAS")

      { stages: stages, valve: @outputs["valve"], backup: %w[HTR HTR2 GAS].any? { |load| @circuit.works?(load) } }
    end

    def seen(now)
      stuck = @inputs[:faults].any? { |fault| %w[valve_stuck valve_leaking].include?(fault["kind"]) }
      Seen.new(
        now,
        @inputs.merge(valve_stuck: stuck),
        @outputs,
        works: @circuit.method(:works?),
        live: @circuit.method(:live?),
        quantities: @plant.quantities
      )
    end

    # { code => closed? } of switches that would follow a temperature, and that a hand holds: it has the last word.
    def held_by_hand = @inputs[:switches].slice(*@cast.thermal).transform_values { |state| state == "closed" }

    # How things stand, as any drawing takes it.
    def condition
      thermal = @cast.thermal.to_h { |code| [code, @outputs[code] ? "closed" : "open"] }
      Condition.new(
        call: @outputs.fetch("call", "off"),
        switches: thermal.merge(@inputs[:switches]),
        supplies: @inputs[:supplies].reject { |_id, on| on },
        faults: @inputs[:faults],
        board: {
          "defrost" => !!@outputs["defrost"],
          "lockout" => !!@outputs["lockout"],
          "hold" => !!@outputs["hold"]
        },
        outputs: @outputs.fetch("outputs", []),
        contacts: @cast.delayed.to_h { |id| [id, @outputs[id] ? "closed" : "open"] }
      )
    end

    # Each controller is woken when it asked to be; what it asked before is forgotten.
    def wake(now)
      @answers.each { |id, answer| wake_by(id, answer.wake_at, now) }
      wake_by("plant", @plant.bends_at(now), now)
    end

    def wake_by(id, at, now)
      at = nil unless at && at > now
      kept, item = @wakes[id]
      return if kept == at && at

      @schedule.cancel(item)
      @wakes[id] = at && [at, @schedule.add(at, :wake, priority: WAKE)]
    end
  end
end
